import { cleanup } from '@testing-library/react'
import { afterEach, beforeEach, vi } from 'vitest'

beforeEach(() => localStorage.clear())
afterEach(() => {
  cleanup()
  vi.clearAllTimers()
  vi.useRealTimers()
})
