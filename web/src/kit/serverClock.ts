import { useEffect, useState } from 'react'
import { isServerAway } from '../api/server'

const TICK_MS = 250
const KEY = 'anvil.clock'

/** What is added to this device's clock to have the server's: its own may be wrong. Kept for a start without a server. */
let offset = Number(localStorage.getItem(KEY) ?? 0)

/** The server's time in milliseconds, ticking. `at` is what the server said when it last answered. */
export function useServerNow(at: string): number {
  const [, tick] = useState(0)
  useEffect(() => {
    if (isServerAway()) return // what it says now is what it said then
    offset = Date.parse(at) - Date.now()
    localStorage.setItem(KEY, String(offset))
  }, [at])
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), TICK_MS)
    return () => clearInterval(timer)
  }, [])
  return Date.now() + offset
}

/** A moment by this device's clock, as the server would write it. */
export function byServerClock(ms: number): string {
  return new Date(ms + offset).toISOString()
}

/** Seconds from now until a moment; negative when it has passed. */
export function sinceNow(at: string, now: number): number {
  return (Date.parse(at) - now) / 1000
}
