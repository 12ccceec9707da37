import type { CSSProperties, ReactNode } from 'react'
import styled from 'styled-components'
import { clockPoint, shortClock } from './clock'
import { useHatch } from './Hatch'

interface ClockRingProps {
  name: string
  note?: string
  clocks: readonly number[]
  /** The cell that stands at a position; `index` is its place in `clocks`. */
  cell: (clock: number, index: number) => ReactNode
  /** Where a further position can be added, and what that does. */
  onAdd?: (clock: number) => void
  onRemove?: (clock: number) => void
  /** Under each cell stands a word of its own: the ring keeps room for it. */
  wordsUnder?: boolean
}

const CELL_W = 84
const CELL_H = 64
const RING = 84
const WIDE_RING = 112 // where two places stand so near that their cells would cover each other
const CROWDED_DEG = 44
const BETWEEN = [45, 135, 225, 315]

/** A shaft seen from behind the movable machine, with a cell at every place a reading is taken. Cells run clockwise. */
export function ClockRing({ name, note, clocks, cell, onAdd, onRemove, wordsUnder }: ClockRingProps) {
  const hatch = useHatch()
  const order = clocks.map((clock, index) => ({ clock, index })).sort((a, b) => turned(a.clock) - turned(b.clock))
  const radius = isCrowded(order.map(({ clock }) => turned(clock))) ? WIDE_RING : RING
  const [boxW, boxH] = [2 * radius + CELL_W, 2 * radius + CELL_H]
  const place = (clock: number): CSSProperties => {
    const { x, y } = clockPoint(clock, radius)
    return { left: `${((x + boxW / 2) / boxW) * 100}%`, top: `${((y + boxH / 2) / boxH) * 100}%` }
  }
  const free = BETWEEN.filter((place) => !clocks.some((clock) => Math.abs(turned(clock) - place) < 20))
  return (
    <Ring role="group" aria-label={name} data-words-under={wordsUnder || undefined} style={{ width: boxW, height: boxH }}>
      <Title>
        <b>{name}</b>
        {note && <span>{note}</span>}
      </Title>
      <svg viewBox={`${-boxW / 2} ${-boxH / 2} ${boxW} ${boxH}`} aria-hidden="true">
        {hatch.defs}
        <circle r={radius} fill="none" stroke="var(--ink)" strokeWidth="2" />
        <circle r="21" fill={hatch.other} stroke="var(--ink)" strokeWidth="1.25" />
        <path d="M-26 0H26M0-26V26" stroke="var(--ink)" strokeWidth=".75" />
        <path d="M17-42A46 46 0 0 1 43-17" fill="none" stroke="var(--ink)" strokeWidth="1.25" markerEnd={hatch.arrow} />
        {[0, 90, 180, 270].map((clock) => {
          const { x, y } = clockPoint(clock, 34)
          return (
            <text key={clock} x={x} y={y + 5} textAnchor="middle" fontSize="var(--fs-note)" fill="var(--ink-2)">
              {shortClock(clock)}
            </text>
          )
        })}
      </svg>
      {order.map(({ clock, index }) => (
        <Spot key={index} style={place(clock)}>
          {cell(clock, index)}
          {clock % 90 !== 0 && onRemove && (
            <Off
              type="button"
              onClick={() => onRemove(clock)}
              aria-label={`${name}: take the place at ${shortClock(clock)} away`}
            >
              {shortClock(clock)} ×
            </Off>
          )}
        </Spot>
      ))}
      {onAdd &&
        free.map((clock) => (
          <Spot key={`add ${clock}`} style={place(clock)}>
            <Add type="button" onClick={() => onAdd(clock)} aria-label={`${name}: add a reading at ${shortClock(clock)}`}>
              <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
                <circle cx="10" cy="10" r="8" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.25" />
                <path d="M6 10H14M10 6V14" stroke="var(--ink)" strokeWidth="1.25" />
              </svg>
            </Add>
          </Spot>
        ))}
    </Ring>
  )
}

const turned = (clock: number) => ((clock % 360) + 360) % 360

/** Two places, in the order they stand round the ring, have less room than their cells want. */
function isCrowded(places: readonly number[]) {
  return places.length > 1 && places.some((at, i) => turned(places[(i + 1) % places.length]! - at) < CROWDED_DEG)
}

const Ring = styled.div`
  position: relative;
  flex: none;
  &[data-words-under] { margin-bottom: 44px; }
  > svg { position: absolute; inset: 0; width: 100%; height: 100%; }
`
const Title = styled.div`
  position: absolute;
  left: 0;
  top: 0;
  line-height: 1.1;
  max-width: 84px;
  b { font-weight: 600; display: block; }
  span { font-size: var(--fs-note); color: var(--ink-2); }
`
const Spot = styled.div`
  position: absolute;
  transform: translate(-50%, -50%);
`
const Add = styled.button`
  width: var(--touch);
  height: var(--touch);
  display: grid;
  place-items: center;
`
const Off = styled.button`
  position: absolute;
  top: 100%;
  left: 50%;
  transform: translateX(-50%);
  font-size: var(--fs-note);
  color: var(--ink-2);
  min-width: var(--touch);
  white-space: nowrap;
  background: var(--paper);
`
