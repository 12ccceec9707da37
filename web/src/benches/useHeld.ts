import { useEffect, useState } from 'react'

/** What is said, held still from a finger's going down until it is up: a button must not move away from under it. */
export function useHeld<T>(now: T): { held: T; onPointerDown: () => void } {
  const [held, setHeld] = useState<{ said: T } | null>(null)
  useEffect(() => {
    if (!held) return
    // After the click that follows, which is aimed where the button still is.
    const letGo = () => setTimeout(() => setHeld(null))
    window.addEventListener('pointerup', letGo, true)
    window.addEventListener('pointercancel', letGo, true)
    return () => {
      window.removeEventListener('pointerup', letGo, true)
      window.removeEventListener('pointercancel', letGo, true)
    }
  }, [held])
  return { held: held ? held.said : now, onPointerDown: () => setHeld({ said: now }) }
}
