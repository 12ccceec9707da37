import type { Schemas } from '../../api/client'
import { clockPoint } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'
import { TapPlan } from '../../drawing/TapPlan'

type Hole = Schemas['Hole']

interface HoleMapProps {
  holes: readonly Hole[]
  /** What each bolt goes through, in order. */
  states: readonly string[]
  next: number | null
  onTap: (hole: number) => void
}

const HALF = { x: 200, y: 190 }
const CIRCLE = 132
const BIGGEST = 26

/** Whether bolts that go through these states are drawn in; else they are taken out. */
export const areDrawnIn = (states: readonly string[]) => states.includes('head seated')

/** The bolt circle, each hole as far as its bolt is. A tap takes it one state on. */
export function HoleMap({ holes, states, next, onTap }: HoleMapProps) {
  const hatch = useHatch()
  const size = Math.min(BIGGEST, (Math.PI * CIRCLE) / holes.length - 6)
  const places = holes.map((_, i) => clockPoint((i * 360) / holes.length, CIRCLE))
  const taps = holes.map((hole, i) => ({
    key: hole.hole,
    at: places[i]!,
    label: `Hole ${hole.hole}, ${hole.state ?? (areDrawnIn(states) ? 'empty' : 'bolt in')}${hole.next ? `, then ${hole.next}` : ''}`,
    isDisabled: hole.next === null,
  }))
  return (
    <TapPlan half={HALF} places={taps} onTap={onTap}>
      {hatch.defs}
      <circle r="182" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <circle r={CIRCLE} fill="none" stroke="var(--ink)" strokeDasharray="14 3 3 3" />
      <circle r="78" fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
      <circle r="54" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      {holes.map((hole, i) => (
        <g key={hole.hole} transform={`translate(${places[i]!.x} ${places[i]!.y})`}>
          {hole.hole === next && <circle r={size + 10} fill="var(--blue-wash)" stroke="var(--blue)" strokeWidth="3" />}
          <OneHole hole={hole} states={states} size={size} isNext={hole.hole === next} />
        </g>
      ))}
      <text y="-4" textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600">
        {next === null ? 'all done' : `hole ${next}`}
      </text>
      <text y="16" textAnchor="middle" fontSize="var(--fs-note)">
        {next === null ? '' : `head: ${holes.find((h) => h.hole === next)?.head}`}
      </text>
    </TapPlan>
  )
}

/**
 * A hole: empty dashed; then its bolt with a piece of the ring for each state; solid once its head is seated. On the way out
 * the pieces go one by one, from solid to dashed.
 */
function OneHole({ hole, states, size, isNext }: { hole: Hole; states: readonly string[]; size: number; isNext: boolean }) {
  const gone = hole.state === null ? 0 : states.indexOf(hole.state) + 1
  const done = areDrawnIn(states) ? gone : states.length - gone
  const isSeated = done === states.length
  const colour = isNext ? 'var(--blue)' : 'var(--ink)'
  const turn = 360 / states.length
  return (
    <>
      <circle
        r={size}
        fill={isSeated ? 'var(--ink)' : 'var(--leaf)'}
        stroke={colour}
        strokeWidth={done ? 2 : 1.25}
        strokeDasharray={done ? undefined : '4 3'}
      />
      {!isSeated &&
        [...Array(done).keys()].map((i) => {
          const [from, to] = [clockPoint(i * turn + 6, size - 4), clockPoint((i + 1) * turn - 6, size - 4)]
          return (
            <path
              key={states[i]}
              d={`M${from.x} ${from.y}A${size - 4} ${size - 4} 0 0 1 ${to.x} ${to.y}`}
              fill="none"
              stroke={colour}
              strokeWidth="4"
            />
          )
        })}
      <text
        y="6"
        textAnchor="middle"
        fontFamily="var(--read)"
        fontWeight="600"
        fontSize="var(--fs-body)"
        fill={isSeated ? 'var(--paper)' : colour}
      >
        {hole.hole}
      </text>
    </>
  )
}
