import { useId } from 'react'
import type { Schemas } from '../api/client'
import { Drawing } from '../drawing/Drawing'
import { useHatch } from '../drawing/Hatch'
import { COUPLINGS, MACHINES } from '../drawing/machines'
import { rowsFor } from '../drawing/rows'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { SIDES } from './lineDraft'
import { AXIS, FLOOR, layoutOf, levelOf, WIDTH } from './lineLayout'

type LineSpec = Schemas['LineSpec']

const TALL = 2.5 // machines in this drawing over their 64 high outlines
const LEGS_FROM = AXIS + (42 - 32) * TALL // behind the body, whose underside is not everywhere as low

/** An outline without the feet it is usually drawn on: here they stand where the figures say. */
const feetless = (solid: string) => solid.replace(/M\d+ \d+V56H\d+V\d+/g, '')

interface LineDrawingProps {
  spec: LineSpec
  /** Names and distances are typed on it: lines for so many dimensions a side, each from the coupling, with no words. */
  levels?: number
}

/** A line to scale along the shaft, with its feet and shafts dimensioned; follows the figures while they are typed. */
export function LineDrawing({ spec, levels }: LineDrawingProps) {
  const hatch = useHatch()
  const id = useId()
  const unit = useUnit()
  const layout = layoutOf(spec)
  const { scale, centre } = layout
  // Where a side has many feet, each side's distances have rows of their own.
  const isCrowded = SIDES.some((side) => spec[side].feet.length > 2)
  const rows = isCrowded ? Math.max(2, ...SIDES.map((side) => rowsFor(spec[side].feet.length))) : 1
  const height = levels ? levelOf(levels - 1) + 30 : 172 + (isCrowded ? 2 * rows : 1) * 24
  return (
    <Drawing
      along
      most={levels ? 1 : undefined}
      paper={[0, 0, WIDTH, height]}
      says={`${spec.driver.name} and ${spec.driven.name} to scale along the shaft`}
    >
      {hatch.defs}
      <path d={`M8 ${FLOOR}H${WIDTH - 8}V${FLOOR + 6}H8Z`} fill={hatch.fixed} />
      <path d={`M8 ${FLOOR}H${WIDTH - 8}`} stroke="var(--ink)" strokeWidth="2" />
      {(['driver', 'driven'] as const).map((side) => {
        const machine = spec[side]
        const { way, end, near } = layout[side]
        const thick = Math.max(6, Math.min(46, machine.shaft_diameter_mm * scale))
        const { solid, lines } = MACHINES[machine.drawn_as as keyof typeof MACHINES]
        const body = feetless(solid)
        const place = `translate(${end} ${AXIS - 32 * TALL}) scale(${(near - end) / 100} ${TALL})`
        const feet = [...machine.feet].sort((a, b) => a.from_coupling_mm - b.from_coupling_mm)
        return (
          <g key={side}>
            <path
              d={`M${centre + way * 24} ${AXIS - thick / 2}H${(end + near) / 2}V${AXIS + thick / 2}H${centre + way * 24}Z`}
              fill="var(--paper)"
              stroke="var(--ink)"
              strokeWidth="1.25"
            />
            {feet.map((foot) => {
              const at = centre + way * foot.from_coupling_mm * scale
              const legs = `M${at - 16} ${LEGS_FROM}L${at - 11} ${FLOOR}H${at + 11}L${at + 16} ${LEGS_FROM}`
              return <path key={foot.name} d={legs} fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
            })}
            <clipPath id={`${id}${side}`}>
              <path d={body} transform={place} />
            </clipPath>
            <path d={body} transform={place} fill="var(--paper)" />
            {spec.movable !== side && (
              <rect width={WIDTH} height={FLOOR} fill={hatch.fixed} clipPath={`url(#${id}${side})`} />
            )}
            <g transform={place} stroke="var(--ink)" strokeLinejoin="round" fill="none">
              <path d={body} strokeWidth="2" vectorEffect="non-scaling-stroke" />
              <path d={lines} strokeWidth="1" vectorEffect="non-scaling-stroke" />
            </g>
            {!levels && (
              <text
                x={(end + near) / 2}
                y={AXIS + 5}
                textAnchor="middle"
                fontWeight="600"
                fontSize="var(--fs-sub)"
                className="halo"
              >
                {machine.name}
              </text>
            )}
            {levels &&
              feet.map((foot, i) => (
                <FromCoupling
                  key={foot.name}
                  level={i}
                  from={centre}
                  to={centre + way * foot.from_coupling_mm * scale}
                  arrow={hatch.arrow}
                />
              ))}
            {!levels &&
              feet.map((foot, i) => {
                const from = i === 0 ? 0 : feet[i - 1]!.from_coupling_mm
                const y = FLOOR + 28 + ((i % rows) + (isCrowded && side === 'driven' ? rows : 0)) * 24
                const [a, b] = [centre + way * from * scale, centre + way * foot.from_coupling_mm * scale]
                return (
                  <g key={foot.name} stroke="var(--ink)" strokeWidth=".75">
                    <path d={`M${b} ${FLOOR - 12}V${y + 8}M${a} ${FLOOR + 12}V${y + 8}`} />
                    <path d={`M${a} ${y}H${b}`} markerStart={hatch.arrow} markerEnd={hatch.arrow} />
                    <text
                      x={(a + b) / 2}
                      y={y + 5}
                      textAnchor="middle"
                      fontSize="var(--fs-text)"
                      className="read"
                      strokeWidth="6"
                      style={{ stroke: 'var(--paper)', paintOrder: 'stroke' }}
                    >
                      {showLength(foot.from_coupling_mm - from, unit, 0)} {unit}
                    </text>
                  </g>
                )
              })}
          </g>
        )
      })}
      <g transform={`translate(${centre} ${AXIS}) scale(1.5)`} stroke="var(--ink)" strokeLinejoin="round">
        <path d={COUPLINGS[spec.coupling.family].solid} fill="var(--paper)" strokeWidth="1.4" />
        <path d={COUPLINGS[spec.coupling.family].lines} fill="none" />
      </g>
      <path d={`M6 ${AXIS}H${WIDTH - 6}`} stroke="var(--ink)" strokeWidth=".9" strokeDasharray="18 4 3 4" />
    </Drawing>
  )
}

/** The line of a distance from the coupling to a foot. */
function FromCoupling({ level, from, to, arrow }: { level: number; from: number; to: number; arrow: string }) {
  const y = levelOf(level)
  return (
    <g stroke="var(--ink)" strokeWidth=".75">
      <path d={`M${to} ${FLOOR - 12}V${y + 8}M${from} ${FLOOR + 12}V${y + 8}`} />
      <path d={`M${from} ${y}H${to}`} markerStart={arrow} markerEnd={arrow} />
    </g>
  )
}
