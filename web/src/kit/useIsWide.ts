import { useSyncExternalStore } from 'react'

const WIDE = '(min-width: 1024px)' // room for cells on a drawing of a whole line

/** Whether there is room to type on a drawing. */
export function useIsWide(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(WIDE)
      query.addEventListener('change', changed)
      return () => query.removeEventListener('change', changed)
    },
    () => window.matchMedia(WIDE).matches,
  )
}
