import type { Schemas } from '../../api/client'
import { clockPoint, sayClock } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'
import { TapPlan } from '../../drawing/TapPlan'

type Hole = Schemas['HoleNow']

interface FillMapProps {
  holes: readonly Hole[]
  next: number | null
  onTap: (hole: number) => void
}

const HALF = { x: 220, y: 176, below: 192 }
const RIM = 112
const FLOOR = 172
const INSIDE = 56

/** The coupling seen along its shaft as it stands: which hole is low, where a plug is out, where grease has shown. */
export function FillMap({ holes, next, onTap }: FillMapProps) {
  const hatch = useHatch()
  const taps = holes.map((hole) => ({
    key: hole.hole,
    at: clockPoint(hole.clock, RIM),
    label: `Hole ${hole.hole} at ${sayClock(hole.clock)}: ${WORDS[hole.state]}`,
  }))
  return (
    <TapPlan half={HALF} places={taps} onTap={onTap}>
      {hatch.defs}
      <path d={`M-200 ${FLOOR}H200V${FLOOR + 8}H-200Z`} fill={hatch.fixed} />
      <path d={`M-200 ${FLOOR}H200`} stroke="var(--ink)" strokeWidth="2" />
      <circle r={RIM} fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
      <circle r="76" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      <circle r="34" fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <path d="M-140 0H140M0-140V140" stroke="var(--ink)" strokeWidth=".75" strokeDasharray="14 3 3 3" />
      {holes.map((hole) => (
        <g key={hole.hole} transform={`rotate(${hole.clock}) translate(0 ${-RIM})`}>
          <Plug hole={hole} isNext={hole.hole === next} />
        </g>
      ))}
      {holes.map((hole) => {
        const { x, y } = clockPoint(hole.clock, INSIDE)
        return (
          <text
            key={hole.hole}
            x={x}
            y={y + 5}
            textAnchor="middle"
            fontSize="var(--fs-text)"
            fontWeight="600"
            className="halo"
          >
            {hole.hole}
            {hole.lowest && (
              <tspan fontSize="var(--fs-note)" fontWeight="400">
                {' low'}
              </tspan>
            )}
          </text>
        )
      })}
    </TapPlan>
  )
}

const WORDS: Record<Hole['state'], string> = {
  closed: 'plug in',
  open: 'plug out',
  filling: 'filled through it',
  showed: 'it showed',
  done: 'done, plug in',
}

/** A hole in the rim: plugged, open, with the gun on it, with grease standing out of it, or plugged for good. */
function Plug({ hole, isNext }: { hole: Hole; isNext: boolean }) {
  const isIn = hole.state === 'closed' || hole.state === 'done'
  return (
    <>
      {isNext && <circle r="24" fill="var(--blue-wash)" stroke="var(--blue)" strokeWidth="3" />}
      <path d="M-9 -6H9V22H-9Z" fill="var(--leaf)" stroke="var(--ink)" strokeWidth="1.6" />
      {isIn && (
        <path
          d="M-12 -12H12V-5H9V18H-9V-5H-12Z"
          fill={hole.state === 'done' ? 'var(--ink)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      )}
      {hole.state === 'filling' && <path d="M-5 20V-30L-12 -38H12L5 -30V20Z" fill="var(--blue)" stroke="var(--ink)" />}
      {hole.state === 'showed' && <path d="M-8 20V-8A8 9 0 0 1 8 -8V20Z" fill="var(--blue)" stroke="var(--ink)" />}
    </>
  )
}
