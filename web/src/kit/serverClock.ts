import { useEffect, useRef, useState } from 'react'

const TICK_MS = 250

/**
 * The server's time in milliseconds, ticking. `at` is what the server said when it last answered: this device's own
 * clock may be wrong, so only the time passed since then is taken from it.
 */
export function useServerNow(at: string): number {
  const offset = useRef(0)
  const [, tick] = useState(0)
  useEffect(() => {
    offset.current = Date.parse(at) - Date.now()
  }, [at])
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), TICK_MS)
    return () => clearInterval(timer)
  }, [])
  return Date.now() + offset.current
}

/** Seconds from now until a moment; negative when it has passed. */
export function sinceNow(at: string, now: number): number {
  return (Date.parse(at) - now) / 1000
}
