import type { Schemas } from '../../api/client'
import { asRead, clocksOf, type Draft, type DraftFiller, DraftReader, oneOf, type Part, readClock, slot } from '../draft'
import { byTable, type Field, type Given, type Table } from '../table'
import { BRACKET, type DialSetUp, dialsOf, METHOD, METHODS, type Method, POSITIVE, TURNED } from './methods'
import { readThicknesses, USUAL_BOX, writeThicknesses } from './shims'

type Foot = Schemas['Foot']
type Dial = Schemas['Dial']
type Screen = Schemas['Shown']
type Warmth = Schemas['Warmth']
type Room = Schemas['Room']
type Clocked = { clock: number; value_mm: number }[]

const MOST_IN_BOX = 16
const MOST_UNDER = 12
const ENOUGH = 3 // places on each dial from which the core can answer
export const MATERIALS = ['cast iron', 'steel', 'stainless steel', 'aluminium'] as const
export const MATERIAL = oneOf('material', MATERIALS, MATERIALS[0])

/** The streamed readings of one plane, where a laser has sent any. */
export const streamAt = (plane: number) => slot<Clocked>(`stream${plane}`, [])

/** Readings of a dial in sweeps before the one in the cells. */
const keptAt = (dial: string) => slot<Clocked>(`kept.${dial}`, [])

/** How many sweeps are kept beside the one in the cells. */
export const SWEEPS = slot('sweeps', 0)

/** Both machines are moved. */
export const BOTH = slot('both', false)

/** A foot that is not touched. */
export const staysAt = (foot: string) => slot(`stays.${foot}`, false)

/** The shims in the box, and what lies under a foot now, as they were written down. */
export const BOX = slot('box', USUAL_BOX)
export const underAt = (foot: string) => slot(`under.${foot}`, '')

/** Where a face dial usually touches, by the hub of the line. */
const USUAL_RADIUS = slot<number | null>('usual_radius', null)

type SetUpKey = NonNullable<Dial['assumed']>[number]

/** Of the set-up of a dial: its cell, and what is computed with until somebody measured or confirmed it. */
interface Usual {
  key: SetUpKey
  cell: string
  mm: number | null
}

function usualOf(draft: Draft, dial: DialSetUp): Usual[] {
  const usual: Usual[] = [{ key: 'x_mm', cell: `${dial.id}.x`, mm: Number(dial.from) }]
  if (dial.kind === 'face') usual.push({ key: 'radius_mm', cell: `${dial.id}.radius`, mm: USUAL_RADIUS.of(draft) })
  if (dial.kind === 'rim' && dial.sags) usual.push({ key: 'sag_mm', cell: `${dial.id}.sag`, mm: 0 })
  return usual
}

/** What of the set-up of these dials nobody typed: it is assumed until it is. */
export function assumedIn(draft: Draft): (Usual & { mm: number })[] {
  const isTyped = ({ cell }: Usual) => !!draft.cells[cell]?.text.trim()
  return dialsOf(draft)
    .flatMap((dial) => usualOf(draft, dial))
    .flatMap((usual) => (usual.mm === null || isTyped(usual) ? [] : [{ ...usual, mm: usual.mm }]))
}

/** What is assumed, as somebody's word that it is so. */
export function confirmed(draft: Draft): Draft {
  const cells = assumedIn(draft).map(({ cell, mm }) => [cell, { text: String(mm), unit: 'mm' as const }])
  return { ...draft, cells: { ...draft.cells, ...Object.fromEntries(cells) } }
}

/** Keeps what stands in the cells as a sweep and clears them for the next; all sweeps count alike. */
export function nextSweep(draft: Draft): Draft {
  let next = SWEEPS.put(draft, SWEEPS.of(draft) + 1)
  const cells = { ...draft.cells }
  for (const { id } of dialsOf(draft)) {
    const now = readClock(new DraftReader(draft), clocksOf(draft, `${id}.clocks`), `${id}.at`, '')
    next = keptAt(id).put(next, [...keptAt(id).of(draft), ...now])
    for (const { clock } of now) delete cells[`${id}.at${clock}`]
  }
  return { ...next, cells }
}

/** The feet of both machines: of the line, or typed by hand on a bench without one. */
export function feetOf(draft: Draft, preset: Given<'alignment'>): { movable: Foot[]; stationary: Foot[] } {
  if (preset.movable_feet) return { movable: preset.movable_feet, stationary: preset.stationary_feet ?? [] }
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

/** All feet, and of which machines they may be moved. */
function feetFor(draft: Draft, preset: Given<'alignment'>) {
  const { movable, stationary } = feetOf(draft, preset)
  const all = [...movable, ...stationary]
  return { all, moved: BOTH.of(draft) ? all : movable }
}

function readDial(reader: DraftReader, dial: DialSetUp, i: number, path: string): Dial {
  const { draft } = reader
  const streamed = METHOD.of(draft) === 'laser' ? streamAt(i).of(draft) : []
  const at = `${path}.${i}`
  const ring = (where: string, name: string) =>
    readClock(reader, clocksOf(draft, `${dial.id}.clocks`), `${dial.id}.${where}`, `${at}.${name}`)
  const opposite = dial.opposite ? ring('far', 'opposite') : []
  const setUp: Partial<Record<SetUpKey, number | null>> = {}
  const assumed: SetUpKey[] = []
  for (const { key, cell, mm } of usualOf(draft, dial)) {
    const typed = reader.length(cell, `${at}.${key}`)
    setUp[key] = typed ?? mm
    if (typed === null && mm !== null) assumed.push(key)
  }
  return {
    kind: dial.kind,
    bracket_on: dial.bracket_on,
    ...setUp,
    sag_mm: setUp.sag_mm ?? undefined,
    x_mm: setUp.x_mm! * dial.side,
    ...(assumed.length > 0 && { assumed }),
    turned: TURNED.of(draft),
    ...(POSITIVE.of(draft) === 'out' && { positive: 'out' }),
    readings: streamed.length ? streamed : [...ring('at', 'readings'), ...keptAt(dial.id).of(draft)],
    ...(opposite.length > 0 && { opposite }),
  }
}

const DIALS: Field<Dial[], 'alignment'> = {
  read: (reader, path) => {
    const set = dialsOf(reader.draft)
    if (set.length === 0) return undefined
    const dials = set.map((dial, i) => readDial(reader, dial, i, path))
    if (dials.some((dial) => dial.readings.length < ENOUGH)) reader.lack(`Read each dial at ${ENOUGH} places or more.`)
    return dials
  },
  restore: (filler, path, part) => {
    const dials = filler.at<Dial[]>(path) ?? []
    const method = filler.at('shown') ? 'off a screen' : methodOfDials(dials)
    filler.choice(METHOD.key, method)
    filler.choice(TURNED.key, dials[0]?.turned)
    if (method !== 'two rims' && method !== 'laser') filler.choice(BRACKET.key, dials[0]?.bracket_on)
    filler.choice(POSITIVE.key, dials[0]?.positive)
    for (const [i, { id }] of METHODS[method].entries())
      if (dials[i]) restoreDial(filler, dials[i], { id, i, at: `${path}.${i}`, part, isLaser: method === 'laser' })
  },
  start: (hints) => (hints.radius_mm ? { choices: { [USUAL_RADIUS.key]: hints.radius_mm } } : {}),
}

interface DialAt {
  id: string
  i: number
  at: string
  part: Part
  isLaser: boolean
}

function restoreDial(filler: DraftFiller, dial: Dial, { id, i, at, part, isLaser }: DialAt) {
  const isMeasured = (key: SetUpKey) => !dial.assumed?.includes(key)
  if (isMeasured('x_mm')) filler.cell(`${id}.x`, `${at}.x_mm`, (mm) => String(Math.abs(mm)))
  if (isMeasured('radius_mm')) filler.cell(`${id}.radius`, `${at}.radius_mm`)
  if (isMeasured('sag_mm')) filler.cell(`${id}.sag`, `${at}.sag_mm`)
  if (dial.readings.length > (isLaser ? MOST_TYPED_OF_LASER : MOST_TYPED)) {
    if (part === 'all') filler.choice(streamAt(i).key, dial.readings)
    return
  }
  filler.ring(part, `${at}.readings`, { prefix: `${id}.at`, key: `${id}.clocks`, signed: true })
  restoreSweeps(filler, dial.readings, id, part)
  if (part === 'all')
    for (const [n, { clock }] of (dial.opposite ?? []).entries())
      filler.cell(`${id}.far${clock}`, `${at}.opposite.${n}.value_mm`)
}

/** The first reading of each place stands in its cell; what was read there in other sweeps is kept beside. */
function restoreSweeps(filler: DraftFiller, readings: Clocked, id: string, part: Part) {
  const seen = new Set<number>()
  const again = readings.filter(({ clock }) => seen.has(clock) || !seen.add(clock))
  filler.choice(`${id}.clocks`, [...seen])
  if (part !== 'all' || again.length === 0) return
  filler.choice(keptAt(id).key, again)
  filler.choice(SWEEPS.key, Math.max(1, Math.round(again.length / Math.max(1, seen.size))))
  for (const [i, { clock, value_mm }] of readings.entries())
    if (readings.findIndex((r) => r.clock === clock) === i)
      filler.draft.cells[`${id}.at${clock}`] = { text: (value_mm > 0 ? '+' : '') + asRead(value_mm), unit: 'mm' }
}

const MOST_TYPED = 36
const MOST_TYPED_OF_LASER = 12 // more were not typed, but came in a sweep

function methodOfDials(dials: readonly Dial[]): Method {
  if (dials.some((d) => (d.opposite ?? []).length > 0)) return 'rim and two faces'
  if (dials.length === 3) return 'three dials'
  if (dials.some((d) => d.kind === 'face')) return 'rim and face'
  return dials.every((d) => d.bracket_on === 'stationary') ? 'laser' : 'two rims'
}

/** The four figures of another instrument's screen, and where they hold. */
const SHOWN: Field<Screen, 'alignment'> = {
  read: (reader, path) => {
    if (dialsOf(reader.draft).length > 0) return undefined
    const [offset_v_mm, offset_h_mm] = [
      reader.length('shown.ov', `${path}.offset_v_mm`),
      reader.length('shown.oh', `${path}.offset_h_mm`),
    ]
    const slope_v_mm_per_m = reader.slope('shown.sv', `${path}.slope_v_mm_per_m`)
    const slope_h_mm_per_m = reader.slope('shown.sh', `${path}.slope_h_mm_per_m`)
    const x = reader.length('shown.x', `${path}.x_mm`)
    if (offset_v_mm === null || slope_v_mm_per_m === null || offset_h_mm === null || slope_h_mm_per_m === null)
      return reader.lack('Offset and slope in both views.')
    return { offset_v_mm, slope_v_mm_per_m, offset_h_mm, slope_h_mm_per_m, ...(x !== null && { x_mm: x }) }
  },
  restore: (filler, path, part) => {
    if (part === 'all') for (const [cell, name] of Object.entries(SCREEN)) filler.cell(`shown.${cell}`, `${path}.${name}`)
  },
}

const SCREEN = {
  ov: 'offset_v_mm',
  sv: 'slope_v_mm_per_m',
  oh: 'offset_h_mm',
  sh: 'slope_h_mm_per_m',
  x: 'x_mm',
}

/** Rise of a foot as it was measured or as the maker has it. */
const GROWTH: Field<Record<string, number>, 'alignment'> = {
  read: (reader, path, preset) =>
    byFoot(feetFor(reader.draft, preset).all, (name) => reader.length(`rise.${name}`, `${path}.${name}`)),
  restore: (filler, path) => {
    for (const name of Object.keys(filler.at<object>(path) ?? {})) filler.cell(`rise.${name}`, `${path}.${name}`)
  },
}

/** Rise of a foot from its height and temperatures, where no rise was typed. */
const WARMTH: Field<Record<string, Warmth>, 'alignment'> = {
  read: (reader, path, preset) => {
    if (preset.growth) return undefined
    return byFoot(feetFor(reader.draft, preset).all, (name) => {
      const height_mm = reader.length(`warm.${name}.height`, `${path}.${name}.height_mm`)
      const cold_c = reader.temperature(`warm.${name}.cold`, `${path}.${name}.cold_c`)
      const hot_c = reader.temperature(`warm.${name}.hot`, `${path}.${name}.hot_c`)
      const isTyped = reader.length(`rise.${name}`, `growth.${name}`) !== null
      if (isTyped || height_mm === null || cold_c === null || hot_c === null) return null
      return { height_mm, cold_c, hot_c, material: MATERIAL.of(reader.draft) }
    })
  },
  restore: (filler, path) => {
    for (const [name, { material }] of Object.entries(filler.at<Record<string, Warmth>>(path) ?? {})) {
      filler.cell(`warm.${name}.height`, `${path}.${name}.height_mm`)
      filler.cell(`warm.${name}.cold`, `${path}.${name}.cold_c`)
      filler.cell(`warm.${name}.hot`, `${path}.${name}.hot_c`)
      filler.choice(MATERIAL.key, material)
    }
  },
}

const WAYS = ['shim', 'left', 'right'] as const

/** Room typed at any foot, or the wish to move both machines, asks for a plan. */
const ROOM: Field<Record<string, Room>, 'alignment'> = {
  read: (reader, path, preset) =>
    byFoot(feetFor(reader.draft, preset).moved, (name) => {
      const has: Room = {}
      for (const way of WAYS) {
        const mm = reader.length(`room.${name}.${way}`, `${path}.${name}.${way}_mm`)
        if (mm !== null) has[`${way}_mm`] = mm
      }
      if (staysAt(name).of(reader.draft)) return { stays: true }
      return BOTH.of(reader.draft) || Object.keys(has).length > 0 ? has : null
    }),
  restore: (filler, path) => {
    const room = filler.at<Record<string, Room>>(path) ?? {}
    for (const [name, has] of Object.entries(room)) {
      if (has.stays) filler.choice(staysAt(name).key, true)
      for (const way of WAYS) filler.cell(`room.${name}.${way}`, `${path}.${name}.${way}_mm`)
    }
    if ((filler.at<Foot[]>('stationary_feet') ?? []).some((foot) => foot.name in room)) filler.choice(BOTH.key, true)
  },
}

/** What lies in the shim box, and under each foot now. */
const SHIMS: Field<Schemas['ShimBox'], 'alignment'> = {
  read: (reader, path, preset) => {
    const read = (line: string, at: string, most: number) =>
      readThicknesses(line)
        .slice(0, most)
        .map(({ mm, typed }, i) => {
          if (typed !== null) reader.typed[`${at}.${i}`] = typed
          return mm
        })
    const box_mm = read(BOX.of(reader.draft), `${path}.box_mm`, MOST_IN_BOX)
    if (box_mm.length === 0) return undefined
    const under = byFoot(feetFor(reader.draft, preset).all, (name) => {
      const pieces = read(underAt(name).of(reader.draft), `${path}.under.${name}`, MOST_UNDER)
      return pieces.length > 0 ? pieces : null
    })
    return { box_mm, ...(under && { under }) }
  },
  restore: (filler, path) => {
    const line = (at: string, pieces: number[]) => writeThicknesses(pieces, (i) => filler.typedAt(`${at}.${i}`))
    const box = filler.at<number[]>(`${path}.box_mm`)
    if (box) filler.choice(BOX.key, line(`${path}.box_mm`, box))
    for (const [name, pieces] of Object.entries(filler.at<Record<string, number[]>>(`${path}.under`) ?? {}))
      filler.choice(underAt(name).key, line(`${path}.under.${name}`, pieces))
  },
}

/** What each foot has, by its name; undefined where none has anything. */
function byFoot<V>(feet: readonly Foot[], has: (name: string) => V | null): Record<string, V> | undefined {
  const found: Record<string, V> = {}
  for (const { name } of feet) {
    const value = has(name)
    if (value !== null) found[name] = value
  }
  return Object.keys(found).length > 0 ? found : undefined
}

const FIELDS = {
  dials: DIALS,
  shown: SHOWN,
  movable_feet: {
    read: (reader, _, preset) => {
      const { movable } = feetOf(reader.draft, preset)
      return movable.length > 0 ? movable : reader.lack('Enter the distances of the movable machine’s feet.')
    },
    restore: () => undefined,
  },
  stationary_feet: { read: (reader, _, preset) => feetOf(reader.draft, preset).stationary, restore: () => undefined },
  growth: GROWTH,
  warmth: WARMTH,
  room: ROOM,
  shims: SHIMS,
} satisfies Table<Given<'alignment'>, 'alignment'>

export const { start, read, restore } = byTable<'alignment'>(FIELDS)
