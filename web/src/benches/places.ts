/** Places on a ring, as somebody types them. */

const NEAREST_DEG = 25 // nearer than this their cells lie on each other; what is read closer comes as CSV

const turned = (degrees: number) => ((degrees % 360) + 360) % 360

/** Degrees clockwise from 12: of a clock time (`1:30`, `12`, `3 o'clock`) or of degrees (`40°`, `47.5 deg`); null of anything else. */
export function readPlace(typed: string): number | null {
  const text = typed.trim().toLowerCase()
  const degrees = /^(\d{1,3}(?:[.,]\d)?)\s*(?:°|deg(?:rees)?)$/.exec(text)
  if (degrees) return Number(degrees[1]!.replace(',', '.')) < 360 ? Number(degrees[1]!.replace(',', '.')) : null
  const time = /^(\d{1,2})(?::([0-5]\d))?(?:\s*o['’]?clock)?$/.exec(text)
  if (!time || Number(time[1]) < 1 || Number(time[1]) > 12) return null
  return turned(Number(time[1]) * 30 + Number(time[2] ?? 0) / 2)
}

/** The place among these that is nearer than two readings may be; null where none is. */
export function tooNear(clock: number, clocks: readonly number[]): number | null {
  const apart = (other: number) => Math.min(turned(clock - other), turned(other - clock))
  return clocks.find((other) => apart(other) < NEAREST_DEG) ?? null
}
