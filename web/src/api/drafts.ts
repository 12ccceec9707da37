import { createStore, del, entries, set } from 'idb-keyval'
import { followed } from './followed'

const STORE = createStore('anvil-drafts', 'drafts')
const drafts = followed<Readonly<Record<string, unknown>>>({})

/** What was typed and not entered, by place. Read once when the application opens; from then on memory leads. */
export async function readDrafts(): Promise<void> {
  drafts.set(Object.fromEntries(await entries<string, unknown>(STORE)))
}

/** What is typed at a place; null where nothing is. */
export function useKeptDraft<T>(place: string): T | null {
  return drafts.use((all) => (all[place] as T | undefined) ?? null)
}

/** On this device from now on, through reload, sign-out and a server that is away. */
export function keepDraft(place: string, draft: unknown): void {
  drafts.set({ ...drafts.get(), [place]: draft })
  set(place, draft, STORE)
}

export function dropDraft(place: string): void {
  const { [place]: _, ...others } = drafts.get()
  drafts.set(others)
  del(place, STORE)
}

/** Drop what was entered; what was typed on top of it since stays. */
export function dropEntered({ place, draft }: { place: string; draft: unknown }): void {
  if (JSON.stringify(drafts.get()[place]) === JSON.stringify(draft)) dropDraft(place)
}
