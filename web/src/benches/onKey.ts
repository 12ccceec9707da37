import { useEffect } from 'react'

/**
 * Keys of a bench, lower case. None counts while somebody types or a slip is open; the space bar is a button's own while
 * one has the focus.
 */
export function useBenchKeys(keys: Readonly<Record<string, (() => void) | undefined>>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const at = event.target instanceof HTMLElement ? event.target : null
      const press = keys[event.key.toLowerCase()]
      if (!press || event.ctrlKey || event.metaKey || at?.closest('input, textarea, label, [role=dialog]')) return
      if (event.key === ' ' && at?.closest('button')) return
      event.preventDefault()
      press()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
