import { expect, it } from 'vitest'
import { onSheet } from '../../test/onSheet'
import { CoolingCurve } from './CoolingCurve'

const RESULT = {
  curve: [0, 100, 200, 300, 400].map((after_s) => ({ after_s, hub_c: 170 - after_s / 10, clear_mm: 0 })),
  closes_at_c: 140,
  ceiling_lowest_c: 180,
  window_s: 300,
  window_fitted_s: null,
} as never
const drawn = (now_s?: number) => onSheet(<CoolingCurve result={RESULT} readings={[]} now_s={now_s} />).container

it('says that it closes in still air, and when', () => {
  expect(drawn().querySelector('svg')!.getAttribute('aria-label')).toBe('In still air it closes at 5:00')
})

it('the hub cools downward, from left to right', () => {
  const path = [...drawn().querySelectorAll('path')].find((p) => p.getAttribute('stroke-dasharray') === '8 5')!
  const points = path
    .getAttribute('d')!
    .match(/[\d.]+ [\d.]+/g)!
    .map((point) => point.split(' ').map(Number))
  const [first, last] = [points[0]!, points[points.length - 1]!]
  expect(last[0]).toBeGreaterThan(first[0]!)
  expect(last[1]).toBeGreaterThan(first[1]!)
})

it('marks the moment it is at while it is carried, and none once it is on the shaft', () => {
  const marks = (now_s?: number) => drawn(now_s).querySelectorAll('path[stroke="var(--blue)"]').length
  expect([marks(60), marks(undefined)]).toEqual([1, 0])
})
