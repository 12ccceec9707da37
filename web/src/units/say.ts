/** Texts of the core, their figures filled in by the sheet's unit. Nothing here looks into a text. */

import { Refused, type Schemas } from '../api/client'
import { INCH_NEEDS_MORE, type LengthUnit, MM_PER_INCH, showTime } from './length'

export type Words = Schemas['Words']
type Figure = Schemas['Figure']

const CLOCK_FROM_S = 100 // from here on a time reads as minutes and seconds
const INCH_NEEDS_AT_MOST = 5 // a hundredth of a thou

/** What a unit of the core becomes: factor, unit, and how many places more the figure then needs. */
const ON_INCH_SHEET: Record<string, readonly [number, string, number]> = {
  mm: [1 / MM_PER_INCH, 'in', INCH_NEEDS_MORE],
  'mm/s': [1 / MM_PER_INCH, 'in/s', INCH_NEEDS_MORE],
  'mm/m': [1, 'thou/in', 0],
  'mm/100': [10, 'thou/in', -1],
  N: [0.224809, 'lbf', 0],
  kg: [2.204623, 'lb', 0],
}
const ON_MM_SHEET: Record<string, readonly [number, string, number]> = { 'mm/m': [0.1, 'mm/100', 1] }

/** One figure of a text, with its unit unless that stands elsewhere. */
export function sayFigure(
  { value, unit, places, signed, bare }: Pick<Figure, 'value' | 'unit'> & Partial<Figure>,
  sheet: LengthUnit,
): string {
  if (unit === 's' && !bare && value >= CLOCK_FROM_S) return showTime(value)
  const keep = bare && sheet === 'mm' // a sum on paper goes on in the units it was made in
  const [factor, shown, more] = (!keep && (sheet === 'in' ? ON_INCH_SHEET : ON_MM_SHEET)[unit]) || [1, unit, 0]
  const size = Math.abs(value * factor)
  const digits =
    places == null
      ? String(
          factor === 1
            ? Number(size.toPrecision(10))
            : Number(size.toFixed(INCH_NEEDS_AT_MOST)) || Number(size.toPrecision(1)),
        )
      : size.toFixed(Math.max(Math.min(places + more, more > 0 ? INCH_NEEDS_AT_MOST : places + more), 0))
  const isZero = Number(digits) === 0
  const sign = isZero ? '' : value < 0 ? '−' : signed ? '+' : ''
  return sign + digits + (bare || shown === '' ? '' : shown === '°' ? shown : ` ${shown}`)
}

/** What a unit of the core is called on the sheet. */
export function sayUnit(unit: string, sheet: LengthUnit): string {
  return (sheet === 'in' ? ON_INCH_SHEET : ON_MM_SHEET)[unit]?.[1] ?? unit
}

/** A text with its figures, as the sheet shows it. */
export function sayIn({ template, values }: Words, sheet: LengthUnit): string {
  return template.replace(/\{(\w+)\}/g, (found, name: string) => (values[name] ? sayFigure(values[name], sheet) : found))
}

/** Why the server refused, in the sheet's unit; whatever else went wrong in its own words. */
export function sayRefusal(why: unknown, sheet: LengthUnit): string {
  if (why instanceof Refused) return why.problems.map((p) => sayProblem(p, sheet)).join(' ')
  return why instanceof Error ? why.message : String(why)
}

/** By the path of what was given, what is wrong with it. */
export function sayEach(problems: readonly Schemas['ProblemOut'][], sheet: LengthUnit): Record<string, string> {
  return Object.fromEntries(problems.map((p) => [p.path, sayProblem(p, sheet)]))
}

/** What is wrong, in the sheet's unit. */
export function sayProblem(problem: Schemas['ProblemOut'], sheet: LengthUnit): string {
  return problem.says ? sayIn(problem.says, sheet) : problem.message
}
