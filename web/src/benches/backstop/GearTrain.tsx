import { useState } from 'react'
import styled, { css, keyframes } from 'styled-components'
import { clockPoint } from '../../drawing/clock'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { WordButton } from '../../kit/Button'
import type { ResultOf } from '../table'

type Way = 'cw' | 'ccw'
type Result = ResultOf<'backstop'>

export const WAY_WORDS: Record<Way, string> = { cw: 'clockwise', ccw: 'counter-clockwise' }
const TOOTH = 9 // along the pitch circle, so that teeth mesh whatever the wheel's size
const WIDTH = 720
const AXIS = 112

/** Wheels that mesh: teeth for each, so that neighbours differ and the row fills the width. */
function wheelsOf(count: number) {
  const teeth = [...Array(count).keys()].map((i) => (i % 2 ? 26 : 38))
  const radius = (n: number) => (n * TOOTH) / Math.PI
  const long = teeth.reduce((sum, n) => sum + 2 * radius(n), 0)
  const scale = Math.min(1, (WIDTH - 40) / long, 86 / radius(38))
  let x = (WIDTH - long * scale) / 2
  return teeth.map((n) => {
    const r = radius(n) * scale
    x += 2 * r
    return { n, r, x: x - r }
  })
}

/** A toothed rim of ``n`` teeth, its first tooth at 3 o'clock or its first gap there. */
function rim(n: number, r: number, gapFirst: boolean) {
  const step = 360 / n
  const depth = Math.min(5, r / 8)
  const points: string[] = []
  for (let i = 0; i < n; i++) {
    const at = 90 + i * step + (gapFirst ? step / 2 : 0)
    for (const [turn, out] of [
      [-0.3, -depth],
      [-0.18, depth],
      [0.18, depth],
      [0.3, -depth],
    ] as const) {
      const { x, y } = clockPoint(at + turn * step, r + out)
      points.push(`${x.toFixed(1)} ${y.toFixed(1)}`)
    }
  }
  return `M${points.join('L')}Z`
}

/** An arrow round a shaft, the way it turns. */
export function TurnArrow({ r, way, arrow, width = 2.5 }: { r: number; way: Way; arrow: string; width?: number }) {
  const [from, to] = way === 'cw' ? [305, 55] : [55, 305]
  const a = clockPoint(from, r)
  const b = clockPoint(to, r)
  return (
    <path
      d={`M${a.x} ${a.y}A${r} ${r} 0 0 ${way === 'cw' ? 1 : 0} ${b.x} ${b.y}`}
      fill="none"
      stroke="var(--blue)"
      strokeWidth={width}
      markerEnd={arrow}
    />
  )
}

/** The gear train from the output to the backstop as it turns, seen from the backstop's side; the arrow to look for. */
export function GearTrain({ result, side }: { result: Result; side: string }) {
  const hatch = useHatch()
  const [still, setStill] = useState(false)
  const wheels = wheelsOf(result.train.length)
  const free = result.shaft_rotation_seen_from_backstop
  const meshes = result.train.length - 1
  return (
    <>
      <Over>
        Seen from the {side} <b>arrow on the race: {WAY_WORDS[free]}</b>
      </Over>
      <Drawing
        paper={[0, 24, WIDTH, 202]}
        says={`Gear train, ${meshes} meshes, seen from the ${side}: the output turns ${WAY_WORDS[result.output_seen_from_backstop]}, the backstop ${WAY_WORDS[free]}`}
      >
        {hatch.defs}
        {wheels.map(({ n, r, x }, i) => {
          const { turns, called } = result.train[i]!
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: in their order along the train
            <g key={i} transform={`translate(${x} ${AXIS})`}>
              <Wheel $way={turns} $teeth={n} $still={still}>
                <path
                  d={rim(n, r, i % 2 === 1)}
                  fill={i === wheels.length - 1 ? hatch.other : 'var(--leaf)'}
                  stroke="var(--ink)"
                  strokeWidth="1.25"
                />
                <circle r={Math.min(24, r * 0.4)} fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.5" />
                <path d={`M0 ${-Math.min(24, r * 0.4)}V0`} stroke="var(--ink)" strokeWidth="3" />
              </Wheel>
              <TurnArrow r={r * 0.72} way={turns} arrow={hatch.move} />
              <text y={r + 26} textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600">
                {called === 'between' ? '' : called}
              </text>
            </g>
          )
        })}
      </Drawing>
      <WordButton onPress={() => setStill(!still)}>{still ? 'Let it turn' : 'Hold it still'}</WordButton>
    </>
  )
}

const Over = styled.p`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 16px;
  font-size: var(--fs-text);
  b { font-size: var(--fs-head); font-weight: 600; }
`
const clockwise = keyframes`to { transform: rotate(360deg); }`
const counter = keyframes`to { transform: rotate(-360deg); }`
/** One tooth in the same time, whatever the wheel: they stay in mesh. */
const Wheel = styled.g<{ $way: Way; $teeth: number; $still: boolean }>`
  ${({ $way, $teeth, $still }) => css`
    animation: ${$way === 'cw' ? clockwise : counter} ${$teeth * 0.6}s linear infinite;
    animation-play-state: ${$still ? 'paused' : 'running'};
  `}
  @media (prefers-reduced-motion: reduce) { animation: none; }
`
