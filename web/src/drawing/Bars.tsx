import styled from 'styled-components'

interface Bar {
  name: string
  value: number
  /** The figure as it is written beside its bar. */
  text: string
  /** What else is to be said of it. */
  note?: string
}

interface BarsProps {
  /** What is counted, for the head of the table. */
  of: string
  unit: string
  bars: readonly Bar[]
}

/** Figures side by side: a table whose last column is drawn. The longest is the whole width. */
export function Bars({ of, unit, bars }: BarsProps) {
  const most = Math.max(...bars.map((bar) => bar.value), 1e-9)
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">{of}</th>
          <th scope="col">{unit}</th>
          <th scope="col">
            <span className="unseen">Drawn</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {bars.map(({ name, value, text, note }) => (
          <tr key={name}>
            <th scope="row">
              {name}
              {note && <small>{note}</small>}
            </th>
            <td>{text}</td>
            <td aria-hidden="true">
              <svg viewBox="0 0 100 14" preserveAspectRatio="none">
                <path d={`M0 1H${(100 * value) / most}V13H0Z`} />
                <path d="M.5 0V14" stroke="var(--ink)" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
              </svg>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th, td { text-align: left; padding: 5px 10px 5px 0; border-bottom: 0.75px solid var(--line); font-weight: 400; vertical-align: middle; line-height: 1.2; }
  thead th { font-size: var(--fs-small); color: var(--ink-2); }
  td:nth-child(2) { font-family: var(--read); text-align: right; white-space: nowrap; width: 1%; }
  td:last-child, thead th:last-child { width: 46%; padding-right: 0; }
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
  .unseen { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
  svg { display: block; width: 100%; height: 16px; }
`
