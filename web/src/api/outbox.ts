import { notifyManager } from '@tanstack/react-query'
import { createStore, del, set, values } from 'idb-keyval'
import { type Problem, post, Refused, type Schemas } from './client'
import { dropEntered } from './drafts'
import { followed } from './followed'
import { queryClient, sessionOptions } from './queries'
import { serverBack } from './server'

type Without<T, K extends string> = T extends unknown ? Omit<T, K> : never
/** What a round read of a line. It is no entry of a job: `step` is the name of the line, for the tray. */
interface LookBody {
  kind: 'look'
  step: string
  inputs: Omit<Schemas['LookIn'], 'id' | 'by' | 'ago_s'>
}
/** What is entered; who enters it, and its id, go with the parcel. */
export type Body = Without<Schemas['EntryIn'], 'id' | 'by'> | LookBody

/** Something to append to a job, or to the rounds of a line: `jobId` is then the line's. Its id is made here, so that sending it twice never doubles it. */
export interface Parcel {
  id: string
  jobId: string
  step: string
  body: Body
  /** For what happened at a moment: when, by this device's clock. Sent as how long ago, so that a late one does not shift it. */
  happenedAt?: number
  /** Where it was typed and what stood there: dropped once it stands in the job. */
  typedAt?: { place: string; draft: unknown }
}

/** On this device until it stands in the job: reload, another window or another person signing in do not lose it. */
export interface Kept extends Parcel {
  /** Who entered it. It is sent as theirs, or it waits for them. */
  by: string | null
  /** When it was entered, by this device's clock; later than whatever was entered before it. */
  at: number
  /** Why it has not gone yet; empty while it is on its way. */
  waits: string
  /** Why the app would not have it; it then lies in the tray until somebody enters it again or discards it. */
  refused?: string
}

const STORE = createStore('anvil-outbox', 'parcels')
const OTHER_WINDOWS = new BroadcastChannel('anvil.outbox')
const ONE_WINDOW_SENDS = 'anvil.outbox'
const TRY_AGAIN_MS = 2_000
const LONGEST_MS = 8_000 // a network that swallows what is sent is no network
const LONGEST_WITH_A_PICTURE_MS = 60_000

/** What becomes of a parcel while its window is open: it stands in the job, or it is kept and the hand may go on. */
export type Outcome = 'stands' | 'kept'

const settle = new Map<string, { done: (outcome: Outcome) => void; refused: (why: Refused) => void }>()
const parcels = followed<readonly Kept[]>([])
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false
const mayGo = (parcel: Kept) => parcel.refused === undefined

/** What this device holds, oldest first. Each parcel has a place of its own, so that two windows do not overwrite each other. */
async function look() {
  parcels.set((await values<Kept>(STORE)).sort((a, b) => a.at - b.at))
}

async function keep(parcel: Kept) {
  await set(parcel.id, parcel, STORE)
  await changed()
}

async function drop(id: string) {
  await del(id, STORE)
  await changed()
}

async function changed() {
  OTHER_WINDOWS.postMessage('changed')
  await look()
}

/** What a step, or a round, hands over: its id is made as it is sent, and its step is the one it says. */
export type Entered = Omit<Parcel, 'id' | 'step'> & { id?: string }

/**
 * Append to a job. Resolves when it stands there, or when it is kept on this device because it cannot go now; rejects with
 * `Refused` where the server will not have it.
 */
export async function append(entered: Entered): Promise<Outcome> {
  const parcel = { id: newId(), ...entered, step: entered.body.step }
  const by = queryClient.getQueryData(sessionOptions.queryKey)?.username ?? null
  await keep({ ...parcel, by, at: Math.max(Date.now(), ...parcels.get().map((p) => p.at + 1)), waits: '' })
  return new Promise((done, refused) => {
    settle.set(parcel.id, { done, refused })
    sendAll()
  })
}

/** Send what is kept, in order; what cannot go now is tried again until it has gone or been refused. One window sends. */
async function sendAll() {
  if (sending) return
  sending = true
  clearTimeout(timer)
  try {
    await navigator.locks.request(ONE_WINDOW_SENDS, sendInOrder)
  } finally {
    sending = false
  }
  if (parcels.get().some(mayGo)) timer = setTimeout(sendAll, TRY_AGAIN_MS)
}

async function sendInOrder() {
  await look() // another window may have sent or kept something since
  const held = new Set<string>()
  for (;;) {
    const parcel = parcels.get().find((p) => mayGo(p) && !held.has(p.id))
    if (!parcel) return
    const waits = await sendOne(parcel)
    if (waits === null) continue
    const behind = (p: Kept) => waits.holds === 'all' || (waits.holds === 'job' && p.jobId === parcel.jobId)
    for (const other of parcels.get().filter((p) => mayGo(p) && !held.has(p.id) && (p === parcel || behind(p)))) {
      held.add(other.id)
      await hold(other, waits.message)
    }
  }
}

/** Why it waits is kept with it: another window, or this one after a reload, says so as long as it waits. */
async function hold(parcel: Kept, waits: string) {
  if (parcel.waits !== waits) await keep({ ...parcel, waits })
  settle.get(parcel.id)?.done('kept')
  settle.delete(parcel.id)
}

/** Why a parcel waits, and what waits behind it: nothing, what belongs to the same job, or everything. */
interface Waits {
  message: string
  holds: 'itself' | 'job' | 'all'
}

const NO_SERVER = [0, 502, 503, 504]

/** Null when the parcel has gone, or lies in the tray; else why it waits. */
async function sendOne(parcel: Kept): Promise<Waits | null> {
  try {
    const { address, content } = addressed(parcel)
    const body = JSON.stringify({ id: parcel.id, by: parcel.by, ...content })
    const longest = parcel.body.kind === 'photograph' ? LONGEST_WITH_A_PICTURE_MS : LONGEST_MS
    await post(address, body, AbortSignal.timeout(longest))
    await del(parcel.id, STORE)
    // Seen in the job before it is no longer seen here.
    await queryClient.invalidateQueries({ queryKey: parcel.body.kind === 'look' ? ['round'] : ['job', parcel.jobId] })
    await new Promise<void>((seen) => notifyManager.schedule(seen))
    queryClient.invalidateQueries({ queryKey: ['floor'] })
    if (parcel.typedAt) dropEntered(parcel.typedAt)
    await changed()
    settle.get(parcel.id)?.done('stands')
  } catch (why) {
    if (!(why instanceof Refused)) throw why
    if (why.status === 401) return { message: 'Sign in again, then it is sent.', holds: 'all' }
    // What the server falls over is tried again for ever, and keeps only its own job waiting.
    if (why.unreachable || why.isFault) return { message: why.message, holds: NO_SERVER.includes(why.status) ? 'all' : 'job' }
    const somebodyElse = why.problems.find((p: Problem) => p.path === 'by')
    if (somebodyElse) return { message: somebodyElse.message, holds: 'itself' }
    const asked = settle.get(parcel.id)
    if (asked)
      await drop(parcel.id) // whoever entered it is still there: it stands where it was typed, with what is wrong
    else await keep({ ...parcel, waits: '', refused: why.message })
    asked?.refused(why)
  }
  settle.delete(parcel.id)
  return null
}

function addressed({ body, jobId, happenedAt }: Parcel) {
  const ago_s = happenedAt === undefined ? undefined : Math.max(0, (Date.now() - happenedAt) / 1000)
  if (body.kind === 'look') return { address: '/api/rounds/looks', content: { ...body.inputs, ago_s } }
  const content = ago_s === undefined ? body : { ...body, inputs: { ...body.inputs, ago_s } }
  return { address: `/api/jobs/${jobId}/entries`, content }
}

// Another window of this device has kept or sent something, perhaps what was entered here.
OTHER_WINDOWS.addEventListener('message', async () => {
  await look()
  for (const [id, asked] of settle) {
    const parcel = parcels.get().find((p) => p.id === id)
    if (!parcel) asked.done('stands')
    else if (parcel.refused) asked.done('kept')
    else continue
    settle.delete(id)
  }
})

/** Enter what was not taken once more, as it is, after what stood in its way has been put right; else it lies there again. */
export async function enterAgain(parcel: Kept): Promise<void> {
  const { refused: _, ...same } = parcel
  await keep({ ...same, body: confirmed(same.body), waits: '' })
  await sendAll()
}

/** A figure of a round that goes back was asked about: entered once more, it is as it was read. */
function confirmed(body: Body): Body {
  return body.kind === 'look' ? { ...body, inputs: { ...body.inputs, confirmed: true } } : body
}

/** Throw away what was not taken: the one way anything leaves this device unsent, by a tap. */
export function discard(parcel: Kept): Promise<void> {
  return drop(parcel.id)
}

/** What lies in the tray: the app would not have it, and nobody was there to be told. */
export const notTaken = (parcels: readonly Kept[]) => parcels.filter((p) => p.refused !== undefined)

/** Of these, what was entered of one kind, with its parcel. */
export function ofKind<K extends Body['kind']>(parcels: readonly Kept[], kind: K) {
  return parcels.flatMap((parcel) => (isOf(parcel.body, kind) ? [{ ...parcel, body: parcel.body }] : []))
}

function isOf<K extends Body['kind']>(body: Body, kind: K): body is Extract<Body, { kind: K }> {
  return body.kind === kind
}

/** What is still to be sent. */
export const notSent = (parcels: readonly Kept[]) => parcels.filter(mayGo)

/** What has not reached the server yet. */
export function useOutbox(): readonly Kept[] {
  return parcels.use((all) => all)
}

/** A new id, made on this device. */
export function newId(): string {
  return crypto.randomUUID()
}

/** What was left here when the application was last closed goes now. */
export async function openOutbox(): Promise<void> {
  serverBack.addEventListener('back', sendAll)
  await look()
  sendAll()
}
