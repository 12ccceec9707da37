import { createStore, del, entries, set } from 'idb-keyval'
import { followed } from './followed'

const STORE = createStore('anvil-drafts', 'drafts')
const drafts = followed<Readonly<Record<string, unknown>>>({})

/** The draft on its way into the database: a page that is reloaded at this moment does not wait for it. */
const ON_ITS_WAY = 'anvil.draft'

/** What was typed and not entered, by place. Read once when the application opens; from then on memory leads. */
export async function readDrafts(): Promise<void> {
  const found = Object.fromEntries(await entries<string, unknown>(STORE))
  const row = sessionStorage.getItem(ON_ITS_WAY)
  if (row) {
    const { place, draft } = JSON.parse(row)
    found[place] = draft
    set(place, draft, STORE).then(() => arrived(row))
  }
  drafts.set(found)
}

/** What is typed at a place; null where nothing is. */
export function useKeptDraft<T>(place: string): T | null {
  return drafts.use((all) => (all[place] as T | undefined) ?? null)
}

/** On this device from now on, through reload, sign-out and a server that is away. */
export function keepDraft(place: string, draft: unknown): void {
  drafts.set({ ...drafts.get(), [place]: draft })
  const row = JSON.stringify({ place, draft })
  sessionStorage.setItem(ON_ITS_WAY, row)
  set(place, draft, STORE).then(() => arrived(row))
}

function arrived(row: string): void {
  if (sessionStorage.getItem(ON_ITS_WAY) === row) sessionStorage.removeItem(ON_ITS_WAY)
}

export function dropDraft(place: string): void {
  const { [place]: _, ...others } = drafts.get()
  drafts.set(others)
  const row = sessionStorage.getItem(ON_ITS_WAY)
  if (row && JSON.parse(row).place === place) arrived(row)
  del(place, STORE)
}

/** Drop what was entered; what was typed on top of it since stays. */
export function dropEntered({ place, draft }: { place: string; draft: unknown }): void {
  if (JSON.stringify(drafts.get()[place]) === JSON.stringify(draft)) dropDraft(place)
}
