import styled from 'styled-components'
import { useHatch } from '../drawing/Hatch'

const BOLTS = [24, 78, 132, 186] // along the rim, held by one flange and the other in turn
const LEAVES = [-6, -3, 0, 3, 6]
const [WIDE, FLANGE, MIDDLE] = [210, 16, 42]

/** How far a leaf stands off its place, at a place along the rim. */
const SHAPES = {
  flat: () => 0,
  wavy: (x: number) => 4.5 * Math.sin(((x - BOLTS[0]!) / 54) * Math.PI),
  bowed: (x: number, leaf: number) => {
    const between = (x - BOLTS[1]!) / (BOLTS[2]! - BOLTS[1]!)
    return between > 0 && between < 1 ? leaf * 1.6 * Math.sin(between * Math.PI) : 0
  },
} as const

const SAYS = {
  flat: 'Flat: as it should lie.',
  wavy: 'Wavy: not in line. Align again.',
  bowed: 'Bowed open: slacken the bolts beside it, oil, tighten again.',
} as const

/** A disc pack between its flanges, seen along the rim: as it should lie, and what is wrong where it does not. */
export function PackPictures() {
  return (
    <Pictures>
      {(['flat', 'wavy', 'bowed'] as const).map((shape) => (
        <figure key={shape}>
          <Pack shape={shape} />
          <figcaption>{SAYS[shape]}</figcaption>
        </figure>
      ))}
    </Pictures>
  )
}

function Pack({ shape }: { shape: keyof typeof SHAPES }) {
  const hatch = useHatch()
  const leaf = (at: number) =>
    Array.from({ length: WIDE / 3 + 1 }, (_, i) => {
      const y = MIDDLE + at + SHAPES[shape](i * 3, at)
      return `${i ? 'L' : 'M'}${i * 3} ${y.toFixed(1)}`
    }).join('')
  return (
    <svg viewBox={`0 0 ${WIDE} ${2 * MIDDLE}`} role="img" aria-label={SAYS[shape]}>
      {hatch.defs}
      {[0, 2 * MIDDLE - FLANGE].map((y) => (
        <path key={y} d={`M0 ${y}H${WIDE}V${y + FLANGE}H0Z`} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="1.5" />
      ))}
      {LEAVES.map((at) => (
        <path key={at} d={leaf(at)} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
      ))}
      {BOLTS.map((x, i) => {
        const [from, to] = i % 2 ? [MIDDLE - 12, 2 * MIDDLE - FLANGE] : [FLANGE, MIDDLE + 12]
        return (
          <path
            key={x}
            d={`M${x - 7} ${from}H${x + 7}V${to}H${x - 7}Z`}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
        )
      })}
    </svg>
  )
}

const Pictures = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  figure { flex: 1 1 180px; max-width: 230px; margin: 0; }
  svg { display: block; width: 100%; height: auto; }
  figcaption { font-size: var(--fs-small); line-height: 1.2; padding-top: 4px; }
`
