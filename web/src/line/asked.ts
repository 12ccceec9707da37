import type { Schemas } from '../api/client'

type Catalogue = Schemas['CatalogueOut']

/** The lines of the value card a coupling asks for: what holds its hubs, then its family. */
export function askedBy(catalogue: Catalogue | undefined, family: string, held: readonly string[]): string[] {
  const ofFamily = catalogue?.asked_by_family[family]
  if (!catalogue || !ofFamily) return []
  return [...new Set([...held.flatMap((h) => catalogue.asked_by_connection[h] ?? []), ...ofFamily])]
}

/** The lines no paper has to give; with a figure there the route goes by it. */
export function mayHave(catalogue: Catalogue | undefined, family: string): string[] {
  return catalogue?.may_have_by_family[family] ?? []
}

/** The lines both hubs ask for, so that one of them may have its own figure. */
export function ofBothHubs(catalogue: Catalogue | undefined, held: readonly string[]): string[] {
  const [first = [], second = []] = held.map((h) => catalogue?.asked_by_connection[h] ?? [])
  return first.filter((key) => second.includes(key))
}

/** How the two hubs of a coupling are held. */
export const heldIn = (coupling: Schemas['Coupling']) => [coupling.driver_hub.connection, coupling.driven_hub.connection]
