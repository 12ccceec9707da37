import { expect, it } from 'vitest'
import { onSheet } from '../test/onSheet'
import { TrendChart } from './TrendChart'

const TREND = {
  advice: ['The limit is reached between 1 Mar 2027 and 1 May 2027, if it goes on like this.'],
  drawn: [0, 1, 2, 3].map((i) => ({ at: `2026-0${i + 1}-01T12:00:00`, value: i, plus_minus: 0.1 })),
  trend: [
    { at: '2026-01-01', value: 0, low: -0.1, high: 0.1 },
    { at: '2027-05-01', value: 4.2, low: 3.9, high: 4.5 },
  ],
  reached: { earliest: '2027-03-01', likely: '2027-04-01', latest: '2027-05-01' },
} as never

const drawn = (aside: string[] = []) =>
  onSheet(<TrendChart trend={TREND} title="Wear" unit="mm" limit={4} today="2026-11-27" breaks={[]} aside={aside} />)
    .container

it('says what it shows to who cannot see it', () => {
  expect(drawn().querySelector('svg')!.getAttribute('aria-label')).toBe(
    'Wear. The limit is reached between 1 Mar 2027 and 1 May 2027, if it goes on like this.',
  )
})

it('time runs to the right and wear upward', () => {
  const crosses = [...drawn().querySelectorAll('path[stroke="var(--blue)"][stroke-width="2.25"]')].map((p) =>
    p
      .getAttribute('d')!
      .match(/[\d.]+/g)!
      .map(Number),
  )
  expect(crosses).toHaveLength(4)
  expect(crosses.map((c) => c[0])).toEqual(crosses.map((c) => c[0]).toSorted((a, b) => a! - b!))
  expect(crosses.map((c) => c[1])).toEqual(crosses.map((c) => c[1]).toSorted((a, b) => b! - a!))
})

it('a reading that does not belong is ringed, not crossed', () => {
  const chart = drawn(['2026-03-01T12:00:00'])
  expect(chart.querySelectorAll('circle')).toHaveLength(1)
  expect(chart.querySelectorAll('path[stroke="var(--blue)"][stroke-width="2.25"]')).toHaveLength(3)
})

it('names its unit beside the axis, with a limit and without', () => {
  const chart = onSheet(
    <TrendChart trend={TREND} title="Vibration" unit="mm/s" limit={null} today="2026-11-27" breaks={[]} />,
  )
  expect(chart.getByText('mm/s')).toBeTruthy()
})
