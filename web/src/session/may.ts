import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { sessionOptions } from '../api/queries'

/** Whether this is for whoever is signed in to do, as the server says. */
export function useMay(deed: Schemas['Deed']): boolean {
  return useQuery(sessionOptions).data?.may.includes(deed) ?? false
}
