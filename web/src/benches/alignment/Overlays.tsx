import type { Schemas } from '../../api/client'
import { useUnit } from '../../units/preferences'
import { sayIn } from '../../units/say'

/** Where the movable axis may lie: a band at the coupling that widens with the angle, about the stationary axis prolonged. */
export function Band({ band: [near, end], far }: { band: readonly number[]; far: number }) {
  return (
    <path
      d={`M0 ${-near!}L${far} ${-end!}V${end}L0 ${near}Z`}
      fill="var(--blue)"
      fillOpacity=".08"
      stroke="var(--ink-2)"
      strokeWidth=".75"
      strokeDasharray="2 3"
    />
  )
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
export function FlexPlanes({ flex }: { flex: readonly Schemas['DrawnPlane'][] }) {
  const unit = useUnit()
  return flex.map(({ x, drop, words }) => (
    <g key={x} transform={`translate(0 ${drop})`}>
      <path d={`M${x} -24V24`} stroke="var(--ink)" strokeWidth="2.5" />
      <text x={x} y="40" textAnchor="middle" fontSize="var(--fs-note)" className="halo">
        {sayIn(words, unit)}
      </text>
    </g>
  ))
}

/** The axis as it was read, cold, where growth is counted in and the machine is drawn as it will run. */
export function ColdAxis({ cold: { drop, shear }, far }: { cold: Schemas['Ray']; far: number }) {
  const y = (x: number) => drop + shear * x
  return (
    <g>
      <path d={`M0 ${drop}L${far} ${y(far)}`} stroke="var(--blue)" strokeWidth="1.6" strokeDasharray="6 4" />
      <text
        x={far * 0.93}
        y={y(far * 0.93) - 5}
        textAnchor="middle"
        fontSize="var(--fs-note)"
        fill="var(--blue)"
        className="halo"
      >
        cold, as read
      </text>
    </g>
  )
}
