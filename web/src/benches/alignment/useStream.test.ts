import { renderHook } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { api, type Schemas } from '../../api/client'
import { useStream } from './useStream'

const READING = { plane: 0, clock: 0, value_mm: 0 }

/** A line so slow that an answer is under way for seconds: what came after the reading asked for, as a server would say. */
function slowLine(here: number[]) {
  vi.useFakeTimers()
  vi.spyOn(api, 'GET').mockImplementation((async (_: string, { params }: { params: { query: { after: number } } }) => {
    const readings = here.filter((id) => id > params.query.after).map((id) => ({ id, ...READING }))
    await new Promise((done) => setTimeout(done, 2_000))
    return { data: { readings, device: 'laser', last_at: null, now: '' }, response: new Response() }
  }) as unknown as typeof api.GET)
}

describe('a stream on a slow line', () => {
  it('is taken once', async () => {
    slowLine([1, 2, 3])
    const taken: number[] = []
    const take = (got: Schemas['StreamOut']) => void taken.push(...got.readings.map((r) => r.id))
    const listening = { isOn: true, jobId: 'j', step: 's', after: () => taken.at(-1) ?? 0, take, onProblem: () => {} }
    renderHook(() => useStream(listening))
    await vi.advanceTimersByTimeAsync(9_000)
    expect(taken).toEqual([1, 2, 3])
  })
  it('that is started anew takes nothing of what was asked before', async () => {
    slowLine([4, 5])
    const taken: number[] = []
    let from = 3
    const take = (got: Schemas['StreamOut']) => void taken.push(...got.readings.map((r) => r.id))
    const listening = { isOn: true, jobId: 'j', step: 's', after: () => from, take, onProblem: () => {} }
    renderHook(() => useStream(listening))
    await vi.advanceTimersByTimeAsync(1_000)
    from = 5
    await vi.advanceTimersByTimeAsync(9_000)
    expect(taken).toEqual([])
  })
})
