import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { showTime } from '../../units/length'

type Result = Schemas['HeatResult']

interface CoolingCurveProps {
  result: Result | null
  readings: readonly { after_s: number; hub_c: number }[]
  /** Seconds since it left the heater, where it has. */
  now_s?: number
  /** When it will be shut by what was read on the way, where that is known better. */
  closes_s?: number
}

const BOX = { left: 56, right: 724, top: 14, bottom: 168 }

/** The hub's temperature in still air, from the heater on; shaded where its bore would no longer pass. Crosses are readings. */
export function CoolingCurve({ result, readings, now_s, closes_s }: CoolingCurveProps) {
  const hatch = useHatch()
  if (!result) return <p style={{ color: 'var(--ink-2)' }}>Drawn as soon as the target is known.</p>
  const { curve, closes_at_c: shut, ceiling_lowest_c: ceiling } = result
  const until = curve[curve.length - 1]!.after_s
  const hottest = Math.max(ceiling, curve[0]!.hub_c) + 8
  const coldest = Math.min(shut, curve[curve.length - 1]!.hub_c) - 8
  const x = (s: number) => BOX.left + (Math.min(s, until) / until) * (BOX.right - BOX.left)
  const y = (c: number) => BOX.bottom - ((c - coldest) / (hottest - coldest)) * (BOX.bottom - BOX.top)
  const path = curve.map((p, i) => `${i ? 'L' : 'M'}${x(p.after_s).toFixed(1)} ${y(p.hub_c).toFixed(1)}`).join('')
  const closes = closes_s ?? result.window_fitted_s ?? result.window_s
  const ticks = timeTicks(until)
  return (
    <Drawing
      along
      paper={[0, 0, 740, 196]}
      says={closes === null ? 'The bore stays open' : `In still air it closes at ${showTime(closes)}`}
    >
      {hatch.defs}
      {closes !== null && closes < until && (
        <path d={`M${x(closes)} ${BOX.top}H${BOX.right}V${BOX.bottom}H${x(closes)}Z`} fill={hatch.fixed} />
      )}
      <Level at={y(ceiling)} words="ceiling" degrees={ceiling} />
      <Level at={y(shut)} words="bore meets shaft" degrees={shut} />
      <path d={`M${BOX.left} ${BOX.top}V${BOX.bottom}H${BOX.right}`} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth="3" strokeDasharray="8 5" />
      {closes !== null && closes < until && (
        <text x={x(closes) - 6} y={BOX.bottom - 8} textAnchor="end" fontSize="var(--fs-small)" className="halo">
          closes at {showTime(closes)}, still air
        </text>
      )}
      {readings.map((r) => (
        <path
          key={`${r.after_s} ${r.hub_c}`}
          d={`M${x(r.after_s) - 6} ${y(r.hub_c) - 6}l12 12m0 -12l-12 12`}
          stroke="var(--blue)"
          strokeWidth="3"
        />
      ))}
      {now_s !== undefined && <path d={`M${x(now_s)} ${BOX.top}V${BOX.bottom}`} stroke="var(--blue)" strokeWidth="3" />}
      {ticks.map((s) => (
        <text key={s} x={x(s)} y="190" textAnchor="middle" fontSize="var(--fs-note)" fontFamily="var(--read)">
          {showTime(s)}
        </text>
      ))}
    </Drawing>
  )
}

function Level({ at, words, degrees }: { at: number; words: string; degrees: number }) {
  return (
    <>
      <path d={`M${BOX.left} ${at}H${BOX.right}`} stroke="var(--ink)" strokeWidth="1.25" />
      <text x={BOX.left - 6} y={at + 5} textAnchor="end" fontSize="var(--fs-small)" fontFamily="var(--read)" fontWeight="600">
        {Math.round(degrees)}
      </text>
      <text x={BOX.right - 6} y={at - 5} textAnchor="end" fontSize="var(--fs-small)" className="halo">
        {words}
      </text>
    </>
  )
}

/** Round times along the axis, five or six of them. */
function timeTicks(until: number): number[] {
  const step = [10, 30, 60, 120, 300, 600, 1200, 1800, 3600, 7200].find((s) => until / s <= 7) ?? 14_400
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, i) => i * step)
}
