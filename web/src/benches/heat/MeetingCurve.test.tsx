import { expect, it } from 'vitest'
import { onSheet } from '../../test/onSheet'
import { MeetingCurve, seconds } from './MeetingCurve'

const MEETING = [0, 2, 4, 6, 8].map((after_s) => ({ after_s, hub_c: 180 - 6 * after_s, shaft_c: 20 + 4 * after_s }))
const drawn = () => onSheet(<MeetingCurve result={{ meeting: MEETING, grips_s: { least: 6.4, most: 8 } }} />).container

it('says in whole seconds how soon it grips, the least rounded down and the most rounded up', () => {
  expect([seconds(7.9, 9.1), seconds(7.2, 7.6), seconds(8, 8)]).toEqual(['7 to 10 s', '7 to 8 s', '8 s'])
  expect(drawn().querySelector('svg')!.getAttribute('aria-label')).toBe('On the shaft it grips within 6 to 8 s')
})

it('draws the hub falling and the shaft rising toward each other', () => {
  const [hub, shaft] = [...drawn().querySelectorAll('path[stroke-width="3"]')].map((path) =>
    path
      .getAttribute('d')!
      .match(/[\d.]+ [\d.]+/g)!
      .map((point) => Number(point.split(' ')[1])),
  ) as [number[], number[]]
  expect(hub.at(-1)! > hub[0]! && shaft.at(-1)! < shaft[0]! && hub.at(-1)! < shaft.at(-1)!).toBe(true)
})
