import type { Schemas } from '../../api/client'
import { clockPoint, sayToward } from '../../drawing/clock'
import { exaggeration } from '../../drawing/exaggeration'
import { useHatch } from '../../drawing/Hatch'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'

type Result = Schemas['RunoutResult']

const RIM = 90

/** Where the rim runs and where it should, its high spot marked; a second place dashed beside it. */
export function OffCentre({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const second = result?.second && result.second.on !== 'face' ? result.second : null
  const biggest = Math.max(result?.eccentricity_mm ?? 0, second?.eccentricity_mm ?? 0)
  const times = result ? exaggeration(biggest, 1, 26) : 100
  const at = (deg: number, mm: number) => clockPoint(deg, mm * times)
  const off = result ? at(result.high_spot_deg, result.eccentricity_mm) : { x: 0, y: 0 }
  const other = second && at(second.high_spot_deg, second.eccentricity_mm)
  const high = result ? clockPoint(result.high_spot_deg, RIM + 26) : null
  return (
    <svg
      viewBox="-140 -130 280 260"
      width="280"
      height="260"
      role="img"
      aria-label={result ? `High spot at ${sayToward(result.high_spot_deg)}` : 'Nothing read yet'}
    >
      {hatch.defs}
      <circle r={RIM} fill="none" stroke="var(--line)" strokeDasharray="5 4" strokeWidth="1.25" />
      {other && <circle cx={other.x} cy={other.y} r={RIM - 14} fill="none" stroke="var(--ink)" strokeDasharray="9 5" />}
      <circle cx={off.x} cy={off.y} r={RIM} fill="none" stroke="var(--ink)" strokeWidth="2" />
      <circle cx={off.x} cy={off.y} r="3" fill="var(--ink)" />
      <path d="M-20 0H20M0-20V20" stroke="var(--ink)" strokeWidth=".75" />
      {result && high && (
        <>
          <path
            d={`M${off.x} ${off.y}L${high.x * 0.88} ${high.y * 0.88}`}
            stroke="var(--ink)"
            strokeWidth="3"
            markerEnd={hatch.move}
          />
          <text x={high.x} y={high.y + 5} textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600">
            high
          </text>
          <text x="0" y="124" textAnchor="middle" fontSize="var(--fs-small)">
            off centre {showLength(result.eccentricity_mm, unit, 3)}, drawn × {times}
          </text>
        </>
      )}
      {second && (
        <text x="0" y="-114" textAnchor="middle" fontSize="var(--fs-small)">
          dashed: {second.on}
        </text>
      )}
    </svg>
  )
}
