import { expect, it } from 'vitest'
import { exaggeration } from './exaggeration'

it('is the largest of 1, 2, 5 × 10ⁿ that keeps the displacement within its room', () => {
  for (const [largest, scale] of [
    [0.3, 0.5],
    [1, 0.5],
    [0.07, 0.4],
    [3, 0.6],
  ] as const) {
    const times = exaggeration(largest, scale, 20)
    expect(times * largest * scale).toBeLessThanOrEqual(20)
    expect(String(times)).toMatch(/^[125]0*$/)
    const next = String(times).startsWith('2') ? 2.5 : 2
    expect(times * next * largest * scale).toBeGreaterThan(20)
  }
})

it('never shrinks, never shows a machine in line as if it were not', () => {
  expect(exaggeration(1000, 1, 20)).toBe(1)
  expect(exaggeration(0.0001, 0.5, 20)).toBe(500)
  expect(exaggeration(0, 0.5, 20)).toBe(100)
})
