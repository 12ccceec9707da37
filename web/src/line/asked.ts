import type { Schemas } from '../api/client'

type Catalogue = Schemas['CatalogueOut']

/** What of a line decides on the lines of its value card. */
interface Asks {
  family: string
  /** How its hubs are held. */
  held: readonly string[]
  /** Of those hubs, how the ones with set screws are held. */
  screwed: readonly string[]
  /** What the driven machine is drawn as. */
  drives: string
  backstop: boolean
}

/** The lines of the value card a line asks for: what holds its hubs, its family, its machine, its backstop. */
export function askedBy(catalogue: Catalogue | undefined, { family, held, screwed, drives, backstop }: Asks): string[] {
  const ofFamily = catalogue?.asked_by_family[family]
  if (!catalogue || !ofFamily) return []
  return [
    ...new Set([
      ...held.flatMap((h) => catalogue.asked_by_connection[h] ?? []),
      ...screwed.flatMap((h) => catalogue.asked_with_set_screws[h] ?? []),
      ...ofFamily,
      ...(catalogue.asked_by_machine[drives] ?? []),
      ...(backstop ? catalogue.asked_with_backstop : []),
    ]),
  ]
}

/** What a line that is registered asks for. */
export const asksOf = (spec: Schemas['LineSpec']): Asks => ({
  family: spec.coupling.family,
  held: heldIn(spec.coupling),
  screwed: [spec.coupling.driver_hub, spec.coupling.driven_hub]
    .filter((hub) => hub.set_screws > 0)
    .map((hub) => hub.connection),
  drives: spec.driven.drawn_as,
  backstop: spec.backstop,
})

/** The lines no paper has to give; with a figure there the route goes by it. */
export function mayHave(catalogue: Catalogue | undefined, family: string): string[] {
  return catalogue?.may_have_by_family[family] ?? []
}

/** The lines both hubs ask for, so that one of them may have its own figure. */
export function ofBothHubs(catalogue: Catalogue | undefined, held: readonly string[]): string[] {
  const [first = [], second = []] = held.map((h) => [
    ...(catalogue?.asked_by_connection[h] ?? []),
    ...(catalogue?.asked_with_set_screws[h] ?? []),
  ])
  return first.filter((key) => second.includes(key))
}

/** How the two hubs of a coupling are held. */
export const heldIn = (coupling: Schemas['Coupling']) => [coupling.driver_hub.connection, coupling.driven_hub.connection]
