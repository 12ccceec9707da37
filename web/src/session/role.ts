import type { Schemas } from '../api/client'

export type Role = Schemas['Role']
const ORDER: Role[] = ['apprentice', 'millwright', 'lead']

/** Whether a role includes what another may do. */
export function mayActAs(role: Role | undefined, wanted: Role): boolean {
  return role !== undefined && ORDER.indexOf(role) >= ORDER.indexOf(wanted)
}
