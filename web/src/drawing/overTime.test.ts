import { expect, it } from 'vitest'
import { dayOf, sayDay, timeTicks, valueTicks } from './overTime'

it('a day is the same day whatever the zone of the device', () => {
  expect(sayDay('2026-11-03')).toBe('3 Nov 2026')
  expect(sayDay('2026-11-03T23:30:00Z')).toBe('3 Nov 2026')
  expect(dayOf('2026-11-04') - dayOf('2026-11-03')).toBe(1)
})

it('names the year where it begins and at the first tick, and has no more ticks than there is room for', () => {
  const ticks = timeTicks(dayOf('2025-10-10'), dayOf('2026-03-20'))
  expect(ticks.map((t) => t.text)).toEqual(['Nov 2025', 'Dec', 'Jan 2026', 'Feb', 'Mar'])
  for (const years of [1, 3, 10, 40]) expect(timeTicks(0, years * 365).length).toBeLessThanOrEqual(9)
})

it('ticks of values are round and lie between the two', () => {
  expect(valueTicks(0, 4.2)).toEqual([0, 1, 2, 3, 4])
  expect(valueTicks(1.4, 3.3)).toEqual([1.5, 2, 2.5, 3])
})
