import type { Schemas } from '../api/client'
import type { Kept } from '../api/outbox'
import { notSent, ofKind } from '../api/outbox'
import { type Draft, DraftReader, oneOf, slot } from '../benches/draft'
import type { CellKind } from '../units/length'

export type Stop = Schemas['RoundLineOut']
export type Figure = 'wear_mm' | 'temperature_c' | 'vibration_mm_per_s' | 'hours'

/** What can be read of a line while it runs, how its cell is called, and the unit it is sent in. A speed is typed as the
 * length a second moves: what an inch sheet asks is in/s, as on the printed sheet. */
export const FIGURES: Record<Figure, { label: string; kind: CellKind; unit: string; places: number }> = {
  wear_mm: { label: 'Wear mark, by strobe', kind: 'length', unit: 'mm', places: 2 },
  temperature_c: { label: 'Temperature, by pyrometer', kind: 'temperature', unit: '°C', places: 0 },
  vibration_mm_per_s: { label: 'Vibration', kind: 'length', unit: 'mm/s', places: 1 },
  hours: { label: 'Hour meter', kind: 'number', unit: 'h', places: 0 },
}
export const LEAK_WORDS = ['none', 'sweats', 'drips'] as const
export const NOISE_WORDS = ['as usual', 'other than usual', 'bad'] as const
export const LEAKS = oneOf('leaks', LEAK_WORDS, undefined)
export const NOISE = oneOf('noise', NOISE_WORDS, undefined)
export const NOTE = slot('note', '')
export const ON_DAY = slot('on', '')

const isFigure = (key: string): key is Figure => key in FIGURES

/** The figures this line is read for, the first of them asked at once; then the others. */
export function figuresOf(stop: Stop): { asked: Figure[]; others: Figure[] } {
  const asked = stop.reads.filter(isFigure)
  const others = (Object.keys(FIGURES) as Figure[]).filter((key) => !asked.includes(key))
  return { asked, others }
}

export interface LookRead {
  inputs: Omit<Schemas['LookIn'], 'id' | 'by' | 'ago_s'>
  isEmpty: boolean
  unreadable: boolean
}

/** What stands on the sheet of a stop, as it is sent. */
export function readLook(stop: Stop, draft: Draft, unit: 'mm' | 'in'): LookRead {
  const reader = new DraftReader(draft)
  const read = Object.fromEntries(
    (Object.keys(FIGURES) as Figure[]).map((key) => [key, reader[FIGURES[key].kind](key, key)]),
  ) as Record<Figure, number | null>
  const [leaks, noise, note, on] = [LEAKS.of(draft) ?? null, NOISE.of(draft) ?? null, NOTE.of(draft).trim(), ON_DAY.of(draft)]
  const isEmpty = Object.values(read).every((v) => v === null) && leaks === null && noise === null && note === ''
  const inputs = {
    line_id: stop.id,
    ...read,
    leaks,
    noise,
    note,
    typed: reader.typed,
    unit,
    confirmed: false,
    on: on || null,
  }
  return { inputs, isEmpty, unreadable: reader.unreadable }
}

/** Lines whose look of today waits on this device, or has arrived. */
export function isSeen(stop: Stop, outbox: readonly Kept[]): boolean {
  const waits = ofKind(notSent(outbox), 'look').some((p) => p.jobId === stop.id)
  return waits || stop.looked_today
}

/** The next line of the walk that was not looked at yet and that nobody works on; from the end on at the beginning. */
export function nextStop(stops: readonly Stop[], after: string, seen: (stop: Stop) => boolean): Stop | undefined {
  const at = stops.findIndex((stop) => stop.id === after)
  const ahead = [...stops.slice(at + 1), ...stops.slice(0, Math.max(at, 0))]
  return ahead.find((stop) => !seen(stop) && stop.id !== after && stop.open_job === null)
}

/** A stop moved one place up or down the walk. */
export function moved(ids: readonly string[], id: string, by: -1 | 1): string[] {
  const at = ids.indexOf(id)
  const to = at + by
  if (at < 0 || to < 0 || to >= ids.length) return [...ids]
  const order = [...ids]
  ;[order[at], order[to]] = [order[to]!, order[at]!]
  return order
}
