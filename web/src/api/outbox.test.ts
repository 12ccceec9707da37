import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Parcel } from './outbox'

const server = vi.fn<typeof fetch>()
const answer = (status: number, message: string) =>
  Response.json(status < 400 ? {} : { errors: [{ path: '', message }] }, { status })
const parcel = (id: string, more: Partial<Parcel> = {}): Parcel => ({
  id,
  jobId: 'j',
  to: 'entries',
  step: 's',
  body: { step: 's', inputs: {} },
  ...more,
})
const sent = () => server.mock.calls.map(([, init]) => JSON.parse(String(init!.body)))
const kept = () =>
  Object.keys(localStorage)
    .filter((key) => key.startsWith('anvil.outbox.'))
    .map((key) => JSON.parse(localStorage.getItem(key)!))
const AGAIN_MS = 2_000

/** The outbox as a window has it that was just opened. */
async function opened() {
  vi.resetModules()
  return await import('./outbox')
}

beforeEach(() => {
  vi.useFakeTimers({ now: new Date('2026-05-04T10:00:00Z') })
  server.mockReset()
  vi.stubGlobal('fetch', server)
})

describe('what is entered', () => {
  it('goes, and is no longer kept', async () => {
    server.mockImplementation(async () => answer(201, ''))
    const { append } = await opened()
    await append(parcel('a'))
    expect(kept()).toEqual([])
  })
  it.each([500, 502, 503])('stays on the device when the answer is %i, and goes when the server is well', async (status) => {
    server.mockImplementationOnce(async () => answer(status, 'The database does not answer.'))
    const { append } = await opened()
    const done = append(parcel('a'))
    await vi.advanceTimersByTimeAsync(0)
    expect(kept()).toMatchObject([{ id: 'a', waits: 'The database does not answer.' }])
    server.mockImplementation(async () => answer(201, ''))
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    await done
    expect(kept()).toEqual([])
  })
  it('keeps the reason why it waits: after a reload and in another window it is said as well', async () => {
    server.mockRejectedValue(new TypeError('no network'))
    const { append } = await opened()
    void append(parcel('a'))
    await vi.advanceTimersByTimeAsync(0)
    expect(kept()).toMatchObject([{ id: 'a', waits: 'The server cannot be reached.' }])
  })
  it('that stands behind what could not go waits as well, and is not taken for being on its way', async () => {
    server.mockRejectedValue(new TypeError('no network'))
    const { append } = await opened()
    void append(parcel('a'))
    void append(parcel('b'))
    await vi.advanceTimersByTimeAsync(0)
    expect(kept().map((p) => p.waits)).toEqual(['The server cannot be reached.', 'The server cannot be reached.'])
  })
  it('is sent by the next window where this one was closed', async () => {
    server.mockRejectedValue(new TypeError('no network'))
    const first = await opened()
    void first.append(parcel('a'))
    await vi.advanceTimersByTimeAsync(0)
    vi.clearAllTimers() // closed
    server.mockReset()
    server.mockImplementation(async () => answer(201, ''))
    await opened()
    await vi.advanceTimersByTimeAsync(0)
    expect(sent().map((body) => body.id)).toEqual(['a'])
    expect(kept()).toEqual([])
  })
  it('goes in the order it was entered', async () => {
    server.mockRejectedValueOnce(new TypeError('no network'))
    const { append } = await opened()
    void append(parcel('a'))
    await vi.advanceTimersByTimeAsync(1_000)
    server.mockImplementation(async () => answer(201, ''))
    await append(parcel('b'))
    expect(sent().map((body) => body.id)).toEqual(['a', 'a', 'b'])
  })
  it('is given up only where the app itself refuses it, and whoever entered it is told', async () => {
    server.mockImplementation(async () => answer(409, 'First: Lock and tag'))
    const { append } = await opened()
    await expect(append(parcel('a'))).rejects.toThrow('First: Lock and tag')
    expect(kept()).toEqual([])
  })
  it('that is refused when nobody is there to be told lies in the tray until it is entered again or discarded', async () => {
    server.mockRejectedValue(new TypeError('no network'))
    const first = await opened()
    void first.append(parcel('a'))
    void first.append(parcel('b'))
    await vi.advanceTimersByTimeAsync(0)
    vi.clearAllTimers() // closed
    server.mockReset()
    server.mockImplementation(async () => answer(409, 'First: Lock and tag'))
    const { discard, enterAgain, notSent, notTaken } = await opened()
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    expect(kept().map((p) => [p.id, p.refused])).toEqual([
      ['a', 'First: Lock and tag'],
      ['b', 'First: Lock and tag'],
    ])
    expect(server).toHaveBeenCalledTimes(2) // a refusal is not tried again by itself
    expect([notTaken(kept()).length, notSent(kept()).length]).toEqual([2, 0])
    discard(kept().find((p) => p.id === 'b'))
    server.mockImplementation(async () => answer(201, ''))
    await enterAgain(kept()[0])
    expect(kept()).toEqual([])
    expect(sent().at(-1).inputs).toEqual({})
    expect(sent().at(-1).id).not.toBe('a')
  })
  it('that the server falls over again and again keeps only its own job waiting', async () => {
    server.mockImplementation(async (_, init) => {
      return JSON.parse(String(init!.body)).id === 'a' ? answer(500, 'The server answered 500.') : answer(201, '')
    })
    const { append } = await opened()
    void append(parcel('a', { jobId: 'damaged' }))
    void append(parcel('b', { jobId: 'damaged' }))
    await append(parcel('c', { jobId: 'sound' }))
    expect(kept().map((p) => p.id)).toEqual(['a', 'b'])
  })
  it('is sent with how long ago it happened, so that a late one does not shift it', async () => {
    server.mockRejectedValueOnce(new TypeError('no network'))
    const { append } = await opened()
    void append(parcel('a', { happenedAt: Date.now() }))
    await vi.advanceTimersByTimeAsync(0)
    server.mockImplementation(async () => answer(201, ''))
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    expect(sent().map((body) => body.inputs.ago_s)).toEqual([0, 2])
  })
})
