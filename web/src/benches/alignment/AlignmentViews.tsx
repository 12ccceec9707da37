import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { exaggeration } from '../../drawing/exaggeration'
import { useHatch } from '../../drawing/Hatch'
import { MM_PER_INCH, showLength, showSlope } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { Allowed, ColdLine, FlexPlanes, SpacerTube } from './Overlays'

type Result = Schemas['AlignmentResult']

/** What the views need of the two machines; distances from the coupling's middle. */
export interface TwoMachines {
  movable: { name: string; feet: readonly { name: string; from: number }[] }
  stationary: { name: string; feet: readonly { name: string; from: number }[] }
  /** Driver stands left: then the movable machine is on this side. */
  movableLeft: boolean
  /** Half the length of a spacer: how far its flexing planes stand from the middle; 0 without one. */
  face: number
}

const WIDTH = 740
const HALF = 30 // half the height a machine is drawn with
const ROOM = 20 // how far the largest displacement is drawn
const FOOT = 12
const VIEW = { v: { height: 172, axis: 86 }, h: { height: 140, axis: 74 } }

interface ViewsProps {
  machines: TwoMachines
  result: Result | null
}

/** Side view over plan: along the shaft to scale, across exaggerated; dashed is where the machine must end up. */
export function AlignmentViews({ machines, result }: ViewsProps) {
  const { movable, stationary, movableLeft } = machines
  const reach = (feet: readonly { from: number }[]) => Math.max(240, ...feet.map((f) => f.from)) * 1.12
  const [left, right] = movableLeft
    ? [reach(movable.feet), reach(stationary.feet)]
    : [reach(stationary.feet), reach(movable.feet)]
  const scale = (WIDTH - 40) / (left + right)
  const centre = 20 + left * scale
  const far = Math.max(0, ...movable.feet.map((f) => f.from))
  const shown = result ?? NOTHING_READ
  const largest = Math.max(
    ...(['v', 'h'] as const).flatMap((p) => [Math.abs(lineOf(shown, p).offset), Math.abs(placeAt(shown, p, far))]),
  )
  const times = exaggeration(largest, scale, ROOM)
  const unit = useUnit()
  const [bars, inMm] = unit === 'mm' ? [[500, 200, 100, 50, 20], 1] : [[20, 10, 5, 2, 1], MM_PER_INCH]
  const bar = bars.find((long) => long * inMm * scale < 105) ?? bars.at(-1)!
  const barPx = bar * inMm * scale
  const common = { machines, scale, centre, times, result }
  return (
    <Views>
      <View
        {...common}
        plane="v"
        title="Side view"
        note={`from the ${movableLeft ? 3 : 9} o’clock side. Dashed: where the ${movable.name.toLowerCase()} must sit.`}
      />
      <View {...common} plane="h" title="Plan" note="from above" />
      <p>
        Across drawn × {times.toLocaleString('en')}, along the shaft to scale
        <svg viewBox="0 0 110 14" aria-hidden="true">
          <path d={`M1 2V12M${1 + barPx} 2V12`} stroke="var(--ink)" strokeWidth="1.25" />
          <path d={`M1 7H${1 + barPx}`} stroke="var(--ink)" strokeWidth="3" />
        </svg>
        {bar} {unit}
      </p>
    </Views>
  )
}

const NOTHING_READ = { left_offset_v_mm: 0, left_offset_h_mm: 0, left_slope_v_mm_per_m: 0, left_slope_h_mm_per_m: 0 }
type Left = typeof NOTHING_READ

const lineOf = (left: Left, plane: 'v' | 'h') => ({
  offset: left[`left_offset_${plane}_mm`],
  slope: left[`left_slope_${plane}_mm_per_m`],
})
const placeAt = (left: Left, plane: 'v' | 'h', x: number) => {
  const { offset, slope } = lineOf(left, plane)
  return offset + (slope * x) / 1000
}

interface ViewProps extends ViewsProps {
  plane: 'v' | 'h'
  title: string
  note: string
  scale: number
  centre: number
  times: number
}

function View({ machines, result, plane, title, note, scale, centre, times }: ViewProps) {
  const hatch = useHatch()
  const unit = useUnit()
  const { movable, stationary, movableLeft, face } = machines
  const way = movableLeft ? -1 : 1
  // Looking from behind the movable machine: up is up; in plan 3 o'clock is down where it stands left, up where right.
  const down = plane === 'v' ? -1 : -way
  const { height, axis } = VIEW[plane]
  const floor = axis + HALF + FOOT + ROOM + 4
  const left = result ?? NOTHING_READ
  const { offset, slope } = lineOf(left, plane)
  const shear = (down * slope * way * times) / 1000
  const lift = down * offset * scale * times
  const x = (mm: number) => way * mm * scale
  const body = (feet: readonly { from: number }[]) => {
    const far = Math.max(240, ...feet.map((f) => f.from)) * 1.06
    const near = Math.max(face + 70, Math.min(...feet.map((f) => f.from), far) * 0.72)
    return { far, near }
  }
  const words = plane === 'v' ? ['high', 'low'] : ['to 3', 'to 9']
  const opens = plane === 'v' ? (slope < 0 ? 'opens at top' : 'opens at bottom') : slope < 0 ? 'opens at 3' : 'opens at 9'
  const says = result
    ? `${title}: ${showLength(Math.abs(offset), unit)} ${unit} ${words[offset >= 0 ? 0 : 1]}, ${opens} by ${showSlope(slope, unit)}`
    : `${title}: nothing read yet`
  const fixed = body(stationary.feet)
  const moving = body(movable.feet)
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={says}>
      {hatch.defs}
      <text x="0" y="15" fontWeight="600" fontSize="16">
        {title}
        <tspan dx="8" fontWeight="400" fontSize="14" fill="var(--ink-2)">
          {note}
        </tspan>
      </text>
      {plane === 'h' && (
        <>
          <text x={WIDTH - 4} y={15} textAnchor="end" fontSize="13" fill="var(--ink-2)">
            {movableLeft ? '9' : '3'} o’clock side
          </text>
          <text x={WIDTH - 4} y={height - 4} textAnchor="end" fontSize="13" fill="var(--ink-2)">
            {movableLeft ? '3' : '9'} o’clock side
          </text>
        </>
      )}
      {plane === 'v' && (
        <>
          <path d={`M8 ${floor}H${WIDTH - 8}V${floor + 6}H8Z`} fill={hatch.fixed} />
          <path d={`M8 ${floor}H${WIDTH - 8}`} stroke="var(--ink)" strokeWidth="2" />
        </>
      )}
      <g transform={`translate(${centre} ${axis})`}>
        <Outline
          face={face}
          near={-fixed.near}
          far={-fixed.far}
          x={x}
          fill={hatch.fixed}
          feet={stationary.feet.map((f) => -f.from)}
          plane={plane}
          footing={ROOM + 4}
        />
        <path d={`M${x(-fixed.far * 1.05)} 0H${x(moving.far * 1.05)}`} stroke="var(--ink)" strokeDasharray="18 4 3 4" />
        <g opacity={result ? 1 : 0}>
          <Outline
            face={face}
            near={moving.near}
            far={moving.far}
            x={x}
            dashed
            feet={movable.feet.map((f) => f.from)}
            plane={plane}
          />
        </g>
        <g transform={`matrix(1 ${shear} 0 1 0 ${lift})`}>
          <Outline
            face={face}
            near={moving.near}
            far={moving.far}
            x={x}
            fill="var(--paper)"
            feet={movable.feet.map((f) => f.from)}
            plane={plane}
          />
          <path d={`M${x(moving.far * 1.08)} 0H${x(face + 4)}`} stroke="var(--ink)" strokeDasharray="18 4 3 4" />
        </g>
        {result && <Allowed result={result} x={x} across={scale * times} far={moving.far} />}
        {result && <ColdLine result={result} plane={plane} x={x} lift={(mm) => down * mm * scale * times} far={moving.far} />}
        {face > 0 && <SpacerTube from={x(-face)} to={x(face)} drop={lift + shear * x(face)} />}
        {result && <FlexPlanes result={result} plane={plane} x={x} drop={lift + shear * x(face)} />}
        <Halo x={x((-fixed.near - fixed.far) / 2)} y={5} words={stationary.name} />
        <Halo
          x={x((moving.near + moving.far) / 2)}
          y={5 + lift + shear * x((moving.near + moving.far) / 2)}
          words={movable.name}
        />
        {result &&
          result.feet.map((foot, i) => {
            const at = x(movable.feet[i]?.from ?? 0)
            const move = plane === 'v' ? foot.shim_mm : foot.slide_mm
            const sign = -down * Math.sign(move)
            const y = plane === 'v' ? HALF + FOOT + ROOM - 8 : HALF + FOOT + 14
            return (
              <g key={foot.name}>
                {Math.abs(move) > 0.0005 && (
                  <path
                    d={`M${at + 28} ${y + sign * 12}V${y - sign * 12}`}
                    stroke="var(--ink)"
                    strokeWidth="3"
                    markerEnd={hatch.move}
                  />
                )}
                <text x={at + 38} y={y + 6} className="figure">
                  {showLength(plane === 'v' ? move : Math.abs(move), unit, 2, plane === 'v')}
                </text>
              </g>
            )
          })}
        {result && (
          <text x={0} y={-HALF - (plane === 'v' ? 22 : 12)} textAnchor="middle" fontSize="15" className="halo">
            <tspan className="read">{showLength(Math.abs(offset), unit)}</tspan> {words[offset >= 0 ? 0 : 1]}, {opens}{' '}
            <tspan className="read">{showSlope(slope, unit)}</tspan>
          </text>
        )}
      </g>
      {plane === 'v' && (
        <g transform={`translate(${centre} ${floor + 18})`} stroke="var(--ink)" strokeWidth=".75">
          {[0, ...[...movable.feet].map((f) => f.from).sort((a, b) => a - b)].map((from, i, all) =>
            i === 0 ? null : (
              <g key={from}>
                <path d={`M${x(from)} -14V5M${x(all[i - 1]!)} -14V5`} />
                <path d={`M${x(all[i - 1]!)} 0H${x(from)}`} markerStart={hatch.arrow} markerEnd={hatch.arrow} />
                <text
                  x={(x(from) + x(all[i - 1]!)) / 2}
                  y="5"
                  textAnchor="middle"
                  className="read halo"
                  style={{ strokeWidth: 8 }}
                  fontSize="14"
                >
                  {showLength(from - all[i - 1]!, unit, 0)}
                </text>
              </g>
            ),
          )}
        </g>
      )}
    </svg>
  )
}

interface OutlineProps {
  /** How far its hub face stands from the coupling's middle. */
  face: number
  near: number
  far: number
  feet: readonly number[]
  x: (mm: number) => number
  plane: 'v' | 'h'
  fill?: string
  dashed?: boolean
  /** How much further down the feet of the machine that stays reach: to the floor. */
  footing?: number
}

/** A plain scheme of a machine: hub, shaft, body, feet. */
function Outline({ face, near, far, feet, x, plane, fill = 'none', dashed, footing = 0 }: OutlineProps) {
  const s = Math.sign(near)
  const [h, b, f, n] = [x((face + 4) * s), x((face + 46) * s), x(far), x(near)]
  const d = [
    `M${h} -18H${b}V-7H${n}V-${HALF - 8}H${(n + f) / 2 + (n - f) * 0.36}V-${HALF}H${f}V${HALF}H${(n + f) / 2 + (n - f) * 0.36}V${HALF - 8}H${n}V7H${b}V18H${h}Z`,
    ...feet.map((at) =>
      plane === 'v'
        ? `M${x(at) - 20} ${HALF}L${x(at) - 15} ${HALF + FOOT + footing}H${x(at) + 15}L${x(at) + 20} ${HALF}`
        : `M${x(at) - 14} ${HALF}V${HALF + 10}H${x(at) + 14}V${HALF}M${x(at) - 14} -${HALF}V-${HALF + 10}H${x(at) + 14}V-${HALF}`,
    ),
  ].join('')
  return (
    <path
      d={d}
      fill={dashed ? 'none' : fill}
      stroke={dashed ? 'var(--line)' : 'var(--ink)'}
      strokeWidth={dashed ? 1.25 : 2}
      strokeDasharray={dashed ? '5 4' : undefined}
      strokeLinejoin="round"
    />
  )
}

function Halo({ x, y, words }: { x: number; y: number; words: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" fontWeight="600" fontSize="16" className="halo">
      {words}
    </text>
  )
}

const Views = styled.div`
  padding: 6px 16px 0;
  svg { display: block; width: 100%; height: auto; overflow: visible; }
  > svg + svg { border-top: 1.25px solid var(--line); margin-top: 4px; padding-top: 2px; }
  .halo { paint-order: stroke; stroke: var(--paper); stroke-width: 5px; stroke-linejoin: round; }
  .read { font-family: var(--read); font-weight: 500; }
  .figure { font-family: var(--read); font-weight: 600; font-size: 18px; paint-order: stroke; stroke: var(--paper); stroke-width: 5px; }
  p { font-size: 13px; color: var(--ink-2); display: flex; gap: 10px; align-items: center; justify-content: flex-end; }
  p svg { width: 14.86%; min-width: 60px; height: 14px; }
`
