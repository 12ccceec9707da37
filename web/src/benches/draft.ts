import { filledFrom } from '../kit/paste'
import { type CellKind, forRecord, READ_CELL, readLengthMm, readNumber, type Typed } from '../units/length'

/** What a hand has typed on a bench, by cell, and the bench's own choices (method, places, patterns). */
export interface Draft {
  cells: Record<string, Typed>
  choices: Record<string, unknown>
}

export const EMPTY: Draft = { cells: {}, choices: {} }

/** One draft with another laid over it: what that one says counts. */
export const laidOver = (under: Draft, over: Draft): Draft => ({
  cells: { ...under.cells, ...over.cells },
  choices: { ...under.choices, ...over.choices },
})

/** A place on a draft for something that is no cell: which method, which places, what was clicked. */
export interface Slot<T> {
  key: string
  of: (draft: Draft) => T
  put: (draft: Draft, value: T) => Draft
}

/** A list where a list is meant, a word for a word. */
const isLike = (value: unknown, usual: unknown) =>
  Array.isArray(value) === Array.isArray(usual) && typeof value === typeof usual

/**
 * A slot, and what stands in it until a hand has chosen. Only what its own bench puts there comes out again: what is of
 * another kind, out of a file or an earlier version, counts as nothing chosen.
 */
export function slot<T>(key: string, usual: T): Slot<T> {
  const isOfItsKind = (value: unknown): value is T => usual === undefined || usual === null || isLike(value, usual)
  return {
    key,
    of: (draft) => {
      const value = draft.choices[key] ?? usual
      return isOfItsKind(value) ? value : usual
    },
    put: (draft, value) => ({ ...draft, choices: { ...draft.choices, [key]: value } }),
  }
}

/** A slot for one of a few; another bench's word in it, or one of an earlier version, counts as nothing chosen. */
export function oneOf<T extends string, U extends T | undefined>(key: string, options: readonly T[], usual: U): Slot<T | U> {
  const any = slot<T | U>(key, usual)
  return { ...any, of: (draft) => options.find((option) => option === any.of(draft)) ?? usual }
}

/** What takes a column of figures pasted into a cell: that cell and those after it; false where there are too few. */
export function fillFrom(
  { draft, change, unit }: { draft: Draft; change: (draft: Draft) => void; unit: Typed['unit'] },
  cells: readonly string[],
  from: string,
) {
  return (figures: readonly string[]) => {
    const filled = filledFrom(cells, from, figures, unit)
    if (filled) change({ ...draft, cells: { ...draft.cells, ...filled } })
    return filled !== null
  }
}

/** A draft read into a bench's input. `input` is null while something wanted is not there yet. */
export interface Reading<I = object> {
  input: I | null
  /** What of it is there, whole or not. */
  partial: Partial<I>
  /** Path into the input → what was typed there, where that was not plain millimetres. */
  typed: Record<string, string>
  /** Path into the input → the cell it came from, so that a refusal lands where it was typed. */
  cellAt: Record<string, string>
  /** What is still wanted, in words. */
  lacking: string
}

/** Reads cells one by one and remembers where each went. A cell that cannot be read counts as not filled. */
export class DraftReader {
  readonly typed: Record<string, string> = {}
  readonly cellAt: Record<string, string> = {}
  unreadable = false
  /** The first thing that is needed and not there. */
  lacking = ''

  constructor(readonly draft: Draft) {}

  /** Something is needed and not there. */
  lack(words: string): undefined {
    this.lacking ||= words
  }

  length(cell: string, path: string): number | null {
    const typed = this.draft.cells[cell]
    this.cellAt[path] = cell
    if (!typed || typed.text.trim() === '') return null
    const mm = readLengthMm(typed)
    if (mm === null) this.unreadable = true
    else {
      const words = forRecord(typed)
      if (words !== null) this.typed[path] = words
    }
    return mm
  }

  number(cell: string, path: string): number | null {
    return this.read(cell, path, 'number')
  }

  /** Degrees Celsius; what was typed in Fahrenheit stands in the record as it was typed. */
  temperature(cell: string, path: string): number | null {
    const celsius = this.read(cell, path, 'temperature')
    const text = this.draft.cells[cell]?.text.trim() ?? ''
    if (celsius !== null && /f$/i.test(text)) this.typed[path] = text
    return celsius
  }

  time(cell: string, path: string): number | null {
    return this.read(cell, path, 'time')
  }

  /** A torque in N·m, an angle in mm/m: what was typed in other units stands in the record as it was typed. */
  torque(cell: string, path: string): number | null {
    return this.withUnit(cell, path, 'torque')
  }

  slope(cell: string, path: string): number | null {
    return this.withUnit(cell, path, 'slope')
  }

  degrees(cell: string, path: string): number | null {
    return this.read(cell, path, 'degrees')
  }

  private withUnit(cell: string, path: string, kind: 'torque' | 'slope'): number | null {
    const value = this.read(cell, path, kind)
    const text = this.draft.cells[cell]?.text.trim() ?? ''
    if (value !== null && readNumber(text) === null) this.typed[path] = text
    return value
  }

  private read(cell: string, path: string, kind: CellKind): number | null {
    const typed = this.draft.cells[cell]
    this.cellAt[path] = cell
    if (!typed || typed.text.trim() === '') return null
    const value = READ_CELL[kind](typed)
    if (value === null) this.unreadable = true
    return value
  }

  done<I extends object>(input: I): Reading<I> {
    return {
      input: this.unreadable || this.lacking ? null : input,
      partial: input,
      typed: this.typed,
      cellAt: this.cellAt,
      lacking: this.unreadable ? 'A figure cannot be read.' : this.lacking,
    }
  }
}

/** An entry's figures as they were sent, and what was typed where that was not plain millimetres. */
export interface Entered {
  inputs: object
  typed: Record<string, string>
}

/** Puts the figures of an entry back into cells: the way back from `DraftReader`. */
export class DraftFiller {
  readonly draft: Draft = { cells: {}, choices: {} }

  constructor(private readonly entered: Entered) {}

  /** What stands at a path into the inputs. */
  at<T>(path: string): T | undefined {
    return (standsAt(this.entered.inputs, path) ?? undefined) as T | undefined
  }

  cell(cell: string, path: string, write: (mm: number) => string = String): void {
    const value = this.at<number>(path)
    if (value !== undefined) this.draft.cells[cell] = { text: this.entered.typed[path] ?? write(value), unit: 'mm' }
  }

  /** What was typed at a path, where that was not plain millimetres. */
  typedAt(path: string): string | undefined {
    return this.entered.typed[path]
  }

  choice(key: string, value: unknown): void {
    if (value !== undefined) this.draft.choices[key] = value
  }

  /** The places of a ring; with its readings where they are to stand there again. A dial's readings show their sign. */
  ring(part: Part, path: string, { prefix = 'at', key = 'clocks', signed = false } = {}): void {
    const readings = this.at<{ clock: number }[]>(path) ?? []
    if (readings.length === 0) return
    this.choice(
      key,
      readings.map((r) => r.clock),
    )
    const write = (mm: number) => (signed && mm > 0 ? '+' : '') + asRead(mm)
    if (part === 'all')
      for (const [i, { clock }] of readings.entries()) this.cell(`${prefix}${clock}`, `${path}.${i}.value_mm`, write)
  }
}

/** What stands at a path. A name may hold a dot itself: the foot at the D.E. */
function standsAt(inner: unknown, path: string): unknown {
  if (path === '') return inner
  if (typeof inner !== 'object' || inner === null) return undefined
  const step = Object.entries(inner).find(([key]) => path === key || path.startsWith(`${key}.`))
  return step && standsAt(step[1], path.slice(step[0].length + 1))
}

/** A reading as an instrument shows it: two places, a micrometer three; more where there are more. */
export function asRead(mm: number, places = 2): string {
  const fixed = mm.toFixed(places)
  return Math.abs(Number(fixed) - mm) < 1e-9 ? fixed : String(mm)
}

/** Everything entered, or only what stays the same from one reading to the next. */
export type Part = 'all' | 'set-up'

/** A cell with a millimetre figure already in it: what the line or the last reading suggests. */
export function suggested(mm: number | undefined | null): Typed | undefined {
  return mm === undefined || mm === null ? undefined : { text: String(mm), unit: 'mm' }
}

const QUARTERS = [0, 90, 180, 270]

/** The clock places chosen on a bench, the four quarters at first. */
export function clocksOf(draft: Draft, key = 'clocks'): number[] {
  return slot(key, QUARTERS).of(draft)
}

/** Readings of the cells `${prefix}${clock}` that are filled, clockwise. */
export function readClock(reader: DraftReader, clocks: readonly number[], prefix: string, path: string) {
  const readings: { clock: number; value_mm: number }[] = []
  for (const clock of [...clocks].sort((a, b) => a - b)) {
    const value = reader.length(`${prefix}${clock}`, `${path}.${readings.length}.value_mm`)
    if (value !== null) readings.push({ clock, value_mm: value })
  }
  return readings
}
