import type { Schemas } from '../api/client'
import { type Draft, DraftReader, oneOf, slot } from '../benches/draft'

export type LineSpec = Schemas['LineSpec']
export const SIDES = ['driver', 'driven'] as const
export type Side = (typeof SIDES)[number]
export const MOST_FEET = 4
export const MOVABLE = oneOf<Side, Side>('movable', SIDES, 'driver')
export const POINTS = slot<readonly { energy: string; point: string }[]>('points', [])

/** A line as typed cells. */
export function draftOf(name: string, spec: LineSpec | null): Draft {
  const draft: Draft = {
    cells: {},
    choices: {
      name,
      movable: spec?.movable ?? 'driver',
      family: spec?.coupling.family ?? 'jaw, curved',
      series: spec?.coupling.series ?? '',
      size: spec?.coupling.size ?? '',
      purpose: spec?.purpose ?? '',
      backstop: spec?.backstop ?? false,
      points: (spec?.isolation_points ?? [{ energy: 'electric', point: '' }]).map((p) => ({ ...p })),
    },
  }
  const put = (cell: string, value: number | null | undefined) => {
    if (value !== null && value !== undefined) draft.cells[cell] = { text: String(value), unit: 'mm' }
  }
  put('speed', spec?.speed_rpm)
  put('hours', spec?.hours_a_day)
  for (const side of SIDES) {
    const machine = spec?.[side]
    const hub = spec?.coupling[`${side}_hub`]
    draft.choices[`${side}.name`] = machine?.name ?? (side === 'driver' ? 'Motor' : '')
    draft.choices[`${side}.drawn_as`] = machine?.drawn_as ?? (side === 'driver' ? 'motor' : 'machine')
    draft.choices[`${side}.connection`] = hub?.connection ?? 'keyed, slip fit'
    draft.choices[`${side}.half_key`] = hub?.half_key ?? false
    draft.choices[`${side}.half`] = hub?.half ?? 'flexible'
    draft.choices[`${side}.serial`] = machine?.serial ?? ''
    put(`${side}.power`, machine?.power_kw)
    put(`${side}.shaft`, machine?.shaft_diameter_mm)
    put(`${side}.bolts`, machine?.foot_bolts ?? 4)
    draft.choices[`${side}.floats`] = machine?.floats ?? false
    put(`${side}.hub`, hub?.diameter_mm)
    put(`${side}.hub_length`, hub?.length_mm)
    put(`${side}.screws`, hub?.set_screws ?? 1)
    const feet = machine?.feet ?? []
    feet.forEach((foot, i) => {
      put(`${side}.foot${i}`, foot.from_coupling_mm)
      put(`${side}.rise${i}`, foot.rise_mm)
      draft.choices[`${side}.foot${i}`] = foot.name
    })
    draft.choices[`${side}.feet`] = Math.max(2, feet.length)
  }
  return draft
}

/** A new line made like another one: what is that one's alone is to be entered. */
export function copyOf(spec: LineSpec): Draft {
  const own = (machine: LineSpec['driver']) => ({ ...machine, serial: '' })
  const points = (spec.isolation_points ?? []).map(({ energy }) => ({ energy, point: '' }))
  return draftOf('', { ...spec, driver: own(spec.driver), driven: own(spec.driven), isolation_points: points })
}

/** The one family whose halves may be bolted on as they are. */
export const GEAR = 'gear'

/** The specification the typed cells make, where whatever is missing stays out: the server says what is missing. */
export function specOf(draft: Draft) {
  const reader = new DraftReader(draft)
  const word = (key: string) => String(draft.choices[key] ?? '')
  const machine = (side: Side) => {
    const feet = []
    for (let i = 0; i < Number(draft.choices[`${side}.feet`]); i++) {
      const from = reader.length(`${side}.foot${i}`, `spec.${side}.feet.${feet.length}.from_coupling_mm`)
      const named =
        word(`${side}.foot${i}`).trim() || `${word(`${side}.name`).toLowerCase()} ${FOOT_NAMES[i] ?? `foot ${i + 1}`}`
      const rise = reader.length(`${side}.rise${i}`, `spec.${side}.feet.${feet.length}.rise_mm`)
      if (from !== null) feet.push({ name: named, from_coupling_mm: from, ...(rise !== null && { rise_mm: rise }) })
    }
    const power = reader.number(`${side}.power`, `spec.${side}.power_kw`)
    return dropNulls({
      name: word(`${side}.name`).trim(),
      drawn_as: word(`${side}.drawn_as`),
      serial: word(`${side}.serial`).trim(),
      power_kw: power,
      shaft_diameter_mm: reader.length(`${side}.shaft`, `spec.${side}.shaft_diameter_mm`),
      feet,
      foot_bolts: reader.number(`${side}.bolts`, `spec.${side}.foot_bolts`),
      floats: draft.choices[`${side}.floats`] === true,
    })
  }
  const hub = (side: Side) =>
    dropNulls({
      connection: word(`${side}.connection`),
      half_key: draft.choices[`${side}.half_key`] === true,
      half: word('family') === GEAR ? word(`${side}.half`) : 'flexible',
      diameter_mm: reader.length(`${side}.hub`, `spec.coupling.${side}_hub.diameter_mm`),
      length_mm: reader.length(`${side}.hub_length`, `spec.coupling.${side}_hub.length_mm`),
      set_screws: reader.number(`${side}.screws`, `spec.coupling.${side}_hub.set_screws`),
    })
  const points = POINTS.of(draft).filter((p) => p.energy.trim() || p.point.trim())
  const spec = dropNulls({
    driver: machine('driver'),
    driven: machine('driven'),
    coupling: {
      family: word('family'),
      series: word('series').trim(),
      size: word('size').trim(),
      driver_hub: hub('driver'),
      driven_hub: hub('driven'),
    },
    movable: MOVABLE.of(draft),
    speed_rpm: reader.number('speed', 'spec.speed_rpm'),
    isolation_points: points,
    hours_a_day: reader.number('hours', 'spec.hours_a_day'),
    purpose: word('purpose'),
    backstop: draft.choices.backstop === true,
  })
  return { spec, cellAt: cellOfEveryPath(reader.cellAt), unreadable: reader.unreadable }
}

const FOOT_NAMES = ['drive end', 'tail']

function dropNulls<T extends Record<string, unknown>>(thing: T) {
  return Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== null)) as T
}

/** A missing figure has no path of its own in what was sent: name every cell's path, typed or not. */
function cellOfEveryPath(typed: Record<string, string>) {
  const all: Record<string, string> = { 'spec.speed_rpm': 'speed' }
  for (const side of SIDES) {
    all[`spec.${side}.shaft_diameter_mm`] = `${side}.shaft`
    all[`spec.${side}.foot_bolts`] = `${side}.bolts`
    all[`spec.coupling.${side}_hub.diameter_mm`] = `${side}.hub`
    all[`spec.coupling.${side}_hub.length_mm`] = `${side}.hub_length`
    all[`spec.coupling.${side}_hub.set_screws`] = `${side}.screws`
  }
  return { ...all, ...typed }
}

const USUAL_HUB: LineSpec['coupling']['driver_hub'] = {
  connection: 'keyed, slip fit',
  diameter_mm: 100,
  length_mm: 60,
  set_screws: 1,
  half_key: false,
  half: 'flexible',
}
const USUAL: LineSpec = {
  driver: {
    name: 'Driver',
    drawn_as: 'motor',
    power_kw: null,
    shaft_diameter_mm: 50,
    feet: [],
    foot_bolts: 4,
    serial: '',
    floats: false,
  },
  driven: {
    name: 'Driven',
    drawn_as: 'machine',
    power_kw: null,
    shaft_diameter_mm: 50,
    feet: [],
    foot_bolts: 4,
    serial: '',
    floats: false,
  },
  coupling: {
    family: 'jaw, curved',
    series: '',
    size: '',
    driver_hub: USUAL_HUB,
    driven_hub: USUAL_HUB,
  },
  movable: 'driver',
  speed_rpm: 1500,
  isolation_points: [],
  purpose: '',
  backstop: false,
}

/** A whole specification for the drawing while figures are still missing. */
export function drawable(spec: ReturnType<typeof specOf>['spec']): LineSpec {
  const side = (which: Side) => ({ ...USUAL[which], ...(spec[which] as object) }) as LineSpec['driver']
  return {
    ...USUAL,
    movable: spec.movable,
    coupling: { ...USUAL.coupling, family: spec.coupling.family as LineSpec['coupling']['family'] },
    driver: side('driver'),
    driven: side('driven'),
  }
}
