/** Lengths as people write them, shown in the sheet's unit. The server reads what was typed once more, in its own words. */

export type LengthUnit = 'mm' | 'in'

/** What a hand typed, and the unit the sheet was set to then: switching the sheet never changes a reading. */
export interface Typed {
  text: string
  unit: LengthUnit
}

export const MM_PER_INCH = 25.4
const FACTORS: Record<string, number> = {
  mm: 1,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  '”': MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
  mil: MM_PER_INCH / 1000,
  mils: MM_PER_INCH / 1000,
  µm: 0.001,
  μm: 0.001,
  um: 0.001,
  micron: 0.001,
  microns: 0.001,
}
const NUMBER = /^([+\-−–]?)\s*(\d+[.,]?\d*|[.,]\d+)(.*)$/s
const FRACTION = /^([+\-−–]?)\s*(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)(.*)$/s

/** A comma and exactly three digits: a thousand to some, one and three places to others. Asked about, never guessed. */
export function isThousandOrDecimal(text: string): boolean {
  return /^[+\-−–]?\s*[1-9]\d{0,2},\d{3}(?!\d)/.test(text.trim())
}

/** Millimetres, or null where the text is no length. A bare fraction is inches. */
export function readLengthMm({ text, unit }: Typed): number | null {
  const trimmed = text.trim().toLowerCase()
  const fraction = trimmed.match(FRACTION)
  const number = fraction || isThousandOrDecimal(trimmed) ? null : trimmed.match(NUMBER)
  const found = fraction ?? number
  if (!found) return null
  const named = found[found.length - 1]!.trim().replace(/\.$/, '')
  const factor = named ? FACTORS[named] : fraction ? MM_PER_INCH : FACTORS[unit]
  if (factor === undefined) return null
  if (fraction && Number(fraction[4]) === 0) return null
  const size = fraction
    ? Number(fraction[2] ?? 0) + Number(fraction[3]) / Number(fraction[4])
    : Number(number![2]!.replace(',', '.'))
  const sign = '-−–'.includes(found[1] || '+') ? -1 : 1
  return Number((sign * size * factor).toFixed(9))
}

/** A plain number for a field that is no length; null where the text is none. */
export function readNumber(text: string): number | null {
  if (isThousandOrDecimal(text)) return null
  const cleaned = text.trim().replace(',', '.').replace('−', '-')
  return cleaned !== '' && /^[+-]?(\d+\.?\d*|\.\d+)$/.test(cleaned) ? Number(cleaned) : null
}

/** Degrees Celsius from "166", "166 C" or "330 F"; null where the text is no temperature. */
export function readTemperatureC(text: string): number | null {
  const found = text.trim().match(/^([+\-−–]?\s*[\d.,]+)\s*°?\s*([CF])?$/i)
  const degrees = found ? readNumber(found[1]!.replace(/\s|–/g, (c) => (c === '–' ? '-' : ''))) : null
  if (degrees === null) return null
  return found![2]?.toUpperCase() === 'F' ? Number((((degrees - 32) * 5) / 9).toFixed(9)) : degrees
}

const LBF_FT_NM = 1.3558179483314 // by definition of pound, inch and standard gravity
const TORQUES: Record<string, number> = { '': 1, nm: 1 }
for (const name of ['lbft', 'lbfft', 'lbsft', 'ftlb', 'ftlbf', 'ftlbs']) TORQUES[name] = LBF_FT_NM
for (const name of ['lbin', 'lbfin', 'lbsin', 'inlb', 'inlbf', 'inlbs']) TORQUES[name] = LBF_FT_NM / 12

/** Newton metres from "25", "25 N·m", "18 lb ft" or "216 lbf in"; null where the text is no torque. */
export function readTorqueNm(text: string): number | null {
  const found = text
    .trim()
    .toLowerCase()
    .match(/^(\d+[.,]?\d*|[.,]\d+)\s*(.*)$/)
  const factor = found && TORQUES[found[2]!.replace(/[\s·.*-]/g, '')]
  const size = found ? readNumber(found[1]!) : null
  return factor === null || factor === undefined || size === null ? null : Number((size * factor).toFixed(9))
}

const SLOPES: Record<string, number> = {
  'mm/m': 1,
  '/100': 10,
  'mm/100': 10,
  'mm/100mm': 10,
  'thou/in': 1,
  'thou/inch': 1,
  'mils/in': 1,
}

/** mm/m from "0.35°", "0.5 mm/m", "0.05 /100", "2 thou/in" or "0.2 on 140", a gap on a diameter; `bare` is what a number alone means. */
export function readSlope({ text, unit }: Typed, bare: 'mm/m' | '°'): number | null {
  const trimmed = text.trim().toLowerCase()
  const [gap, diameter] = trimmed.split(' on ') as [string, string | undefined]
  if (diameter !== undefined) {
    const opens = readLengthMm({ text: gap, unit })
    const across = readLengthMm({ text: diameter, unit })
    return opens === null || across === null || across <= 0 ? null : Number(((1000 * opens) / across).toFixed(9))
  }
  const found = trimmed.match(/^([+\-−–]?)\s*(\d+[.,]?\d*|[.,]\d+)\s*(.*)$/)
  const size = found && !isThousandOrDecimal(trimmed) ? readNumber(found[2]!) : null
  if (!found || size === null) return null
  const value = '-−–'.includes(found[1] || '+') ? -size : size
  const named = found[3]!.replace(/ /g, '').replace('per', '/')
  if (['°', 'deg', 'degree', 'degrees'].includes(named) || (!named && bare === '°'))
    return Number((1000 * Math.tan((value * Math.PI) / 180)).toFixed(9))
  const factor = named ? SLOPES[named] : 1
  return factor === undefined ? null : Number((value * factor).toFixed(9))
}

/** Degrees from any way an angle is written; a number alone is degrees. */
export function readDegrees(typed: Typed): number | null {
  const plain = readNumber(typed.text)
  if (plain !== null) return plain
  const slope = readSlope(typed, '°')
  return slope === null ? null : Number(((Math.atan(slope / 1000) * 180) / Math.PI).toFixed(9))
}

/** Seconds from "64" or "1:04"; null where the text is no time. */
export function readSeconds(text: string): number | null {
  const found = text.trim().match(/^(?:(\d+):)?(\d+):(\d{1,2})$/)
  if (found) return Number(found[1] ?? 0) * 3600 + Number(found[2]) * 60 + Number(found[3])
  const plain = readNumber(text)
  return plain !== null && plain >= 0 ? plain : null
}

/** Minutes and seconds, hours where there are any: 3:46, 1:21:02. */
export function showTime(seconds: number): string {
  const whole = Math.round(Math.abs(seconds))
  const rest = `${String(Math.floor((whole % 3600) / 60)).padStart(whole >= 3600 ? 2 : 1, '0')}:${String(whole % 60).padStart(2, '0')}`
  return whole >= 3600 ? `${Math.floor(whole / 3600)}:${rest}` : rest
}

/** What a cell can hold, and how its text is read. */
export type CellKind = 'length' | 'number' | 'temperature' | 'time' | 'torque' | 'slope' | 'degrees'
export const READ_CELL: Record<CellKind, (typed: Typed) => number | null> = {
  length: readLengthMm,
  number: ({ text }) => readNumber(text),
  temperature: ({ text }) => readTemperatureC(text),
  time: ({ text }) => readSeconds(text),
  torque: ({ text }) => readTorqueNm(text),
  slope: (typed) => readSlope(typed, 'mm/m'),
  degrees: readDegrees,
}

/** How the typed text goes into the record; nothing where it is plain millimetres already. */
export function forRecord({ text, unit }: Typed): string | null {
  const isBare = /^[+\-−–]?\s*(\d+[.,]?\d*|[.,]\d+)$/.test(text.trim())
  if (!isBare) return text.trim()
  return unit === 'in' ? `${text.trim()} in` : null
}

export const INCH_NEEDS_MORE = 2 // 0.01 mm is about 0.0004 in

/** Millimetres as a number in a unit. */
export function inUnit(mm: number, unit: LengthUnit): number {
  return unit === 'mm' ? mm : mm / MM_PER_INCH
}

/** A length in the sheet's unit, true minus, fixed places. */
export function showLength(mm: number, unit: LengthUnit, places = 2, signed = false): string {
  const text = inUnit(mm, unit).toFixed(unit === 'mm' ? places : places + INCH_NEEDS_MORE)
  const isZero = Number(text) === 0
  const size = text.replace('-', '')
  if (isZero) return size
  return (mm < 0 ? '−' : signed ? '+' : '') + size
}

/** A length with its unit. */
export function sayLength(mm: number, unit: LengthUnit, places = 2, signed = false): string {
  return `${showLength(mm, unit, places, signed)} ${unit}`
}

/** What a cell shows: the typed text in the unit it was typed in; converted, as fine as it was read, when the sheet has been switched since. */
export function showTyped(typed: Typed, unit: LengthUnit): string {
  if (typed.unit === unit || forRecord({ ...typed, unit: 'mm' }) !== null) return typed.text
  const mm = readLengthMm(typed)
  if (mm === null) return typed.text
  const places = typed.unit === 'mm' && !/[.,]\d{3}/.test(typed.text) ? 2 : 3
  return showLength(mm, unit, places, typed.text.trim().startsWith('+')).replace('−', '-')
}

/** A slope in mm per 100 mm, or thou per inch. */
export function showSlope(mmPerM: number, unit: LengthUnit): string {
  const size = Math.abs(unit === 'mm' ? mmPerM / 10 : mmPerM)
  return unit === 'mm' ? `${size.toFixed(3)} /100` : `${size.toFixed(2)} thou/in`
}

/** By how much a figure of the core's is multiplied on a sheet: an axis has round ticks in what is read there. */
export function onSheet(figureUnit: string, unit: LengthUnit): number {
  if (figureUnit === 'mm' || figureUnit === 'mm/s') return inUnit(1, unit)
  return figureUnit === 'mm/m' && unit === 'mm' ? 0.1 : 1
}

/** A figure with a true minus, and none on what rounds to nothing. */
const trueMinus = (text: string) => text.replace('-', Number(text) === 0 ? '' : '−')

/** A check's or working line's figure with its unit, in the sheet's unit where it is a length. */
export function showFigure(value: number, figureUnit: string, unit: LengthUnit): { text: string; unit: string } {
  switch (figureUnit) {
    case 'mm':
      return { text: showLength(value, unit, 3), unit }
    case 'mm/s':
      return { text: showLength(value, unit, 1), unit: `${unit}/s` }
    case 'mm/m':
      return {
        text: trueMinus((unit === 'mm' ? value / 10 : value).toFixed(3)),
        unit: unit === 'mm' ? '/100' : 'thou/in',
      }
    case 'N·m':
      return { text: value.toFixed(1), unit: figureUnit }
    case 's':
      return { text: value.toFixed(value < 100 ? 1 : 0), unit: figureUnit }
    case '°':
      return { text: trueMinus(value.toFixed(Math.abs(value) < 5 ? 3 : 1)), unit: figureUnit }
    default:
      return { text: String(Number(value.toPrecision(5))).replace('-', '−'), unit: figureUnit }
  }
}
