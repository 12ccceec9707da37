import { Input, Label, TextField } from 'react-aria-components'
import styled from 'styled-components'
import { PlainButton } from '../kit/Button'
import { article, type Rows, type SheetForm } from './sheet'

/** As many rows as are needed: isolation points with their locks. */
export function RowTable({
  form,
  rows,
  onChange,
  problems,
}: {
  form: SheetForm
  rows: Rows
  onChange: (rows: Rows) => void
  problems: Record<string, string>
}) {
  const columns = form.rows
  return (
    <Table>
      <thead>
        <tr>
          {columns.map((c) => (
            <th key={c.key}>{c.label}</th>
          ))}
          <th aria-label="Take away" />
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name than their place
          <tr key={i}>
            {columns.map((c) => (
              <td key={c.key} data-label={c.label}>
                <TextField
                  aria-label={`${c.label}, ${form.row_name} ${i + 1}`}
                  value={row[c.key] ?? ''}
                  onChange={(value) => onChange(rows.map((r, at) => (at === i ? { ...r, [c.key]: value } : r)))}
                >
                  <Label hidden>{c.label}</Label>
                  <Input size={Math.max(7, ...rows.map((r) => r[c.key]?.length ?? 0))} />
                </TextField>
                {problems[`rows.${i}.${c.key}`] && <small role="alert">{problems[`rows.${i}.${c.key}`]}</small>}
              </td>
            ))}
            <td>
              <PlainButton
                aria-label={`Take ${form.row_name} ${i + 1} away`}
                onPress={() => onChange(rows.filter((_, at) => at !== i))}
              >
                ×
              </PlainButton>
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={columns.length + 1}>
            <PlainButton onPress={() => onChange([...rows, Object.fromEntries(columns.map((c) => [c.key, '']))])}>
              Add {article(form.row_name)}
            </PlainButton>
          </td>
        </tr>
      </tfoot>
    </Table>
  )
}

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  th { text-align: left; font-weight: 500; font-size: var(--fs-small); padding: 2px 4px; }
  td { padding: 2px; vertical-align: top; }
  input { width: 100%; min-width: 0; font-size: var(--fs-text); min-height: var(--touch); border: 1.25px solid var(--ink); background: var(--leaf); color: var(--blue); padding: 0 8px; }
  @media (max-width: 700px) {
    &, tbody, tfoot, tr, td { display: block; }
    thead { display: none; }
    tbody tr { border-bottom: 1.25px solid var(--line); padding: 6px 0; }
    td::before { content: attr(data-label); font-weight: 500; font-size: var(--fs-small); }
  }
  input:focus { outline: 3px solid var(--blue); outline-offset: -1px; background: var(--blue-wash); }
`
