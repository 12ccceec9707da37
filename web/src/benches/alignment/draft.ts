import type { Schemas } from '../../api/client'
import type { Preset } from '../bench'
import {
  asRead,
  clocksOf,
  type Draft,
  DraftFiller,
  DraftReader,
  type Entered,
  type Part,
  readClock,
  suggested,
} from '../draft'
import { type DialSetUp, dialsOf, METHODS, type Method, methodOf } from './methods'
import { readThicknesses, USUAL_BOX, writeThicknesses } from './shims'

type Foot = Schemas['Foot']
type Clocked = { clock: number; value_mm: number }[]

const MOST_IN_BOX = 16
const MOST_UNDER = 12
const ENOUGH = 3 // places on each dial from which the core can answer
export const MATERIALS = ['cast iron', 'steel', 'stainless steel', 'aluminium'] as const

export function start(_: Preset, suggest: Preset): Draft {
  const radius = suggested(suggest.radius_mm as number | undefined)
  return { cells: radius ? { 'face.radius': radius } : {}, choices: {} }
}

/** The cells with the usual place of each stem in them, until another one is typed. */
export function withUsualPlaces(draft: Draft): Draft {
  const usual = dialsOf(draft).map((dial) => [`${dial.id}.x`, { text: dial.from, unit: 'mm' as const }])
  return { ...draft, cells: { ...Object.fromEntries(usual), ...draft.cells } }
}

/** The streamed readings of one plane, where a laser has sent any. */
export const streamOf = (draft: Draft, plane: number) => (draft.choices[`stream${plane}`] as Clocked | undefined) ?? []

/** Readings of a dial in sweeps before the one in the cells. */
const keptOf = (draft: Draft, dial: string) => (draft.choices[`kept.${dial}`] as Clocked | undefined) ?? []

/** Keeps what stands in the cells as a sweep and clears them for the next; all sweeps count alike. */
export function nextSweep(draft: Draft): Draft {
  const choices = { ...draft.choices, sweeps: sweepsOf(draft) + 1 }
  const cells = { ...draft.cells }
  for (const { id } of dialsOf(draft)) {
    const now = readClock(new DraftReader(draft), clocksOf(draft, `${id}.clocks`), `${id}.at`, '')
    Object.assign(choices, { [`kept.${id}`]: [...keptOf(draft, id), ...now] })
    for (const { clock } of now) delete cells[`${id}.at${clock}`]
  }
  return { cells, choices }
}

/** How many sweeps are kept beside the one in the cells. */
export const sweepsOf = (draft: Draft) => (draft.choices.sweeps as number | undefined) ?? 0

/** The feet of both machines: of the line, or typed by hand on a bench without one. */
export function feetOf(draft: Draft, preset: Preset): { movable: Foot[]; stationary: Foot[] } {
  if ('movable_feet' in preset)
    return { movable: preset.movable_feet as Foot[], stationary: (preset.stationary_feet as Foot[]) ?? [] }
  const reader = new DraftReader(draft)
  const foot = (name: string, cell: string, sign: number) => {
    const from = reader.length(cell, '')
    return from === null ? [] : [{ name, x_mm: sign * from }]
  }
  return {
    movable: [...foot('near foot', 'foot.near', 1), ...foot('far foot', 'foot.far', 1)],
    stationary: [...foot('other near foot', 'foot.other_near', -1), ...foot('other far foot', 'foot.other_far', -1)],
  }
}

export function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const method: readonly DialSetUp[] = dialsOf(draft)
  const shown = method.length === 0 ? readScreen(reader) : null
  const turned = (draft.choices.turned as string | undefined) ?? 'both'
  const positive = (draft.choices.positive as string | undefined) ?? 'in'
  const dials = method.map((dial, i) => {
    const streamed = methodOf(draft) === 'laser' ? streamOf(draft, i) : []
    const opposite = dial.opposite
      ? readClock(reader, clocksOf(draft, `${dial.id}.clocks`), `${dial.id}.far`, `dials.${i}.opposite`)
      : []
    return {
      kind: dial.kind,
      bracket_on: dial.bracket_on,
      x_mm: (reader.length(`${dial.id}.x`, `dials.${i}.x_mm`) ?? Number(dial.from)) * dial.side,
      ...(dial.kind === 'face' ? { radius_mm: reader.length(`${dial.id}.radius`, `dials.${i}.radius_mm`) } : {}),
      ...(dial.kind === 'rim' && dial.sags ? { sag_mm: reader.length(`${dial.id}.sag`, `dials.${i}.sag_mm`) ?? 0 } : {}),
      turned,
      ...(positive === 'out' && { positive }),
      readings: streamed.length
        ? streamed
        : [
            ...readClock(reader, clocksOf(draft, `${dial.id}.clocks`), `${dial.id}.at`, `dials.${i}.readings`),
            ...keptOf(draft, dial.id),
          ],
      ...(opposite.length > 0 && { opposite }),
    }
  })
  const feet = feetOf(draft, preset)
  const own = 'movable_feet' in preset ? {} : { stationary_feet: feet.stationary, movable_feet: feet.movable }
  const unread = shown ? !shown.whole : dials.some((dial) => dial.readings.length < ENOUGH)
  const isMissing = unread || feet.movable.length === 0
  const lacking = !unread
    ? 'Enter where the movable machine’s feet stand.'
    : shown
      ? 'Offset and slope in both views.'
      : `Read each dial at ${ENOUGH} places or more.`
  return reader.done(
    isMissing
      ? null
      : {
          ...(shown ? { shown: shown.figures } : { dials }),
          ...own,
          ...('growth' in preset ? {} : readGrowth(draft, reader, [...feet.movable, ...feet.stationary])),
          ...readRoom(draft, reader, feet),
          ...readBox(draft, reader, [...feet.movable, ...feet.stationary]),
        },
    isMissing ? lacking : '',
  )
}

/** The four figures of another instrument's screen. */
function readScreen(reader: DraftReader) {
  const figures = {
    offset_v_mm: reader.length('shown.ov', 'shown.offset_v_mm'),
    slope_v_mm_per_m: reader.slope('shown.sv', 'shown.slope_v_mm_per_m'),
    offset_h_mm: reader.length('shown.oh', 'shown.offset_h_mm'),
    slope_h_mm_per_m: reader.slope('shown.sh', 'shown.slope_h_mm_per_m'),
  }
  const x = reader.length('shown.x', 'shown.x_mm')
  return { figures: { ...figures, ...(x !== null && { x_mm: x }) }, whole: Object.values(figures).every((mm) => mm !== null) }
}

function readGrowth(draft: Draft, reader: DraftReader, feet: readonly Foot[]) {
  const growth: Record<string, number> = {}
  const warmth: Record<string, Record<string, unknown>> = {}
  for (const { name } of feet) {
    const rise = reader.length(`rise.${name}`, `growth.${name}`)
    const height = reader.length(`warm.${name}.height`, `warmth.${name}.height_mm`)
    const cold = reader.temperature(`warm.${name}.cold`, `warmth.${name}.cold_c`)
    const hot = reader.temperature(`warm.${name}.hot`, `warmth.${name}.hot_c`)
    if (rise !== null) growth[name] = rise
    else if (height !== null && cold !== null && hot !== null)
      warmth[name] = { height_mm: height, cold_c: cold, hot_c: hot, material: draft.choices.material ?? MATERIALS[0] }
  }
  return {
    ...(Object.keys(growth).length > 0 && { growth }),
    ...(Object.keys(warmth).length > 0 && { warmth }),
  }
}

/** Room typed at any foot, or the wish to move both machines, asks for a plan. */
function readRoom(draft: Draft, reader: DraftReader, feet: { movable: Foot[]; stationary: Foot[] }) {
  const both = draft.choices.both === true
  const room: Record<string, Record<string, number | boolean>> = {}
  for (const { name } of both ? [...feet.movable, ...feet.stationary] : feet.movable) {
    const has: Record<string, number> = {}
    for (const way of ['shim', 'left', 'right'] as const) {
      const mm = reader.length(`room.${name}.${way}`, `room.${name}.${way}_mm`)
      if (mm !== null) has[`${way}_mm`] = mm
    }
    if (draft.choices[`stays.${name}`] === true) room[name] = { stays: true }
    else if (both || Object.keys(has).length > 0) room[name] = has
  }
  return Object.keys(room).length > 0 ? { room } : {}
}

export const boxOf = (draft: Draft) => String(draft.choices.box ?? USUAL_BOX)

/** What lies under a foot now, as it was written down. */
export const underOf = (draft: Draft, foot: string) => String(draft.choices[`under.${foot}`] ?? '')

function readBox(draft: Draft, reader: DraftReader, feet: readonly Foot[]) {
  const read = (line: string, path: string, most: number) =>
    readThicknesses(line)
      .slice(0, most)
      .map(({ mm, typed }, i) => {
        if (typed !== null) reader.typed[`${path}.${i}`] = typed
        return mm
      })
  const box = read(boxOf(draft), 'shims.box_mm', MOST_IN_BOX)
  if (box.length === 0) return {}
  const under = Object.fromEntries(
    feet
      .map(({ name }) => [name, read(underOf(draft, name), `shims.under.${name}`, MOST_UNDER)] as const)
      .filter(([, pieces]) => pieces.length > 0),
  )
  return { shims: { box_mm: box, ...(Object.keys(under).length > 0 && { under }) } }
}

export function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  const dials = filler.at<Schemas['Dial'][]>('dials') ?? []
  const method = filler.at('shown') ? 'off a screen' : methodOfDials(dials)
  if (part === 'all') for (const [cell, path] of Object.entries(SCREEN)) filler.cell(`shown.${cell}`, `shown.${path}`)
  filler.choice('method', method)
  filler.choice('turned', dials[0]?.turned)
  if (method !== 'two rims' && method !== 'laser') filler.choice('bracket_on', dials[0]?.bracket_on)
  filler.choice('positive', dials[0]?.positive)
  for (const [i, { id }] of METHODS[method].entries()) {
    if (!dials[i]) continue
    const x = filler.at<number>(`dials.${i}.x_mm`)
    if (x !== undefined) filler.draft.cells[`${id}.x`] = { text: String(Math.abs(x)), unit: 'mm' }
    filler.cell(`${id}.radius`, `dials.${i}.radius_mm`)
    filler.cell(`${id}.sag`, `dials.${i}.sag_mm`)
    const readings = filler.at<Clocked>(`dials.${i}.readings`) ?? []
    if (readings.length > (method === 'laser' ? MOST_TYPED_OF_LASER : MOST_TYPED)) {
      if (part === 'all') filler.choice(`stream${i}`, readings)
      continue
    }
    filler.ring(part, `dials.${i}.readings`, { prefix: `${id}.at`, key: `${id}.clocks`, signed: true })
    restoreSweeps(filler, readings, id, part)
    if (part === 'all')
      for (const [n, { clock }] of (filler.at<Clocked>(`dials.${i}.opposite`) ?? []).entries())
        filler.cell(`${id}.far${clock}`, `dials.${i}.opposite.${n}.value_mm`)
  }
  restoreRoomAndGrowth(filler)
  return filler.draft
}

/** The first reading of each place stands in its cell; what was read there in other sweeps is kept beside. */
function restoreSweeps(filler: DraftFiller, readings: Clocked, id: string, part: Part) {
  const seen = new Set<number>()
  const again = readings.filter(({ clock }) => seen.has(clock) || !seen.add(clock))
  filler.choice(`${id}.clocks`, [...seen])
  if (part !== 'all' || again.length === 0) return
  filler.choice(`kept.${id}`, again)
  filler.choice('sweeps', Math.max(1, Math.round(again.length / Math.max(1, seen.size))))
  for (const [i, { clock, value_mm }] of readings.entries())
    if (readings.findIndex((r) => r.clock === clock) === i)
      filler.draft.cells[`${id}.at${clock}`] = { text: (value_mm > 0 ? '+' : '') + asRead(value_mm), unit: 'mm' }
}

const SCREEN = {
  ov: 'offset_v_mm',
  sv: 'slope_v_mm_per_m',
  oh: 'offset_h_mm',
  sh: 'slope_h_mm_per_m',
  x: 'x_mm',
}
const MOST_TYPED = 36
const MOST_TYPED_OF_LASER = 12 // more were not typed, but came in a sweep

function methodOfDials(dials: readonly Schemas['Dial'][]): Method {
  if (dials.some((d) => (d.opposite ?? []).length > 0)) return 'rim and two faces'
  if (dials.length === 3) return 'three dials'
  if (dials.some((d) => d.kind === 'face')) return 'rim and face'
  return dials.every((d) => d.bracket_on === 'stationary') ? 'laser' : 'two rims'
}

function restoreRoomAndGrowth(filler: DraftFiller) {
  const room = filler.at<Record<string, Record<string, number | boolean>>>('room') ?? {}
  for (const [name, has] of Object.entries(room)) if (has.stays) filler.choice(`stays.${name}`, true)
  for (const [name, has] of Object.entries(room))
    for (const way of ['shim', 'left', 'right'])
      if (typeof has[`${way}_mm`] === 'number')
        filler.draft.cells[`room.${name}.${way}`] = { text: String(has[`${way}_mm`]), unit: 'mm' }
  const stationary = filler.at<Foot[]>('stationary_feet') ?? []
  if (stationary.some((foot) => foot.name in room)) filler.choice('both', true)
  const box = filler.at<number[]>('shims.box_mm')
  if (box)
    filler.choice(
      'box',
      writeThicknesses(box, (i) => filler.typedAt(`shims.box_mm.${i}`)),
    )
  for (const [name, pieces] of Object.entries(filler.at<Record<string, number[]>>('shims.under') ?? {}))
    filler.choice(
      `under.${name}`,
      writeThicknesses(pieces, (i) => filler.typedAt(`shims.under.${name}.${i}`)),
    )
  for (const [name, mm] of Object.entries(filler.at<Record<string, number>>('growth') ?? {}))
    filler.draft.cells[`rise.${name}`] = { text: String(mm), unit: 'mm' }
  for (const [name, by] of Object.entries(filler.at<Record<string, Schemas['Warmth']>>('warmth') ?? {})) {
    filler.draft.cells[`warm.${name}.height`] = { text: String(by.height_mm), unit: 'mm' }
    filler.draft.cells[`warm.${name}.cold`] = { text: String(by.cold_c), unit: 'mm' }
    filler.draft.cells[`warm.${name}.hot`] = { text: String(by.hot_c), unit: 'mm' }
    filler.choice('material', by.material)
  }
}
