import type { ReactNode } from 'react'
import styled from 'styled-components'

interface TableProps {
  /** What stands over the columns; on a narrow sheet before each cell. */
  head: readonly string[]
  rows: readonly (readonly ReactNode[])[]
}

/** A table that on a phone becomes one block a row, each cell under what it is. */
export function Table({ head, rows }: TableProps) {
  return (
    <Ruled>
      <thead>
        <tr>
          {head.map((what, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name than their place
            <th key={i}>{what}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((cells, row) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows of a record, in their order for good
          <tr key={row}>
            {cells.map((cell, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: as above
              <td key={i} data-label={head[i]}>
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </Ruled>
  )
}

const Ruled = styled.table`
  border-collapse: collapse;
  width: 100%;
  font-size: var(--fs-text);
  margin-top: 4px;
  th { text-align: left; font-weight: 500; color: var(--ink-2); font-size: var(--fs-small); padding-right: 10px; }
  td { border-bottom: 0.75px solid var(--line); padding: 2px 10px 2px 0; vertical-align: top; overflow-wrap: anywhere; }
  td:first-child { min-width: 150px; }
  @media (max-width: 700px) {
    &, tbody, tr, td { display: block; }
    thead { display: none; }
    tr { border-bottom: 1.25px solid var(--line); padding: 4px 0; }
    td { border: 0; padding: 1px 0; }
    td:empty { display: none; }
    td:not(:first-child)[data-label]:not([data-label=''])::before { content: attr(data-label) ': '; color: var(--ink-2); }
    td:first-child { font-weight: 600; }
  }
`
