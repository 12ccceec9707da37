import { describe, expect, it } from 'vitest'
import { clockPoint, sayClock, sayToward, shortClock } from './clock'

describe('a clock on the drawing', () => {
  it('has 12 on top, 3 to the right, 6 at the bottom, 9 to the left', () => {
    const at = [0, 90, 180, 270].map((clock) => {
      const { x, y } = clockPoint(clock, 10)
      return [Math.round(x) + 0, Math.round(y) + 0]
    })
    expect(at).toEqual([
      [0, -10],
      [10, 0],
      [0, 10],
      [-10, 0],
    ])
  })
})

describe('a clock position in words', () => {
  it('is the hour, the half hour, else degrees', () => {
    expect([0, 360, 90, -90, 45, 15, 100].map(sayClock)).toEqual([
      '12 o’clock',
      '12 o’clock',
      '3 o’clock',
      '9 o’clock',
      'half past 1',
      'half past 12',
      '100°',
    ])
  })
  it('is short on a ring', () => {
    expect([0, 90, 45, 15, 100, 330].map(shortClock)).toEqual(['12', '3', '1:30', '12:30', '100°', '11'])
  })
  it('a direction that was worked out names the nearest hour', () => {
    expect(sayToward(117)).toBe('117°, near 4 o’clock')
    expect(sayToward(90)).toBe('3 o’clock')
  })
})
