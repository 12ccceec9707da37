import { useEffect } from 'react'

const USED = ['pointerdown', 'keydown'] as const
const LOOK_EVERY_MS = 10_000

/** Calls `onIdle` once nobody has touched this device for so many minutes; also where it slept meanwhile. */
export function useIdleLock(minutes: number | null, onIdle: () => void) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the watch begins anew only with another rule
  useEffect(() => {
    if (minutes === null) return
    let last = Date.now()
    const used = () => {
      last = Date.now()
    }
    const look = () => {
      if (Date.now() - last < minutes * 60_000) return
      last = Date.now()
      onIdle()
    }
    for (const event of USED) window.addEventListener(event, used, true)
    const timer = setInterval(look, LOOK_EVERY_MS)
    return () => {
      clearInterval(timer)
      for (const event of USED) window.removeEventListener(event, used, true)
    }
  }, [minutes])
}
