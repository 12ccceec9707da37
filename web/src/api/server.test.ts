import { describe, expect, it } from 'vitest'
import { Refused } from './client'
import { heard, isServerAway } from './server'

const answer = (status: number, headers: Record<string, string> = {}) => new Response('', { status, headers })

describe('the server', () => {
  it('is away where it does not answer, and there where it falls over one thing', () => {
    for (const [response, away] of [
      [null, true],
      [answer(500), true],
      [answer(500, { 'X-Fault': '3f2a91c0' }), false],
      [answer(503), true],
      [answer(200), false],
    ] as const) {
      heard(response)
      expect(isServerAway()).toBe(away)
    }
  })
  it('is not said to be out of reach where it says itself that it fell over something', () => {
    const fell = new Refused(500, [{ path: '', message: 'Job 21 cannot be shown.' }])
    expect([fell.isFault, fell.unreachable]).toEqual([true, false])
    expect(new Refused(500, [], false).unreachable).toBe(true)
  })
})
