import { expect, it } from 'vitest'
import { groupOf, sayDays } from './due'

const TODAY = '2026-11-27'

it.each([
  [null, 'No day', 'no day'],
  ['2026-11-26', 'Overdue', '1 day late'],
  ['2026-11-27', 'Today', 'today'],
  ['2026-12-04', 'Within a week', 'in 7 days'],
  ['2026-12-05', 'Within a month', 'in 8 days'],
  ['2027-06-27', 'Later', 'in 7 months'],
] as const)('%s stands under %s, %s', (on, group, said) => {
  expect(groupOf({ on }, TODAY)).toBe(group)
  expect(sayDays(on, TODAY)).toBe(said)
})
