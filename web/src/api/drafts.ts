import { createStore, del, entries, set } from 'idb-keyval'
import { useSyncExternalStore } from 'react'

const STORE = createStore('anvil-drafts', 'drafts')
const drafts = new Map<string, unknown>()
const listeners = new Set<() => void>()

/** What was typed and not entered, by place. Read once when the application opens; from then on memory leads. */
export async function readDrafts(): Promise<void> {
  for (const [place, draft] of await entries<string, unknown>(STORE)) drafts.set(place, draft)
}

/** What is typed at a place; null where nothing is. */
export function useKeptDraft<T>(place: string): T | null {
  return useSyncExternalStore(
    (listen) => {
      listeners.add(listen)
      return () => listeners.delete(listen)
    },
    () => (drafts.get(place) as T | undefined) ?? null,
  )
}

/** On this device from now on, through reload, sign-out and a server that is away. */
export function keepDraft(place: string, draft: unknown): void {
  drafts.set(place, draft)
  changed()
  set(place, draft, STORE)
}

export function dropDraft(place: string): void {
  drafts.delete(place)
  changed()
  del(place, STORE)
}

/** Drop what was entered; what was typed on top of it since stays. */
export function dropEntered({ place, draft }: { place: string; draft: unknown }): void {
  if (JSON.stringify(drafts.get(place)) === JSON.stringify(draft)) dropDraft(place)
}

function changed() {
  for (const listen of listeners) listen()
}
