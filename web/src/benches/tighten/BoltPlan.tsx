import type { Schemas } from '../../api/client'
import { clockPoint } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'
import { TapPlan } from '../../drawing/TapPlan'
import { feetPlaces } from './feetPlaces'

type Result = Schemas['TightenResult']
type Turn = Schemas['Turn']

/** One bolt pulled once. */
export type Pull = Schemas['Pull']

interface BoltPlanProps {
  result: Result
  pulls: readonly Pull[]
  next: Turn | null
  /** What to set the wrench to is not known at the moment. */
  isHeld: boolean
  /** The machine whose feet are bolted down; without it the bolts stand on a circle. */
  feet: Schemas['Machine'] | null
  /** Where the coupling is, seen from above with driver left. */
  couplingRight: boolean
  onTap: (bolt: number) => void
}

const HALF = { x: 200, y: 190 }
const CIRCLE = 138
const [OUTER, INNER] = [146, 88] // two circles that take turns
const BIGGEST = 24
const IN_RING = 20

/** The bolts where they sit, with their numbers: pulled, next, still to come. Tap one to say that it clicked. */
export function BoltPlan({ result, pulls, next, isHeld, feet, couplingRight, onTap }: BoltPlanProps) {
  const hatch = useHatch()
  const bolts = [...new Set(result.sequence.map((t) => t.bolt))].sort((a, b) => a - b)
  const passes = Math.max(...result.sequence.map((t) => t.pass))
  const isTwo = result.circles.length > 1
  const places = feet ? feetPlaces(bolts.length) : placesOf(result.circles)
  const size = feet ? BIGGEST : Math.min(isTwo ? IN_RING : BIGGEST, (Math.PI * CIRCLE) / bolts.length - 5)
  const names = new Map(result.sequence.map((turn) => [turn.bolt, turn.name]))
  const taps = bolts.map((bolt, i) => ({
    key: bolt,
    at: places[i]!,
    label: `Bolt ${names.get(bolt)}${next?.bolt === bolt ? ', next' : ''}`,
  }))
  return (
    <TapPlan half={HALF} places={taps} onTap={onTap}>
      {hatch.defs}
      {feet ? (
        <Machine name={feet.name} couplingRight={couplingRight} />
      ) : (
        <>
          <circle r="182" fill="none" stroke="var(--ink)" strokeWidth="2" />
          <circle r={isTwo ? OUTER : CIRCLE} fill="none" stroke="var(--ink)" strokeDasharray="14 3 3 3" />
          {isTwo && <circle r="117" fill="none" stroke="var(--ink)" strokeWidth="2" />}
          {isTwo && <circle r={INNER} fill="none" stroke="var(--ink)" strokeDasharray="14 3 3 3" />}
          {!isTwo && <circle r="92" fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />}
          <circle r={isTwo ? 60 : 66} fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
        </>
      )}
      {bolts.map((bolt, i) => (
        <Bolt
          key={bolt}
          name={names.get(bolt) ?? String(bolt)}
          at={places[i]!}
          size={size}
          passes={passes}
          pulled={pulls.filter((p) => p.bolt === bolt)}
          still={standsStill(result, pulls, bolt)}
          isNext={next?.bolt === bolt}
        />
      ))}
      <text y="-26" textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600" fill="var(--blue)">
        {next
          ? `${result.still === null ? 'bolt' : 'screw'} ${next.name}`
          : isHeld
            ? 'no setting yet'
            : result.still
              ? 'none turns any more'
              : 'all pulled'}
      </text>
      <text y="20" textAnchor="middle" fontFamily="var(--read)" fontWeight="600" fontSize="var(--fs-large)" data-large>
        {next ? Number(next.set_nm.toFixed(1)) : ''}
      </text>
      <text y="44" textAnchor="middle" fontSize="var(--fs-small)">
        {next
          ? result.still === null
            ? `N·m, pass ${next.pass} of ${passes}`
            : `N·m, round ${next.pass}`
          : `${result.done} pulls`}
      </text>
    </TapPlan>
  )
}

/** A machine from above, its shaft toward the coupling; 9 o'clock side on top where the coupling is right. */
function Machine({ name, couplingRight }: { name: string; couplingRight: boolean }) {
  const way = couplingRight ? 1 : -1
  return (
    <g stroke="var(--ink)" fill="none">
      <path d="M-150 -96H150V96H-150Z" strokeWidth="2" fill="var(--paper)" />
      <path d="M-196 0H196" strokeDasharray="14 3 3 3" />
      <path d={`M${way * 150} -15H${way * 172}V15H${way * 150}`} strokeWidth="2" />
      <path d={`M${way * 172} -30H${way * 192}V30H${way * 172}Z`} strokeWidth="2" fill="var(--paper)" />
      <g stroke="none" fill="var(--ink)" textAnchor="middle" fontSize="var(--fs-small)">
        <text y="76" fontWeight="600" fontSize="var(--fs-body)">
          {name}
        </text>
        <text y="-172">{couplingRight ? '9' : '3'} o’clock side</text>
        <text y="182">{couplingRight ? '3' : '9'} o’clock side</text>
      </g>
    </g>
  )
}

/** Whether nothing moves it any more: it clicked in rounds of half turns, it stood still in full rounds. Null by passes. */
function standsStill(result: Result, pulls: readonly Pull[], bolt: number): boolean | null {
  if (result.half_turns) return result.clicked.includes(bolt)
  return result.still === null ? null : pulls.findLast((p) => p.bolt === bolt)?.moved === false
}

/** Each circle evenly round, the first outside where there are two. */
function placesOf(circles: readonly number[]) {
  return circles.flatMap((bolts, which) =>
    [...Array(bolts).keys()].map((i) =>
      clockPoint((i * 360) / bolts, circles.length === 1 ? CIRCLE : which === 0 ? OUTER : INNER),
    ),
  )
}

interface BoltProps {
  name: string
  at: { x: number; y: number }
  size: number
  passes: number
  pulled: readonly Pull[]
  /** Whether it stood still when it was last pulled; null where only passes count. */
  still: boolean | null
  isNext: boolean
}

/** A bolt head; one dot outside it for each pass it has had. Solid when it is done: all its passes, or it stood still. */
function Bolt({ name, at, size, passes, pulled, still, isNext }: BoltProps) {
  const isDone = still ?? new Set(pulled.map((p) => p.pass)).size >= passes
  const outward = (Math.atan2(at.x, -at.y) * 180) / Math.PI
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      {isNext && <circle r={size + 9} fill="var(--blue-wash)" stroke="var(--blue)" strokeWidth="3" />}
      <path
        d={hexagon(size)}
        fill={isDone ? 'var(--ink)' : 'var(--leaf)'}
        stroke={isNext ? 'var(--blue)' : 'var(--ink)'}
        strokeWidth="2"
      />
      <text
        y="6"
        textAnchor="middle"
        fontFamily="var(--read)"
        fontWeight="600"
        fontSize={name.length > 2 ? 'var(--fs-small)' : 'var(--fs-body)'}
        fill={isDone ? 'var(--paper)' : isNext ? 'var(--blue)' : 'var(--ink)'}
      >
        {name}
      </text>
      {still === null &&
        [...Array(passes).keys()].map((pass) => {
          const dot = clockPoint(outward + (pass - (passes - 1) / 2) * 26, size + 5)
          const taken = pulled.some((p) => p.pass === pass + 1)
          return taken && !isNext && <circle key={pass} cx={dot.x} cy={dot.y} r="3" fill="var(--ink)" />
        })}
    </g>
  )
}

function hexagon(size: number) {
  const points = [30, 90, 150, 210, 270, 330].map((c) => clockPoint(c, size))
  return `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
}
