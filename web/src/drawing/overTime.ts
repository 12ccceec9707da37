/** Days on an axis: pure sums, so that a chart only inks them. */

const DAY_MS = 86_400_000
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const STEPS = [1, 2, 3, 6, 12, 24, 60, 120] // months

/** Days since 1970 of a moment or a day; a moment without a zone is the server's own time. */
export function dayOf(at: string): number {
  return Date.parse(at.length === 10 ? `${at}T12:00:00Z` : /Z|[+-]\d\d:\d\d$/.test(at) ? at : `${at}Z`) / DAY_MS
}

/** A day as a hand writes it: 3 Nov 2026. */
export function sayDay(day: string | number): string {
  const on = new Date(typeof day === 'number' ? day * DAY_MS : dayOf(day) * DAY_MS)
  return `${on.getUTCDate()} ${MONTHS[on.getUTCMonth()]} ${on.getUTCFullYear()}`
}

export interface TimeTick {
  day: number
  text: string
}

/** First days of months between two days, at most `most` of them; a year is named where it begins, and at the first. */
export function timeTicks(from: number, to: number, most = 8): TimeTick[] {
  const months = Math.max((to - from) / 30.4375, 0.5)
  const step = STEPS.find((s) => months / s <= most) ?? STEPS.at(-1)!
  const first = new Date(from * DAY_MS)
  let index = Math.ceil((first.getUTCFullYear() * 12 + first.getUTCMonth() + 1) / step) * step
  const ticks: TimeTick[] = []
  for (; ; index += step) {
    const [year, month] = [Math.floor(index / 12), index % 12]
    const day = Date.UTC(year, month, 1) / DAY_MS
    if (day > to) return ticks
    const isNamed = month === 0 || ticks.length === 0
    ticks.push({ day, text: step >= 12 ? String(year) : isNamed ? `${MONTHS[month]} ${year}` : MONTHS[month]! })
  }
}

/** Round figures between two, four or five of them. */
export function valueTicks(low: number, high: number): number[] {
  const span = high - low || 1
  const rough = span / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 2.5, 5, 10].map((s) => s * power).find((s) => span / s <= 5) ?? 10 * power
  const first = Math.ceil(low / step - 1e-9)
  return Array.from({ length: Math.floor(high / step + 1e-9) - first + 1 }, (_, i) =>
    Number(((first + i) * step).toPrecision(6)),
  )
}
