import 'fake-indexeddb/auto'
import { cleanup } from '@testing-library/react'
import { afterEach, beforeEach, vi } from 'vitest'

/** What a browser has and the page of the tests has not: one holder at a time. */
let held: Promise<unknown> = Promise.resolve()
const request = (_: string, work: () => Promise<unknown>) => {
  held = held.then(work, work)
  return held
}
Object.defineProperty(navigator, 'locks', { value: { request }, configurable: true })

beforeEach(() => {
  held = Promise.resolve()
  localStorage.clear()
})
afterEach(() => {
  cleanup()
  vi.clearAllTimers()
  vi.useRealTimers()
})
