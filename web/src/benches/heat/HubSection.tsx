import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'

type Result = Schemas['HeatResult']

const SHAFT = 26 // half the height the shaft is drawn with
const WALL = 26
const MOST_GAP = 10
const GAP_PER_MM = 120

/** Hub and shaft in section: the bore stands clear by what the target temperature gives. */
export function HubSection({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const clear = result?.clear_now_mm ?? result?.curve[0]?.clear_mm ?? 0
  const gap = Math.max(-4, Math.min(MOST_GAP, clear * GAP_PER_MM))
  const [inner, outer] = [SHAFT + gap, SHAFT + gap + WALL]
  const words = result?.clear_now_mm == null ? 'clear when heated' : 'clear now'
  return (
    <Drawing
      along
      paper={[-370, -62, 740, 124]}
      says={result ? `${showLength(clear, unit, 3)} ${unit} ${words}` : 'Hub and shaft, nothing calculated yet'}
    >
      {hatch.defs}
      <path
        d={`M-360 ${-SHAFT}H180L188 ${-SHAFT + 8}V${SHAFT - 8}L180 ${SHAFT}H-360`}
        fill={hatch.fixed}
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <path
        d={`M0 ${-outer}H150V${-inner}H0ZM0 ${inner}H150V${outer}H0Z`}
        fill={hatch.other}
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <path d={`M0 ${-inner}V${inner}M150 ${-inner}V${inner}`} stroke="var(--ink)" strokeWidth="1.25" />
      <path d="M-366 0H240" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
      <text x="-180" y="5" textAnchor="middle" fontWeight="600" className="halo">
        Shaft
      </text>
      <text x="75" y="5" textAnchor="middle" fontWeight="600" className="halo">
        Hub
      </text>
      {result && (
        <>
          <path d={`M146 ${-(SHAFT + inner) / 2}H196`} stroke="var(--ink)" strokeWidth=".75" />
          <text x="202" y={-(SHAFT + inner) / 2 + 5} fontSize="var(--fs-text)">
            <tspan fontFamily="var(--read)" fontWeight="600" fontSize="var(--fs-sub)">
              {showLength(Math.abs(clear), unit, 3)}
            </tspan>{' '}
            {unit}
            <tspan x="202" dy="17">
              {clear < 0 ? 'it grips' : words}
            </tspan>
          </text>
          <text x="202" y="32" fontSize="var(--fs-small)" fill="var(--ink-2)">
            closes at {Math.round(result.closes_at_c)} °C
          </text>
        </>
      )}
    </Drawing>
  )
}
