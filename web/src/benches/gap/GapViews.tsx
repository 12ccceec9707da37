import type { Schemas } from '../../api/client'
import { sayToward, shortClock } from '../../drawing/clock'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { sayLength, showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { Names } from '../bench'

type Result = Schemas['GapResult']
type Found = Pick<Result, 'mean_mm' | 'spread_mm' | 'angle_v_mm_per_m' | 'angle_mm_per_m' | 'wide_at_deg'>

const HUB = { height: 130, width: 90, gap: 56, spacer: 190 }
const ANGLE_ROOM = 16 // how far the steeper of the angles leans a face

/** The lean of a face, from the side; the steepest angle shown fills the room there is. */
const leanOf = (found: Found | null, steepest: number) =>
  found && (found.angle_mm_per_m ?? 0) > 0.001 ? ((found.angle_v_mm_per_m ?? 0) / Math.max(steepest, 2)) * ANGLE_ROOM : 0

/** Two hubs from the side, their faces open by what was read. */
export function TwoHubs({ result, names }: { result: Result | null; names: Names }) {
  const hatch = useHatch()
  const unit = useUnit()
  const lean = leanOf(result, result?.angle_mm_per_m ?? 0)
  const { height: h, width: w, gap: g } = HUB
  const [a, b] = [-g / 2, g / 2]
  return (
    <Drawing
      along
      paper={[-370, -96, 740, 206]}
      says={result ? `Gap ${showLength(result.mean_mm, unit)} ${unit} on the axis` : 'Two hubs, nothing read yet'}
    >
      {hatch.defs}
      <path d="M-350 0H350" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
      <path d={`M${b + w} -18H340V18H${b + w}Z`} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="1.25" />
      <path d={`M${b} ${-h / 2}H${b + w}V${h / 2}H${b}Z`} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${a - w} -18H-340V18H${a - w}Z`} fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.25" />
      <path
        d={`M${a + lean} ${-h / 2}H${a - w}V${h / 2}H${a - lean}Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text x={b + w + 8} y="-30" fontSize="var(--fs-small)">
        {names.stationary.toLowerCase()}
      </text>
      <text x={a - w - 8} y="-30" textAnchor="end" fontSize="var(--fs-small)">
        {names.movable.toLowerCase()}
      </text>
      <GapFigure from={a} to={b} found={result} arrow={hatch.arrow} />
      {result && (
        <text x="366" y={-82} fontSize="var(--fs-text)" textAnchor="end">
          spread {sayLength(result.spread_mm, unit)}
          <tspan x="366" dy="18">
            wide at {sayToward(result.wide_at_deg)}
          </tspan>
        </text>
      )}
    </Drawing>
  )
}

/** Both hubs and the spacer between them, a gap at each of its ends. */
export function HubsAndSpacer({ result, ends }: { result: Result | null; ends: readonly string[] }) {
  const hatch = useHatch()
  const unit = useUnit()
  const { height: h, width: w, gap: g, spacer } = HUB
  const other = result?.other_end ?? null
  const steepest = Math.max(result?.angle_mm_per_m ?? 0, other?.angle_mm_per_m ?? 0)
  const [first, second] = [leanOf(result, steepest), leanOf(other, steepest)]
  const edge = spacer / 2 + g
  const said = result
    ? `${ends[0]} ${showLength(result.mean_mm, unit)}, ${ends[1]} ${other ? showLength(other.mean_mm, unit) : 'not read'} ${unit}`
    : 'Two hubs and their spacer, nothing read yet'
  return (
    <Drawing along paper={[-370, -96, 740, 206]} says={said}>
      {hatch.defs}
      <path d="M-350 0H350" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
      <path
        d={`M${-edge} ${-h / 2}H${-edge - w}V-18H-350V18H${-edge - w}V${h / 2}H${-edge}Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <path
        d={`M${edge} ${-h / 2}H${edge + w}V-18H350V18H${edge + w}V${h / 2}H${edge}Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <path d={spacerOutline(first, second)} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <text y="5" textAnchor="middle" fontSize="var(--fs-small)" className="halo">
        spacer
      </text>
      {(
        [
          [-edge, result, ends[0]],
          [spacer / 2, other, ends[1]],
        ] as const
      ).map(([from, found, name]) => (
        <g key={name}>
          <GapFigure from={from} to={from + g} found={found} arrow={hatch.arrow} />
          <text
            x={from < 0 ? -350 : 350}
            y="-78"
            textAnchor={from < 0 ? 'start' : 'end'}
            fontSize="var(--fs-text)"
            fontWeight="600"
          >
            {name}
          </text>
          {found && (
            <text x={from < 0 ? -350 : 350} y="-36" textAnchor={from < 0 ? 'start' : 'end'} fontSize="var(--fs-small)">
              <tspan>spread {sayLength(found.spread_mm, unit)}</tspan>
              <tspan x={from < 0 ? -350 : 350} dy="15">
                wide at {shortClock(found.wide_at_deg)}
              </tspan>
            </text>
          )}
        </g>
      ))}
    </Drawing>
  )
}

/** Flanges at both ends, a tube between; each face leans by the angle of its gap. */
function spacerOutline(first: number, second: number) {
  const { height: h, spacer } = HUB
  const [end, flange, tube] = [spacer / 2, spacer / 2 - 22, h / 4]
  return (
    `M${-end - first} ${-h / 2}H${-flange}V${-tube}H${flange}V${-h / 2}H${end + second}` +
    `L${end - second} ${h / 2}H${flange}V${tube}H${-flange}V${h / 2}H${-end + first}Z`
  )
}

interface GapFigureProps {
  from: number
  to: number
  found: Found | null
  arrow: string
}

function GapFigure({ from, to, found, arrow }: GapFigureProps) {
  const unit = useUnit()
  const below = HUB.height / 2
  return (
    <>
      <path d={`M${from} ${below + 11}H${to}`} stroke="var(--ink)" strokeWidth=".75" markerStart={arrow} markerEnd={arrow} />
      {found && (
        <text
          x={(from + to) / 2}
          y={below + 31}
          textAnchor="middle"
          fontSize="var(--fs-head)"
          fontFamily="var(--read)"
          fontWeight="600"
          className="halo"
        >
          {showLength(found.mean_mm, unit)}
        </text>
      )}
    </>
  )
}
