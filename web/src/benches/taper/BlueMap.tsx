import { type KeyboardEvent, useRef } from 'react'
import styled from 'styled-components'
import { shortClock } from '../../drawing/clock'
import { PlainButton } from '../../kit/Button'
import type { BenchProps } from '../bench'
import { slot } from '../draft'

const ROWS = 4
const COLUMNS = 8
const AFTER = new Map([
  [0, 1],
  [1, 0.5],
  [0.5, 0],
]) // a tap goes from bare to full to part and round
const WORDS = new Map([
  [1, 'full'],
  [0.5, 'part'],
  [0, 'bare'],
])
const KEYS: Record<string, number> = { '1': 1, '2': 0.5, '3': 0 }

/** The blue map of a draft, rows from the large end; none until it has been taken. */
export const MAP = slot<number[][] | undefined>('contact', undefined)

interface BlueMapProps extends Pick<BenchProps, 'draft' | 'change'> {
  share: number | null
}

/** What the blue shows, cell by cell: full, part or bare. Large end on top, clock positions across. */
export function BlueMap({ draft, change, share }: BlueMapProps) {
  const painting = useRef<number | null>(null)
  const map = MAP.of(draft)
  const keep = (contact: number[][] | undefined) => change(MAP.put(draft, contact))
  if (!map)
    return (
      <p>
        <PlainButton onPress={() => keep(Array.from({ length: ROWS }, () => Array<number>(COLUMNS).fill(0)))}>
          Mark the blue
        </PlainButton>
      </p>
    )
  const mark = (row: number, column: number, to: number) => {
    if (map[row]![column] !== to) keep(map.map((r, i) => (i === row ? r.map((c, j) => (j === column ? to : c)) : r)))
  }
  const after = (row: number, column: number) => AFTER.get(map[row]![column]!) ?? 0
  const onKeyDown = (event: KeyboardEvent<HTMLButtonElement>, row: number, column: number) => {
    const to = KEYS[event.key]
    if (to !== undefined) return mark(row, column, to)
    const [down, right] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key] ?? []
    if (down === undefined || right === undefined) return
    event.preventDefault()
    const next = [(row + down + ROWS) % ROWS, (column + right + COLUMNS) % COLUMNS]
    event.currentTarget.parentElement?.querySelector<HTMLElement>(`[data-at="${next}"]`)?.focus()
  }
  return (
    <Unrolled onPointerUp={() => (painting.current = null)} onPointerLeave={() => (painting.current = null)}>
      <i>large end</i>
      <fieldset aria-label="Blue map">
        {map.map((cells, row) =>
          cells.map((cell, column) => (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its place
              key={`${row} ${column}`}
              type="button"
              data-at={`${row},${column}`}
              data-mark={WORDS.get(cell)}
              tabIndex={row + column === 0 ? 0 : -1}
              aria-label={`Row ${row + 1} from the large end, ${shortClock((column * 360) / COLUMNS)}: ${WORDS.get(cell)}`}
              onPointerDown={(event) => {
                event.currentTarget.releasePointerCapture(event.pointerId)
                painting.current = after(row, column)
                mark(row, column, painting.current)
              }}
              onPointerEnter={() => painting.current !== null && mark(row, column, painting.current)}
              onClick={(event) => event.detail === 0 && mark(row, column, after(row, column))}
              onKeyDown={(event) => onKeyDown(event, row, column)}
            />
          )),
        )}
        {[...Array(COLUMNS).keys()].map((column) => (
          <small key={column}>{shortClock((column * 360) / COLUMNS)}</small>
        ))}
      </fieldset>
      <i>
        small end
        <b>{share === null ? '' : `${Math.round(share * 100)} % blue`}</b>
        <PlainButton onPress={() => keep(undefined)}>No map</PlainButton>
      </i>
    </Unrolled>
  )
}

const Unrolled = styled.div`
  display: grid;
  grid-template-columns: 60px minmax(0, 1fr) 110px;
  gap: 10px;
  touch-action: none;
  > i { font-style: normal; font-size: var(--fs-small); color: var(--ink-2); }
  > i:last-child { align-self: end; display: flex; flex-direction: column; gap: 6px; }
  > i b { color: var(--ink); font: 600 var(--fs-sub) var(--read); }
  > fieldset { border: 0; display: grid; grid-template-columns: repeat(${COLUMNS}, 1fr); }
  > fieldset > button { min-height: var(--touch); border: 1.25px solid var(--ink); margin: -0.6px; background: var(--leaf); }
  > fieldset > button[data-mark='full'] { background: var(--blue); }
  > fieldset > button[data-mark='part'] { background: repeating-linear-gradient(135deg, var(--blue) 0 5px, var(--leaf) 5px 10px); }
  > fieldset > button[data-mark='bare'] { background: radial-gradient(circle, var(--ink) 0 2px, var(--leaf) 2.5px); }
  > fieldset > button:focus-visible { outline: 3px solid var(--ink); outline-offset: 1px; z-index: 1; }
  /* On a phone the clock runs down, so that every cell keeps a finger's size. */
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    > fieldset { grid-auto-flow: column; grid-template: repeat(${COLUMNS}, auto) / repeat(${ROWS}, 1fr) 48px; }
    > fieldset > small { grid-column: ${ROWS + 1}; align-self: center; }
  }
  small { text-align: center; font: 500 var(--fs-note) var(--read); }
`
