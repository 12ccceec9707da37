import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { sayDay } from '../drawing/overTime'
import { Glyph } from '../kit/Allowance'
import { Pick } from '../kit/Pick'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'

type PastJob = Schemas['PastJobOut']
const called = (job: PastJob) => `Job ${job.number}, ${job.title}, ${sayDay(job.closed)}`

/** Any two jobs side by side, figure by figure: what one left and the other found. */
export function CompareJobs({ jobs }: { jobs: readonly PastJob[] }) {
  const unit = useUnit()
  const [first, setFirst] = useState(jobs[1]!.id)
  const [second, setSecond] = useState(jobs[0]!.id)
  const pair = [first, second].map((id) => jobs.find((job) => job.id === id) ?? jobs[0]!)
  const whats = [...new Set(pair.flatMap((job) => job.figures.map((figure) => figure.what)))]
  const choose = (label: string, job: PastJob, put: (id: string) => void) => (
    <Pick
      label={label}
      options={jobs.map(called)}
      value={called(job)}
      onChange={(name) => put(jobs.find((j) => called(j) === name)!.id)}
    />
  )
  return (
    <Part>
      <div className="pick">
        {choose('First job', pair[0]!, setFirst)}
        {choose('Second job', pair[1]!, setSecond)}
      </div>
      {whats.length === 0 && <p>Neither of them has a judged figure.</p>}
      {whats.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">What</th>
              {pair.map((job, i) => (
                <th scope="colgroup" colSpan={2} key={`${job.id} ${i === 0 ? 'first' : 'second'}`}>
                  Job {job.number}: found, left
                </th>
              ))}
              <th scope="col">Limit</th>
            </tr>
          </thead>
          <tbody>
            {whats.map((what) => {
              const figures = pair.map((job) => job.figures.find((figure) => figure.what === what))
              const { limit, source } = (figures[1] ?? figures[0])!
              return (
                <tr key={what}>
                  <th scope="row">{what}</th>
                  {figures.map((figure, i) => (
                    <Pair
                      key={`${what} ${i === 0 ? 'first' : 'second'}`}
                      figure={figure}
                      unit={unit}
                      of={`Job ${pair[i]!.number}`}
                    />
                  ))}
                  <td data-of="Limit">
                    {sayIn(limit, unit)}
                    {limit.template && <small>{source}</small>}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </Part>
  )
}

interface PairProps {
  figure: PastJob['figures'][number] | undefined
  unit: 'mm' | 'in'
  of: string
}

function Pair({ figure, unit, of }: PairProps) {
  if (!figure) {
    return (
      <td colSpan={2} data-of={of}>
        not read
      </td>
    )
  }
  return (
    <>
      <td className="num" data-of={`${of}, found`}>
        {sayIn(figure.found, unit)}
      </td>
      <td className="num" data-of={`${of}, left`}>
        <Glyph status={figure.status} /> {sayIn(figure.left, unit)}
      </td>
    </>
  )
}

const Part = styled.div`
  padding-bottom: 12px;
  .pick { display: grid; grid-template-columns: repeat(auto-fit, minmax(240px, 1fr)); gap: 8px 20px; max-width: 820px; padding-bottom: 10px; }
  table { border-collapse: collapse; width: 100%; max-width: 1100px; }
  th, td { text-align: left; padding: 5px 14px 5px 0; border-bottom: 0.75px solid var(--line); font-weight: 400; line-height: 1.2; vertical-align: top; }
  thead th { font-size: var(--fs-small); color: var(--ink-2); }
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
  .num { font: 500 var(--fs-small) var(--read); }
  @media (max-width: 700px) {
    thead { display: none; }
    table, tbody { display: block; }
    tr { display: grid; grid-template-columns: 1fr 1fr; padding: 6px 0; border-bottom: 0.75px solid var(--line); }
    th, td { border: 0; padding: 2px 8px 2px 0; }
    th, td:last-child { grid-column: 1 / -1; font-weight: 600; }
    td::before { content: attr(data-of); display: block; font: 400 var(--fs-note) var(--text); color: var(--ink-2); }
  }
`
