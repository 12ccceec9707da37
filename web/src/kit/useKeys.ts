import { useEffect } from 'react'
import { usePreferences } from '../units/preferences'

/**
 * Single keys of a sheet, lower case. None counts while somebody types, a slip is open, or they are switched off; the space
 * bar is a button's own while one has the focus.
 */
export function useKeys(keys: Readonly<Record<string, (() => void) | undefined>>): void {
  const [{ letters }] = usePreferences()
  useEffect(() => {
    if (letters === 'off') return
    const onKey = (event: KeyboardEvent) => {
      const at = event.target instanceof HTMLElement ? event.target : null
      const press = keys[event.key.toLowerCase()]
      if (!press || event.ctrlKey || event.metaKey || event.altKey || at?.closest('input, textarea, label, [role=dialog]'))
        return
      if (event.key === ' ' && at?.closest('button')) return
      event.preventDefault()
      press()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
