import type { Schemas } from '../../api/client'
import { showSlope } from '../../units/length'
import { useUnit } from '../../units/preferences'

type Result = Schemas['AlignmentResult']

interface AllowedProps {
  result: Result
  /** Along the shaft, mm to drawing units. */
  x: (mm: number) => number
  /** Across, mm to drawing units, exaggerated. */
  across: number
  /** How far the movable machine reaches, mm. */
  far: number
}

const TALLEST = 58 // beyond this the band would leave the view: then it is no help

/** Where the movable axis may lie: a band at the coupling that widens with the angle, about the stationary axis prolonged. */
export function Allowed({ result, x, across, far }: AllowedProps) {
  const least = (of: 'offset_mm' | 'angle_mm_per_m') => {
    const given = (result.allowed ?? []).flatMap((limits) => limits[of] ?? [])
    return given.length > 0 ? Math.min(...given) : null
  }
  const [offset, angle] = [least('offset_mm'), least('angle_mm_per_m')]
  if (offset === null || angle === null) return null
  const at = (mm: number) => Math.min(TALLEST, (offset + (angle * Math.abs(mm)) / 1000) * across)
  const [near, end] = [at(0), at(far)]
  return (
    <g>
      <path
        d={`M${x(0)} ${-near}L${x(far)} ${-end}V${end}L${x(0)} ${near}Z`}
        fill="var(--blue)"
        fillOpacity=".08"
        stroke="var(--ink-2)"
        strokeWidth=".75"
        strokeDasharray="2 3"
      />
    </g>
  )
}

interface PlanesProps {
  result: Result
  plane: 'v' | 'h'
  x: (mm: number) => number
  /** How far the movable shaft is drawn away at its plane. */
  drop: number
}

/** A spacer between its two flexing planes: from the stationary axis to where the movable one lies. */
export function SpacerTube({ from, to, drop }: { from: number; to: number; drop: number }) {
  return (
    <path
      d={`M${from} -9L${to} ${drop - 9}V${drop + 9}L${from} 9Z`}
      fill="var(--paper)"
      stroke="var(--ink)"
      strokeWidth="1.5"
      strokeLinejoin="round"
    />
  )
}

/** The flexing planes of a spacer, with the angle each takes. */
export function FlexPlanes({ result, plane, x, drop }: PlanesProps) {
  const unit = useUnit()
  return result.flex.map((flex) => (
    <g key={flex.x_mm} transform={`translate(0 ${flex.x_mm > 0 ? drop : 0})`}>
      <path d={`M${x(flex.x_mm)} -24V24`} stroke="var(--ink)" strokeWidth="2.5" />
      <text x={x(flex.x_mm)} y="40" textAnchor="middle" fontSize="13" className="halo">
        {showSlope(plane === 'v' ? flex.angle_v_mm_per_m : flex.angle_h_mm_per_m, unit)}
      </text>
    </g>
  ))
}

interface ColdLineProps {
  result: Result
  plane: 'v' | 'h'
  x: (mm: number) => number
  lift: (mm: number) => number
  far: number
}

/** The axis as it was read, cold, where growth is counted in and the machine is drawn as it will run. */
export function ColdLine({ result, plane, x, lift, far }: ColdLineProps) {
  const [offset, slope] =
    plane === 'v' ? [result.offset_v_mm, result.slope_v_mm_per_m] : [result.offset_h_mm, result.slope_h_mm_per_m]
  const [leftOffset, leftSlope] =
    plane === 'v'
      ? [result.left_offset_v_mm, result.left_slope_v_mm_per_m]
      : [result.left_offset_h_mm, result.left_slope_h_mm_per_m]
  const same = Math.abs(offset - leftOffset) < 1e-6 && Math.abs(slope - leftSlope) < 1e-6
  if (same) return null
  const y = (mm: number) => lift(offset + (slope * mm) / 1000)
  return (
    <g>
      <path d={`M${x(4)} ${y(4)}L${x(far)} ${y(far)}`} stroke="var(--blue)" strokeWidth="1.6" strokeDasharray="6 4" />
      <text x={x(far * 0.93)} y={y(far * 0.93) - 5} textAnchor="middle" fontSize="13" fill="var(--blue)" className="halo">
        cold, as read
      </text>
    </g>
  )
}
