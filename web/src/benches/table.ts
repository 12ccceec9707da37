import type { Schemas } from '../api/client'
import { type CellKind, showTime } from '../units/length'
import {
  asRead,
  clocksOf,
  type Draft,
  DraftFiller,
  DraftReader,
  type Entered,
  type Part,
  type Reading,
  readClock,
  suggested,
} from './draft'

/** The shapes of a bench, from the description of the API. */
export type BenchName = Schemas['BenchFormOut']['bench']
type Forms = { [F in Schemas['BenchFormOut'] as F['bench']]: F }
export type Readings = { [E in Extract<Schemas['EntryOut'], { kind: 'reading' }> as E['bench']]: E }
export type FormOf<N extends BenchName> = Forms[N]
export type Given<N extends BenchName> = Forms[N]['preset']
export type Hints<N extends BenchName> = Forms[N]['suggest']
export type ResultOf<N extends BenchName> = Readings[N]['result']

/** One key of a bench's input: from the cells into it and back, and what is said while it is not there. */
export interface Field<V, N extends BenchName = BenchName> {
  /** What stands in the cells; undefined where nothing does. */
  read(reader: DraftReader, path: string, preset: Given<N>): V | undefined
  /** The way back, from an entry into the cells. */
  restore(filler: DraftFiller, path: string, part: Part): void
  /** The cells as they stand before a hand has typed anything. */
  start?(hints: Hints<N>, preset: Given<N>): Partial<Draft>
}

/** A bench's input, or a part of it, key by key. A key that the input does not have is a fault the compiler finds. */
export type Table<I, N extends BenchName = BenchName> = { readonly [K in keyof I]: Field<NonNullable<I[K]>, N> }

type Said<N extends BenchName> = string | ((draft: Draft, preset: Given<N>) => string)
const say = <N extends BenchName>(said: Said<N>, draft: Draft, preset: Given<N>) =>
  typeof said === 'string' ? said : said(draft, preset)

export interface CellSpec<N extends BenchName = BenchName> {
  cell: string
  label: string
  kind?: CellKind
  unit?: string
  /** What stands under the label. */
  detail?: string
  /** Where it stands for the hand: a reading, set-up that stays, or aside. */
  part?: 'reading' | 'set-up' | 'aside'
  /** It need not be there. */
  optional?: boolean
  /** What is said while it is not there; else its label. */
  lacking?: string
  /** It stays for the next reading. Set-up does by itself. */
  stays?: boolean
  /** Places it is written back with. */
  places?: number
  hint?: (hints: Hints<N>, preset: Given<N>) => number | null | undefined
}
export type CellField<N extends BenchName = BenchName> = Field<number, N> & CellSpec<N>

/** One figure in one cell. */
export function cell<N extends BenchName>(spec: CellSpec<N>): CellField<N> {
  const { cell: name, label, kind = 'length', optional = false, places, part, hint } = spec
  const stays = spec.stays ?? part === 'set-up'
  const write = kind === 'time' ? showTime : places === undefined ? String : (mm: number) => asRead(mm, places)
  return {
    ...spec,
    read: (reader, path) => {
      const value = reader[kind](name, path)
      if (value !== null) return value
      if (!optional) reader.lack(spec.lacking ?? `Still to fill in: ${label.toLowerCase()}.`)
    },
    restore: (filler, path, wanted) => {
      if (stays || wanted === 'all') filler.cell(name, path, write)
    },
    start: (hints, preset) => {
      const typed = suggested(hint?.(hints, preset))
      return typed ? { cells: { [name]: typed } } : {}
    },
  }
}

interface RingSpec<N extends BenchName> {
  prefix?: string
  /** Where the places of the ring stand on the draft. */
  key?: string
  signed?: boolean
  lacking: Said<N>
  /** It need not be there; where it is begun, it has to be whole. */
  optional?: boolean
}
const LEAST_ON_A_RING = 3

/** Readings round the clock. */
export function ring<N extends BenchName>(spec: RingSpec<N>): Field<{ clock: number; value_mm: number }[], N> {
  const { prefix = 'at', key = 'clocks', signed = false, optional = false, lacking } = spec
  return {
    read: (reader, path, preset) => {
      const readings = readClock(reader, clocksOf(reader.draft, key), prefix, path)
      if (optional && readings.length === 0) return undefined
      if (readings.length < LEAST_ON_A_RING) reader.lack(say(lacking, reader.draft, preset))
      return readings
    },
    restore: (filler, path, part) => filler.ring(part, path, { prefix, key, signed }),
  }
}

/** What was chosen, not typed; nothing where nothing is chosen. */
export function chosen<V, N extends BenchName>(
  at: { key: string; of: (draft: Draft) => V | undefined },
  stays = true,
): Field<V, N> {
  return {
    read: (reader) => at.of(reader.draft),
    restore: (filler, path, part) => {
      if (stays || part === 'all') filler.choice(at.key, filler.at(path))
    },
  }
}

/** Figures that stand together under one name. Optional: they count when all that are wanted of them are there. */
export function group<V extends object, N extends BenchName>(
  fields: Table<V, N>,
  { optional = false }: { optional?: boolean } = {},
): Field<V, N> {
  const each = entriesOf<V, N>(fields)
  return {
    read: (reader, path, preset) => {
      const inner = optional ? new DraftReader(reader.draft) : reader
      const found: Partial<V> = {}
      for (const [key, field] of each) {
        const value = field.read(inner, `${path}.${String(key)}`, preset)
        if (value !== undefined) found[key] = value
      }
      if (optional) {
        Object.assign(reader.typed, inner.typed)
        Object.assign(reader.cellAt, inner.cellAt)
        reader.unreadable ||= inner.unreadable
        if (inner.lacking) return undefined
      }
      return isWhole<V>(found, inner) ? found : undefined
    },
    restore: (filler, path, part) => {
      for (const [key, field] of each) field.restore(filler, `${path}.${String(key)}`, part)
    },
    start: (hints, preset) => merged(each.map(([, field]) => field.start?.(hints, preset) ?? {})),
  }
}

/** Read only where a test of the draft holds. */
export function when<V, N extends BenchName>(
  test: (draft: Draft, preset: Given<N>) => boolean,
  field: Field<V, N>,
): Field<V, N> {
  return {
    ...field,
    read: (reader, path, preset) => (test(reader.draft, preset) ? field.read(reader, path, preset) : undefined),
  }
}

/** What no cell gives: a limit of the value card, or one typed beside a quick bench. */
export function limit<V, N extends BenchName>(lacking: string): Field<V, N> {
  return { read: (reader) => reader.lack(lacking), restore: () => undefined }
}

/** Start, reading and restoring of a bench, from its table. What the step gives is not read from the cells. */
export function byTable<N extends BenchName>(fields: Table<Given<N>, N>) {
  const each = entriesOf<Given<N>, N>(fields)
  return {
    start: (preset: Given<N>, hints: Hints<N>): Draft => ({
      cells: {},
      choices: {},
      ...merged(each.map(([, field]) => field.start?.(hints, preset) ?? {})),
    }),
    read: (draft: Draft, preset: Given<N>): Reading<Given<N>> => {
      const reader = new DraftReader(draft)
      const input: Given<N> = {}
      for (const [key, field] of each) {
        if (key in preset) continue
        const value = field.read(reader, String(key), preset)
        if (value !== undefined) input[key] = value
      }
      return reader.done(input)
    },
    restore: (entered: Entered, part: Part): Draft => {
      const filler = new DraftFiller(entered)
      for (const [key, field] of each) field.restore(filler, String(key), part)
      return filler.draft
    },
  }
}

/** The rows of a table with their types, which `Object.entries` forgets. */
function entriesOf<I extends object, N extends BenchName>(fields: Table<I, N>) {
  return Object.entries(fields) as [keyof I, Field<NonNullable<I[keyof I]>, N>][]
}

/** Nothing wanted was lacking, so that all of it is there. */
function isWhole<V extends object>(_: Partial<V>, reader: DraftReader): _ is V {
  return reader.lacking === ''
}

function merged(parts: readonly Partial<Draft>[]): Partial<Draft> {
  return {
    cells: Object.assign({}, ...parts.map((part) => part.cells)),
    choices: Object.assign({}, ...parts.map((part) => part.choices)),
  }
}
