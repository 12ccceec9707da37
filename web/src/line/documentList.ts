import type { Schemas } from '../api/client'

type Value = Schemas['Value']

/** A document the card goes by, in one of its issues, and how many values come from it. */
export interface Document {
  document: string
  kind: string
  issue: string
  values: number
  /** Another value goes by a later issue of the same document. */
  isOlder: boolean
}

const later = new Intl.Collator('en', { numeric: true })

/** The documents of a card, by name and issue; of two issues in use the older is marked. */
export function documentsOf(card: Readonly<Record<string, Value>>): Document[] {
  const found = new Map<string, Document>()
  for (const { source } of Object.values(card)) {
    const issue = source.issue ?? ''
    const at = `${source.document}\n${issue}`
    const known = found.get(at) ?? { document: source.document, kind: source.kind, issue, values: 0, isOlder: false }
    found.set(at, { ...known, values: known.values + 1 })
  }
  const all = [...found.values()]
  const isOlder = (one: Document) =>
    all.some((other) => other.document === one.document && later.compare(other.issue, one.issue) > 0)
  return all
    .map((one) => ({ ...one, isOlder: isOlder(one) }))
    .sort((a, b) => later.compare(a.document, b.document) || later.compare(a.issue, b.issue))
}
