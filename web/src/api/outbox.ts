import { useSyncExternalStore } from 'react'
import { type Problem, post, Refused } from './client'
import { queryClient, sessionOptions } from './queries'

/** Something to append to a job. Its id is made here, so that sending it twice never doubles it. */
export interface Parcel {
  id: string
  jobId: string
  to: 'entries'
  step: string
  body: Record<string, unknown>
  /** For what happened at a moment: when, by this device's clock. Sent as how long ago, so that a late one does not shift it. */
  happenedAt?: number
}

/** On this device until it stands in the job: reload, another window or another person signing in do not lose it. */
export interface Kept extends Parcel {
  /** Who entered it. It is sent as theirs, or it waits for them. */
  by: string | null
  at: number
  /** Why it has not gone yet; empty while it is on its way. */
  waits: string
  /** Why the app would not have it; it then lies in the tray until somebody enters it again or discards it. */
  refused?: string
}

const PREFIX = 'anvil.outbox.'
const ONE_WINDOW_SENDS = 'anvil.outbox'
const TRY_AGAIN_MS = 2_000
const listeners = new Set<() => void>()
const settle = new Map<string, { done: () => void; refused: (why: Refused) => void }>()
let parcels: readonly Kept[] = kept()
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false
const mayGo = (parcel: Kept) => parcel.refused === undefined

/** What this device holds, oldest first. Each parcel has a place of its own, so that two windows do not overwrite each other. */
function kept(): Kept[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .flatMap((key) => {
      try {
        return [JSON.parse(localStorage.getItem(key)!) as Kept]
      } catch {
        return []
      }
    })
    .sort((a, b) => a.at - b.at)
}

function show(next: readonly Kept[]) {
  parcels = next
  for (const listen of listeners) listen()
}

function keep(parcel: Kept) {
  localStorage.setItem(PREFIX + parcel.id, JSON.stringify(parcel))
  show([...parcels.filter((p) => p.id !== parcel.id), parcel])
}

/** Why it waits is kept with it: another window, or this one after a reload, says so as long as it waits. */
function remember(parcel: Kept, waits: string) {
  if (localStorage.getItem(PREFIX + parcel.id) === null) return show(parcels.filter((p) => p.id !== parcel.id))
  const waiting = { ...parcel, waits }
  localStorage.setItem(PREFIX + parcel.id, JSON.stringify(waiting))
  show(parcels.map((p) => (p.id === parcel.id ? waiting : p)))
}

function drop(id: string) {
  localStorage.removeItem(PREFIX + id)
  show(parcels.filter((p) => p.id !== id))
}

/** Append to a job. Resolves when it stands there; rejects with `Refused` where the server will not have it. */
export function append(parcel: Parcel): Promise<void> {
  const by = queryClient.getQueryData(sessionOptions.queryKey)?.username ?? null
  keep({ ...parcel, by, at: Date.now(), waits: '' })
  return new Promise((done, refused) => {
    settle.set(parcel.id, { done, refused })
    sendAll()
  })
}

/** Send what is kept, in order; what cannot go now is tried again until it has gone or been refused. One window sends. */
export async function sendAll() {
  if (sending) return
  sending = true
  clearTimeout(timer)
  try {
    if (navigator.locks) {
      await navigator.locks.request(ONE_WINDOW_SENDS, { ifAvailable: true }, (mine) => (mine ? sendInOrder() : undefined))
    } else await sendInOrder()
  } finally {
    sending = false
  }
  if (parcels.some(mayGo)) timer = setTimeout(sendAll, TRY_AGAIN_MS)
}

async function sendInOrder() {
  const held = new Set<string>()
  for (;;) {
    const parcel = parcels.find((p) => mayGo(p) && !held.has(p.id))
    if (!parcel) return
    const waits = await sendOne(parcel)
    if (waits === null) continue
    const behind = (p: Kept) =>
      mayGo(p) && !held.has(p.id) && (waits.holds === 'all' || (waits.holds === 'job' && p.jobId === parcel.jobId))
    held.add(parcel.id)
    remember(parcel, waits.message)
    for (const other of parcels.filter(behind)) {
      held.add(other.id)
      remember(other, waits.message)
    }
  }
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
    const body = JSON.stringify({ id: parcel.id, by: parcel.by, ...dated(parcel) })
    await post(`/api/jobs/${parcel.jobId}/${parcel.to}`, body)
    drop(parcel.id)
    await queryClient.invalidateQueries({ queryKey: ['job', parcel.jobId] })
    queryClient.invalidateQueries({ queryKey: ['floor'] })
    settle.get(parcel.id)?.done()
  } catch (why) {
    if (!(why instanceof Refused)) throw why
    if (why.status === 401) return { message: 'Sign in again, then it is sent.', holds: 'all' }
    // What the server falls over is tried again for ever, and keeps only its own job waiting.
    if (why.unreachable) return { message: why.message, holds: NO_SERVER.includes(why.status) ? 'all' : 'job' }
    const somebodyElse = why.problems.find((p: Problem) => p.path === 'by')
    if (somebodyElse) return { message: somebodyElse.message, holds: 'itself' }
    const asked = settle.get(parcel.id)
    if (asked)
      drop(parcel.id) // whoever entered it is still there: it stands where it was typed, with what is wrong
    else keep({ ...parcel, waits: '', refused: why.message })
    asked?.refused(why)
  }
  settle.delete(parcel.id)
  return null
}

function dated({ body, happenedAt }: Parcel) {
  if (happenedAt === undefined) return body
  const ago_s = Math.max(0, (Date.now() - happenedAt) / 1000)
  return { ...body, inputs: { ...(body.inputs as object), ago_s } }
}

// Another window of this device has kept or sent something.
window.addEventListener('storage', (event) => {
  if (!event.key?.startsWith(PREFIX)) return
  show(kept())
  const id = event.key.slice(PREFIX.length)
  if (event.newValue === null && settle.has(id)) {
    settle.get(id)!.done()
    settle.delete(id)
  }
})

/** Enter what was not taken once more, as it is, after what stood in its way has been put right; else it lies there again. */
export function enterAgain(parcel: Kept): Promise<void> {
  const { refused: _, ...same } = parcel
  drop(parcel.id)
  keep({ ...same, id: newId(), waits: '' })
  return sendAll()
}

/** Throw away what was not taken: the one way anything leaves this device unsent, by a tap. */
export function discard(parcel: Kept): void {
  drop(parcel.id)
}

/** What lies in the tray: the app would not have it, and nobody was there to be told. */
export const notTaken = (parcels: readonly Kept[]) => parcels.filter((p) => p.refused !== undefined)

/** What is still to be sent. */
export const notSent = (parcels: readonly Kept[]) => parcels.filter(mayGo)

/** What has not reached the server yet. */
export function useOutbox(): readonly Kept[] {
  return useSyncExternalStore(
    (listen) => {
      listeners.add(listen)
      return () => listeners.delete(listen)
    },
    () => parcels,
  )
}

/** A new id, made on this device. */
export function newId(): string {
  return crypto.randomUUID()
}

sendAll()
