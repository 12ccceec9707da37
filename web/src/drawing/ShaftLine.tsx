import type { Schemas } from '../api/client'
import { useHatch } from './Hatch'
import { COUPLINGS, type Drawn, MACHINES } from './machines'

type Drawing = Schemas['FloorSpec']

interface ShaftLineProps {
  spec: Drawing
  label?: string
}

const WIDTH = 292
const LEFT = 10
const RIGHT = 282
const COUPLING_HALF = 24
const AXIS = 32

/** A line as a small shaft drawing: driver left, driven right, the machine that stays hatched. */
export function ShaftLine({ spec, label }: ShaftLineProps) {
  const hatch = useHatch()
  const reach = (machine: Drawing['driver']) => Math.max(300, ...machine.feet.map((f) => f.from_coupling_mm))
  const share = reach(spec.driver) / (reach(spec.driver) + reach(spec.driven))
  const centre = LEFT + (RIGHT - LEFT) * Math.min(0.62, Math.max(0.38, share))
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 64`}
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
    >
      {hatch.defs}
      <path d={`M8 56.5H${WIDTH - 8}V61H8Z`} fill={hatch.fixed} stroke="none" />
      <path d={`M8 56.5H${WIDTH - 8}`} stroke="var(--ink)" strokeWidth="1.6" />
      <Machine
        kind={spec.driver.drawn_as}
        from={LEFT}
        to={centre - COUPLING_HALF}
        fill={spec.movable === 'driver' ? 'var(--paper)' : hatch.fixed}
      />
      <Machine
        kind={spec.driven.drawn_as}
        from={RIGHT}
        to={centre + COUPLING_HALF}
        fill={spec.movable === 'driven' ? 'var(--paper)' : hatch.fixed}
      />
      <CouplingMark family={spec.coupling.family} x={centre} />
      <path d={`M6 ${AXIS}H${WIDTH - 6}`} stroke="var(--ink)" strokeWidth=".75" strokeDasharray="14 3 3 3" />
    </svg>
  )
}

/** A machine stretched between its far end and the coupling; mirrored where it stands to the right. */
function Machine({ kind, from, to, fill }: { kind: Drawn; from: number; to: number; fill: string }) {
  const { solid, lines } = MACHINES[kind]
  return (
    <g transform={`translate(${from} 0) scale(${(to - from) / 100} 1)`} stroke="var(--ink)" strokeLinejoin="round">
      <path d={solid} fill={fill} strokeWidth="1.6" vectorEffect="non-scaling-stroke" />
      <path d={lines} fill="none" strokeWidth=".9" vectorEffect="non-scaling-stroke" />
    </g>
  )
}

function CouplingMark({ family, x }: { family: Drawing['coupling']['family']; x: number }) {
  const { solid, lines } = COUPLINGS[family]
  return (
    <g transform={`translate(${x} ${AXIS})`} stroke="var(--ink)" strokeLinejoin="round">
      <path d="M-26-3.5H26M-26 3.5H26" fill="none" strokeWidth="1.2" />
      <path d={solid} fill="var(--paper)" strokeWidth="1.6" />
      <path d={lines} fill="none" strokeWidth="1" />
    </g>
  )
}
