import { createStore, values } from 'idb-keyval'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Kept, Parcel } from './outbox'

const server = vi.fn<typeof fetch>()
const answer = (status: number, message: string) =>
  Response.json(status < 400 ? {} : { errors: [{ path: '', message }] }, { status })
const parcel = (id: string, more: Partial<Parcel> = {}): Parcel => ({
  id,
  jobId: 'j',
  step: 's',
  body: { step: 's', kind: 'note', inputs: { text: 'n' } },
  ...more,
})
const sent = () => server.mock.calls.map(([, init]) => JSON.parse(String(init!.body)))
const AGAIN_MS = 2_000

let store: ReturnType<typeof createStore>
const kept = async () => (await values<Kept>(store)).sort((a, b) => a.at - b.at)
/** On this device, once what is under way is through. */
const expectKept = (what: object[]) => vi.waitFor(async () => expect(await kept()).toMatchObject(what))

/** The outbox as a window has it that was just opened. */
async function opened() {
  vi.resetModules()
  const outbox = await import('./outbox')
  await outbox.openOutbox()
  return outbox
}

const close = () => vi.clearAllTimers()
const away = () => server.mockRejectedValue(new TypeError('no network'))
const well = () => server.mockReset().mockImplementation(async () => answer(201, ''))

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
  store = createStore('anvil-outbox', 'parcels')
  // The database's own clock goes on.
  vi.useFakeTimers({
    now: new Date('2026-05-04T10:00:00Z'),
    shouldAdvanceTime: true,
    toFake: ['setTimeout', 'clearTimeout', 'Date'],
  })
  server.mockReset()
  vi.stubGlobal('fetch', server)
})

describe('what is entered', () => {
  it('goes, and is no longer kept', async () => {
    well()
    const { append } = await opened()
    expect(await append(parcel('a'))).toBe('stands')
    await expectKept([])
  })
  it.each([500, 502, 503])('stays on the device when the answer is %i, and goes when the server is well', async (status) => {
    server.mockImplementation(async () => answer(status, 'The database does not answer.'))
    const { append } = await opened()
    expect(await append(parcel('a'))).toBe('kept')
    await expectKept([{ id: 'a', waits: 'The database does not answer.' }])
    well()
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    await expectKept([])
  })
  it('that stands behind what could not go waits as well, with the reason, and is not taken for being on its way', async () => {
    away()
    const { append } = await opened()
    const outcomes = await Promise.all([append(parcel('a')), append(parcel('b'))])
    expect(outcomes).toEqual(['kept', 'kept'])
    await expectKept([
      { id: 'a', waits: 'The server cannot be reached.' },
      { id: 'b', waits: 'The server cannot be reached.' },
    ])
  })
  it('is sent by the next window where this one was closed, in the order it was entered, though the clock was set back', async () => {
    away()
    const first = await opened()
    await first.append(parcel('b'))
    vi.setSystemTime(new Date('2026-05-04T09:00:00Z'))
    await first.append(parcel('a'))
    close()
    well()
    await opened()
    await expectKept([])
    expect(sent().map((body) => body.id)).toEqual(['b', 'a'])
  })
  it('is given up only where the app itself refuses it, and whoever entered it is told', async () => {
    server.mockImplementation(async () => answer(409, 'First: Lock and tag'))
    const { append } = await opened()
    await expect(append(parcel('a'))).rejects.toThrow('First: Lock and tag')
    await expectKept([])
  })
  it('that is refused when nobody is there to be told lies in the tray until it is entered again or discarded', async () => {
    away()
    const first = await opened()
    await first.append(parcel('a'))
    await first.append(parcel('b'))
    close()
    server.mockReset().mockImplementation(async () => answer(409, 'First: Lock and tag'))
    const { discard, enterAgain, notSent, notTaken } = await opened()
    await expectKept([
      { id: 'a', refused: 'First: Lock and tag' },
      { id: 'b', refused: 'First: Lock and tag' },
    ])
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    expect(server).toHaveBeenCalledTimes(2) // a refusal is not tried again by itself
    const [a, b] = await kept()
    expect([notTaken([a!, b!]).length, notSent([a!, b!]).length]).toEqual([2, 0])
    await discard(b!)
    well()
    await enterAgain(a!)
    await expectKept([])
    expect(sent().map((body) => body.id)).toEqual(['a'])
  })
  it('of a round goes to the rounds with how long ago it was read, and entered again is as it was read', async () => {
    away()
    const first = await opened()
    const inputs = { line_id: 'l', wear_mm: 4, note: '', typed: {}, unit: 'mm' as const, confirmed: false }
    const body = { kind: 'look' as const, step: 'Crusher', inputs }
    await first.append(parcel('a', { body, happenedAt: Date.now() }))
    close()
    vi.setSystemTime(new Date('2026-05-04T10:10:00Z'))
    server.mockReset().mockImplementation(async () => answer(422, 'It does not grow back.'))
    const { enterAgain } = await opened()
    await expectKept([{ id: 'a', refused: 'It does not grow back.' }])
    expect(server.mock.calls[0]![0]).toBe('/api/rounds/looks')
    expect(sent()[0]).toMatchObject({ line_id: 'l', wear_mm: 4, confirmed: false })
    expect(sent()[0].ago_s).toBeGreaterThan(590)
    well()
    await enterAgain((await kept())[0]!)
    await expectKept([])
    expect(sent().at(-1)).toMatchObject({ id: 'a', confirmed: true })
  })
  it('is not given up where something between here and the server says no', async () => {
    server.mockImplementation(async () => new Response('<h1>Too large</h1>', { status: 413 }))
    const { append } = await opened()
    expect(await append(parcel('a'))).toBe('kept')
    await expectKept([{ id: 'a', waits: 'The server answered 413.' }])
    well()
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    await expectKept([])
  })
  it('that the server falls over again and again keeps only its own job waiting', async () => {
    server.mockImplementation(async (_, init) => {
      return JSON.parse(String(init!.body)).id === 'a' ? answer(500, 'The server answered 500.') : answer(201, '')
    })
    const { append } = await opened()
    await append(parcel('a', { jobId: 'damaged' }))
    await append(parcel('b', { jobId: 'damaged' }))
    expect(await append(parcel('c', { jobId: 'sound' }))).toBe('stands')
    await expectKept([{ id: 'a' }, { id: 'b' }])
  })
  it('is sent with how long ago it happened, so that a late one does not shift it', async () => {
    away()
    const { append } = await opened()
    await append(parcel('a', { happenedAt: Date.now() }))
    well()
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    await expectKept([])
    expect(sent().at(-1).inputs.ago_s).toBeGreaterThanOrEqual(AGAIN_MS / 1000)
    expect(sent().at(-1).inputs.ago_s).toBeLessThan(60)
  })
  it('takes what was typed off the sheet when it stands in the job, but not what was typed on top of it', async () => {
    well()
    const { append } = await opened()
    const { keepDraft, readDrafts, useKeptDraft } = await import('./drafts')
    const { renderHook } = await import('@testing-library/react')
    const onSheet = () => renderHook(() => useKeptDraft('j.s')).result.current
    await readDrafts()
    keepDraft('j.s', { cells: { gap: '30.4' } })
    await append(parcel('a', { typedAt: { place: 'j.s', draft: { cells: { gap: '30.4' } } } }))
    expect(onSheet()).toBeNull()
    keepDraft('j.s', { cells: { gap: '30.5' } })
    await append(parcel('b', { typedAt: { place: 'j.s', draft: { cells: { gap: '30.4' } } } }))
    expect(onSheet()).toEqual({ cells: { gap: '30.5' } })
  })
})
