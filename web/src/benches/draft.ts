import { forRecord, readLengthMm, readNumber, type Typed } from '../units/length'

/** What a hand has typed on a bench, by cell, and the bench's own choices (method, places, patterns). */
export interface Draft {
  cells: Record<string, Typed>
  choices: Record<string, unknown>
}

export const EMPTY: Draft = { cells: {}, choices: {} }

/** A draft read into a bench's input. `input` is null while something wanted is not there yet. */
export interface Reading {
  input: Record<string, unknown> | null
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

  constructor(private readonly draft: Draft) {}

  length(cell: string, path: string): number | null {
    const typed = this.draft.cells[cell]
    if (!typed || typed.text.trim() === '') return null
    const mm = readLengthMm(typed)
    if (mm === null) this.unreadable = true
    else {
      this.cellAt[path] = cell
      const words = forRecord(typed)
      if (words !== null) this.typed[path] = words
    }
    return mm
  }

  number(cell: string, path: string): number | null {
    const typed = this.draft.cells[cell]
    if (!typed || typed.text.trim() === '') return null
    const value = readNumber(typed.text)
    if (value === null) this.unreadable = true
    else this.cellAt[path] = cell
    return value
  }

  done(input: Record<string, unknown> | null, lacking = ''): Reading {
    const usable = input !== null && !this.unreadable
    return {
      input: usable ? input : null,
      typed: this.typed,
      cellAt: this.cellAt,
      lacking: this.unreadable ? 'A figure cannot be read.' : lacking,
    }
  }
}

/** A cell with a millimetre figure already in it: what the line or the last reading suggests. */
export function suggested(mm: number | undefined | null): Typed | undefined {
  return mm === undefined || mm === null ? undefined : { text: String(mm), unit: 'mm' }
}

/** The clock places chosen on a bench, the four quarters at first. */
export function clocksOf(draft: Draft, key = 'clocks'): number[] {
  return (draft.choices[key] as number[] | undefined) ?? [0, 90, 180, 270]
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
