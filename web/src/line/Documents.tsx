import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { documentsOf } from './documentList'

/** The documents a card goes by: what has to be at hand, and which issue is not the latest in use. */
export function Documents({ card }: { card: Readonly<Record<string, Schemas['Value']>> }) {
  const documents = documentsOf(card)
  if (documents.length === 0) return null
  return (
    <List aria-label="Sources of this card">
      {documents.map(({ document, kind, issue, values, isOlder }) => (
        <li key={`${document} ${issue}`}>
          <b>{document}</b>
          <span>
            {issue && `issue ${issue}, `}
            {kind}, {values === 1 ? '1 value' : `${values} values`}
          </span>
          {isOlder && <strong>older issue</strong>}
        </li>
      ))}
    </List>
  )
}

const List = styled.ul`
  font-size: var(--fs-text);
  li { display: flex; flex-wrap: wrap; gap: 2px 12px; border-bottom: 0.75px solid var(--line); padding: 4px 0; }
  b { font-weight: 500; }
  span { color: var(--ink-2); }
`
