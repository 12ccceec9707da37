import { describe, expect, it } from 'vitest'
import { sayClock } from '../drawing/clock'
import { readPlace, tooNear } from './places'

describe('a place on a ring', () => {
  it('is a clock time or degrees, and nothing else', () => {
    const read = Object.fromEntries(
      ['12', '3', '1:30', '11:59', '40°', '47,5 deg', ' 3 o’clock ', '0', '13', '40', '360°', '1:60', '', 'top'].map(
        (text) => [text, readPlace(text)],
      ),
    )
    expect(read).toEqual({
      12: 0,
      3: 90,
      '1:30': 45,
      '11:59': 359.5,
      '40°': 40,
      '47,5 deg': 47.5,
      ' 3 o’clock ': 90,
      0: null,
      13: null,
      40: null,
      '360°': null,
      '1:60': null,
      '': null,
      top: null,
    })
  })

  it('reads back what the ring calls it', () => {
    for (let clock = 0; clock < 360; clock += 5) {
      const said = sayClock(clock).replace(/half past (\d+)/, '$1:30')
      expect(readPlace(said), said).toBe(clock)
    }
  })

  it('is not beside another, over the top as well', () => {
    expect(tooNear(30, [0, 90])).toBeNull()
    expect(tooNear(355, [0, 90])).toBe(0)
    expect(tooNear(98, [0, 90])).toBe(90)
  })
})
