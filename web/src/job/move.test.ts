import { expect, it } from 'vitest'
import { DraftReader, EMPTY } from '../benches/draft'
import { EACH, type Plan, readMove } from './move'

const plan: Plan = {
  places: [{ name: 'motor tail', machine: 'movable', planned: { shim_mm: 0.5, slide_mm: null }, pair: true }],
  axial_mm: null,
  slides: false,
}

it('of two feet with shims of their own the machine rises by the mean, and each is written down', () => {
  const cells = { 'shim0.9': { text: '0.40', unit: 'mm' as const }, 'shim0.3': { text: '0.60', unit: 'mm' as const } }
  const { feet, made } = readMove(new DraftReader(EACH.put({ ...EMPTY, cells }, ['motor tail'])), plan)
  expect(feet.map((foot) => [foot.name, foot.shim_mm])).toEqual([
    ['motor tail, 9 side', 0.4],
    ['motor tail, 3 side', 0.6],
  ])
  expect(made[0]?.shim_mm).toBeCloseTo(0.5)
})
