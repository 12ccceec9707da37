import { describe, expect, it } from 'vitest'
import { alignment } from '../../test/alignment'
import { onSheet } from '../../test/onSheet'
import { AlignmentViews, type TwoMachines } from './AlignmentViews'

const LEFT: TwoMachines = {
  movable: {
    name: 'Motor',
    feet: [
      { name: 'near', from: 300 },
      { name: 'far', from: 600 },
    ],
  },
  stationary: {
    name: 'Fan',
    feet: [
      { name: 'fan near', from: 300 },
      { name: 'fan far', from: 600 },
    ],
  },
  movableLeft: true,
  face: 0,
}
const RIGHT: TwoMachines = { ...LEFT, movableLeft: false }

/** The side view and the plan: what they say, how the moved machine is drawn, which way its arrows point. */
function views(machines: TwoMachines, result: ReturnType<typeof alignment>, unit: 'mm' | 'in' = 'mm') {
  const { container } = onSheet(<AlignmentViews machines={machines} result={result} />, unit)
  return [...container.querySelectorAll('svg[role=img]')].map((svg) => {
    const matrix = svg.querySelector('g[transform^=matrix]')!.getAttribute('transform')!
    const [, shear, , , , lift] = matrix.match(/-?[\d.]+(?:e-?\d+)?/g)!.map(Number)
    const arrows = [...svg.querySelectorAll('path[marker-end]')]
      .map((path) => path.getAttribute('d')!.match(/^M([-\d.]+) ([-\d.]+)V([-\d.]+)$/))
      .filter((found) => found !== null)
      .map(([, x, from, to]) => ({ x: Number(x), points: Number(to) < Number(from) ? 'up' : 'down' }))
    return { says: svg.getAttribute('aria-label')!, shear: shear!, lift: lift!, arrows }
  })
}

describe('the side view is the right way up', () => {
  it('a machine that is high is drawn above the axis and called high', () => {
    const [side] = views(LEFT, alignment({ offset_v_mm: 0.2 }))
    expect(side!.lift).toBeLessThan(0) // SVG counts downward
    expect(side!.says).toBe('Side view: 0.20 mm high, opens at bottom by 0.000 /100')
  })
  it('a machine that is low is drawn below it and called low', () => {
    const [side] = views(LEFT, alignment({ offset_v_mm: -0.2 }))
    expect(side!.lift).toBeGreaterThan(0)
    expect(side!.says).toContain('0.20 mm low')
  })
  it('a tail that is high is drawn high, whichever side the machine stands on', () => {
    const result = alignment({ slope_v_mm_per_m: 1 })
    for (const machines of [LEFT, RIGHT]) {
      const [side] = views(machines, result)
      const tail = (machines.movableLeft ? -1 : 1) * 200 // a drawn x out at the tail
      expect(side!.shear * tail + side!.lift).toBeLessThan(0)
    }
  })
  it('a shaft that falls away from the coupling opens at the top', () => {
    const [side] = views(LEFT, alignment({ slope_v_mm_per_m: -0.5 }))
    expect(side!.says).toContain('opens at top by 0.050 /100')
  })
})

describe('the plan is seen from above', () => {
  it('toward 3 is down where the machine stands left, up where it stands right', () => {
    const result = alignment({ offset_h_mm: 0.1 })
    expect(views(LEFT, result)[1]!.lift).toBeGreaterThan(0)
    expect(views(RIGHT, result)[1]!.lift).toBeLessThan(0)
    expect(views(LEFT, result)[1]!.says).toContain('0.10 mm to 3')
    expect(views(LEFT, alignment({ offset_h_mm: -0.1 }))[1]!.says).toContain('0.10 mm to 9')
  })
})

describe('arrows show where a foot has to go', () => {
  const foot = (shim_mm: number, slide_mm: number) =>
    alignment({ offset_v_mm: 0.1, feet: [{ name: 'near', shim_mm, slide_mm }] as never })
  it('up where shims are added, down where they are taken out', () => {
    expect(views(LEFT, foot(0.3, 0))[0]!.arrows[0]!.points).toBe('up')
    expect(views(LEFT, foot(-0.3, 0))[0]!.arrows[0]!.points).toBe('down')
  })
  it('toward 3 in the plan is down where the machine stands left, up where it stands right', () => {
    expect(views(LEFT, foot(0, 0.3))[1]!.arrows[0]!.points).toBe('down')
    expect(views(RIGHT, foot(0, 0.3))[1]!.arrows[0]!.points).toBe('up')
    expect(views(LEFT, foot(0, -0.3))[1]!.arrows[0]!.points).toBe('up')
  })
  it('beside the foot they belong to, left of the coupling where the machine stands left', () => {
    expect(views(LEFT, foot(0.3, 0))[0]!.arrows[0]!.x).toBeLessThan(0)
    expect(views(RIGHT, foot(0.3, 0))[0]!.arrows[0]!.x).toBeGreaterThan(0)
  })
})

it('an inch sheet says inches and thou per inch: a thou an inch is a mm a metre', () => {
  const [side] = views(LEFT, alignment({ offset_v_mm: 0.254, slope_v_mm_per_m: 1.5 }), 'in')
  expect(side!.says).toBe('Side view: 0.0100 in high, opens at bottom by 1.50 thou/in')
})
