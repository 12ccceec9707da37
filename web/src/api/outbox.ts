import { useSyncExternalStore } from 'react'
import { post, Refused } from './client'
import { queryClient } from './queries'

/** Something to append to a job. Its id is made here, so that sending it twice never doubles it. */
export interface Parcel {
  id: string
  jobId: string
  to: 'entries' | 'signatures'
  step: string
  body: Record<string, unknown>
}

interface Kept extends Parcel {
  /** Why it has not gone yet; empty while it is on its way. */
  waits: string
}

const KEY = 'anvil.outbox'
const TRY_AGAIN_MS = 2_000
let parcels: Kept[] = kept()
const listeners = new Set<() => void>()
const settle = new Map<string, { done: () => void; refused: (why: Refused) => void }>()
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false

function kept(): Kept[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '[]')
  } catch {
    return []
  }
}

function keep(next: Kept[]) {
  parcels = next
  localStorage.setItem(KEY, JSON.stringify(parcels))
  for (const listen of listeners) listen()
}

/** Append to a job. Resolves when it stands there; rejects with `Refused` where the server will not have it. */
export function append(parcel: Parcel): Promise<void> {
  keep([...parcels.filter((p) => p.id !== parcel.id), { ...parcel, waits: '' }])
  return new Promise((done, refused) => {
    settle.set(parcel.id, { done, refused })
    sendAll()
  })
}

/** Send what is kept, in order; what cannot go now is tried again until it has gone or been refused. */
export async function sendAll() {
  if (sending) return
  sending = true
  clearTimeout(timer)
  while (parcels.length) {
    const parcel = parcels[0]!
    try {
      await post(`/api/jobs/${parcel.jobId}/${parcel.to}`, JSON.stringify({ id: parcel.id, ...parcel.body }))
      keep(parcels.filter((p) => p.id !== parcel.id))
      await queryClient.invalidateQueries({ queryKey: ['job', parcel.jobId] })
      queryClient.invalidateQueries({ queryKey: ['floor'] })
      settle.get(parcel.id)?.done()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      if (why.unreachable || why.status === 401) {
        keep(
          parcels.map((p) =>
            p.id === parcel.id ? { ...p, waits: why.status === 401 ? 'Sign in again, then it is sent.' : why.message } : p,
          ),
        )
        timer = setTimeout(sendAll, TRY_AGAIN_MS)
        break
      }
      keep(parcels.filter((p) => p.id !== parcel.id))
      settle.get(parcel.id)?.refused(why)
    }
    settle.delete(parcel.id)
  }
  sending = false
}

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
