import type { Schemas } from '../api/client'
import type { Result } from '../benches/bench'
import { type Draft, type DraftReader, slot } from '../benches/draft'
import type { Given, Hints, ResultOf } from '../benches/table'
import { type LengthUnit, showLength } from '../units/length'
import { isBench, type Step } from './context'

type FootMoved = Schemas['FootMoved']

/** A reading that a move goes by. */
export interface Read {
  result: Result
  inputs: object | null
}

/** Where a machine is shimmed or slid, and what the reading says it has to do there. */
export interface Place {
  name: string
  machine: 'movable' | 'stationary'
  planned: { shim_mm: number; slide_mm: number | null } | null
  /** Two feet side by side, where one alone may get a shim; a foot of the soft-foot sheet is one. */
  pair: boolean
}

export interface Plan {
  places: Place[]
  axial_mm: number | null
  slides: boolean
}

const SIDES = ['9', '3'] as const
/** Places whose two feet get shims of their own. */
export const EACH = slot<readonly string[]>('each', [])

const isAirGap = (read: Read): read is Read & { result: ResultOf<'airgap'> } => read.result.bench === 'airgap'
const isSoftFoot = (read: Read): read is Read & { result: ResultOf<'softfoot'> } => read.result.bench === 'softfoot'
/** Whether it is dials or a laser that the move goes by. */
export const isAlignment = (read: Read): read is { result: ResultOf<'alignment'>; inputs: Given<'alignment'> | null } =>
  read.result.bench === 'alignment'

/** The places a machine is moved at from this step, with what the reading says of each; along the shaft too where it knows. */
export function planOf(read: Read | null, step: Step, spec: Schemas['LineSpec']): Plan {
  const each = { machine: 'movable', planned: null, pair: true } as const
  if (isBench(step) && step.form.bench === 'softfoot') {
    const soft = read && isSoftFoot(read) ? read.result : null
    const names = soft?.feet.map((foot) => foot.name) ?? (step.form.suggest as Hints<'softfoot'>).feet ?? []
    const shim = (name: string) => soft?.feet.find((foot) => foot.name === name)?.shim_mm ?? 0
    const places = names.map((name) => ({
      ...each,
      name,
      planned: shim(name) ? { shim_mm: shim(name), slide_mm: null } : null,
      pair: false,
    }))
    return { places, axial_mm: null, slides: false }
  }
  if (read && isAlignment(read) && read.result.suggested.length > 0) {
    const places = read.result.suggested.map(({ name, machine, shim_mm, slide_mm }) => ({
      name,
      machine: machine === 'stationary' ? ('stationary' as const) : ('movable' as const),
      planned: { shim_mm, slide_mm },
      pair: true,
    }))
    return { places, axial_mm: null, slides: true }
  }
  if (read && isAirGap(read)) {
    const places = read.result.feet.map((foot) => ({
      ...each,
      name: foot.name,
      planned: { shim_mm: foot.shim_known ? foot.shim_mm : 0, slide_mm: foot.slide_known ? foot.slide_mm : 0 },
    }))
    return { places, axial_mm: read.result.slide_axial_mm, slides: true }
  }
  const places = spec[spec.movable].feet.map(({ name }) => ({ ...each, name }))
  return { places, axial_mm: null, slides: true }
}

/** The plan, in the cells, as it is shown beside them. */
export function asCells({ places, axial_mm }: Plan, unit: LengthUnit): Draft {
  const cells: Draft['cells'] = {}
  const shown = (mm: number) => ({ text: showLength(mm, unit).replace('−', '-'), unit })
  if (axial_mm !== null) cells.axial = shown(axial_mm)
  for (const [i, { planned }] of places.entries()) {
    if (!planned) continue
    cells[`shim${i}`] = shown(planned.shim_mm)
    if (planned.slide_mm !== null) cells[`slide${i}`] = shown(planned.slide_mm)
  }
  return { cells, choices: {} }
}

/** The two feet of a place, in the order they are written down. */
export const feetAt = (place: Place) => SIDES.map((side) => ({ side, name: `${place.name}, ${side} side` }))

/** A place opened for its two feet, each with the shim that was for both; or closed again. */
export function withEach(draft: Draft, i: number, place: Place): Draft {
  const now = EACH.of(draft)
  if (now.includes(place.name))
    return EACH.put(
      draft,
      now.filter((name) => name !== place.name),
    )
  const both = draft.cells[`shim${i}`]
  const cells = { ...draft.cells }
  if (both) for (const { side } of feetAt(place)) cells[`shim${i}.${side}`] = both
  return EACH.put({ ...draft, cells }, [...now, place.name])
}

/** What was done: foot by foot as it is recorded, and place by place as the machine moves with it. */
export function readMove(reader: DraftReader, { places }: Plan): { feet: FootMoved[]; made: Schemas['PlannedMove'][] } {
  const feet: FootMoved[] = []
  const made: Schemas['PlannedMove'][] = []
  for (const [i, place] of places.entries()) {
    const { name, machine, planned } = place
    const split = place.pair && EACH.of(reader.draft).includes(name)
    const cells = split ? feetAt(place).map((foot) => [foot.name, `shim${i}.${foot.side}`]) : [[name, `shim${i}`]]
    const moved = { name, machine, shim_mm: 0, slide_mm: 0 }
    for (const [foot, cell] of cells) {
      const [shim, slide] = [[cell!, 'shim_mm'] as const, [`slide${i}`, 'slide_mm'] as const].map(([from, to]) =>
        reader.length(from, `feet.${feet.length}.${to}`),
      )
      moved.shim_mm += (shim ?? 0) / cells.length
      moved.slide_mm = slide ?? 0
      if (shim === null && slide === null && !planned) continue
      const plan = { shim_planned_mm: planned?.shim_mm ?? null, slide_planned_mm: planned?.slide_mm ?? null }
      feet.push({ name: foot!, shim_mm: shim ?? 0, slide_mm: slide ?? 0, ...plan })
    }
    made.push(moved)
  }
  return { feet, made }
}

/** Whether the plan has anything to do. */
export const hasWork = ({ places, axial_mm }: Plan) =>
  Boolean(axial_mm) || places.some(({ planned }) => planned && Boolean(planned.shim_mm || planned.slide_mm))
