import { useSyncExternalStore } from 'react'

/** A value outside the components that they follow as it changes. */
export function followed<T>(first: T) {
  let now = first
  const listeners = new Set<() => void>()
  const follow = (listen: () => void) => {
    listeners.add(listen)
    return () => listeners.delete(listen)
  }
  return {
    get: () => now,
    set: (next: T) => {
      now = next
      for (const listen of listeners) listen()
    },
    /** What `of` takes out of it; it must give the same while nothing has changed. */
    use: <P>(of: (now: T) => P) => useSyncExternalStore(follow, () => of(now)),
  }
}
