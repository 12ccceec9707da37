import { createStore, del, entries, set } from 'idb-keyval'
import { followed } from './followed'
import { queryClient, sessionOptions } from './queries'

/** What was typed and not entered, and who typed it: the first hand first. */
interface Kept {
  draft: unknown
  by: readonly string[]
}

const STORE = createStore('anvil-drafts', 'drafts')
const drafts = followed<Readonly<Record<string, Kept>>>({})
const NOBODY: readonly string[] = []

/** The draft on its way into the database: a page that is reloaded at this moment does not wait for it. */
const ON_ITS_WAY = 'anvil.draft'

/** As it was kept before anybody's name went with it. */
const asKept = (row: unknown): Kept =>
  typeof row === 'object' && row !== null && 'draft' in row && 'by' in row ? (row as Kept) : { draft: row, by: NOBODY }

/** What was typed and not entered, by place. Read once when the application opens; from then on memory leads. */
export async function readDrafts(): Promise<void> {
  const found = Object.fromEntries((await entries<string, unknown>(STORE)).map(([place, row]) => [place, asKept(row)]))
  const row = sessionStorage.getItem(ON_ITS_WAY)
  if (row) {
    const { place, ...kept } = JSON.parse(row)
    found[place] = asKept(kept)
    set(place, found[place], STORE).then(() => arrived(row))
  }
  drafts.set(found)
}

/** What is typed at a place; null where nothing is. */
export function useKeptDraft<T>(place: string): T | null {
  return drafts.use((all) => (all[place]?.draft as T | undefined) ?? null)
}

/** Who else typed at a place: whoever is signed in now has not. */
export function useTypedByOthers(place: string, me: string): string {
  return drafts.use((all) => (all[place]?.by ?? NOBODY).filter((name) => name !== me).join(' and '))
}

/** On this device from now on, through reload, sign-out and a server that is away; under the name of whoever is signed in. */
export function keepDraft(place: string, draft: unknown): void {
  const me = queryClient.getQueryData(sessionOptions.queryKey)?.name
  const by = drafts.get()[place]?.by ?? NOBODY
  const kept: Kept = { draft, by: me === undefined || by.includes(me) ? by : [...by, me] }
  drafts.set({ ...drafts.get(), [place]: kept })
  const row = JSON.stringify({ place, ...kept })
  sessionStorage.setItem(ON_ITS_WAY, row)
  set(place, kept, STORE).then(() => arrived(row))
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
  if (JSON.stringify(drafts.get()[place]?.draft) === JSON.stringify(draft)) dropDraft(place)
}
