import { Link } from 'react-aria-components'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { sayDay } from '../drawing/overTime'
import { showFigure } from '../units/length'

type PastJob = Schemas['PastJobOut']

/** Each job in a row: when, why, what went in and out, what was pulled and filled, who, how long. */
export function PastJobs({ jobs }: { jobs: readonly PastJob[] }) {
  if (jobs.length === 0) return <p>No record of this line is closed yet.</p>
  return (
    <Rows>
      {jobs.map((job) => (
        <li key={job.id}>
          <div className="head">
            <Link href={`/jobs/${job.id}/record`}>
              Job {job.number}, {job.title}
            </Link>
            <small>
              {sayDay(job.closed)}; {job.scope}; {job.who.join(', ')}
            </small>
          </div>
          <dl>
            <Told what="Came from" of={[job.reason && [job.reason, job.found].filter(Boolean).join(': ')]} />
            <Told
              what="Out"
              of={job.parts.filter((p) => p.way === 'out').map((p) => [p.number, p.fate].filter(Boolean).join(', '))}
            />
            <Told what="In" of={job.parts.filter((p) => p.way === 'in').map((p) => p.number)} />
            <Told
              what="Torques"
              of={job.torques.map((t) => `${t.what}: ${t.bolts} to ${showFigure(t.torque_nm, 'N·m', 'mm').text} N·m`)}
            />
            <Told
              what="Grease"
              of={job.greases.map((g) =>
                [g.product, g.grams !== null && `${g.grams} g`, g.batch && `batch ${g.batch}`].filter(Boolean).join(', '),
              )}
            />
            <Told what="Hours to the guard" of={[sayHours(job.hours)]} />
          </dl>
        </li>
      ))}
    </Rows>
  )
}

function Told({ what, of }: { what: string; of: readonly (string | false)[] }) {
  const said = of.filter((one): one is string => !!one)
  if (said.length === 0) return null
  return (
    <div>
      <dt>{what}</dt>
      <dd>
        {said.map((one) => (
          <span key={one}>{one}</span>
        ))}
      </dd>
    </div>
  )
}

function sayHours(hours: Record<string, number>): string {
  const stages = Object.entries(hours)
  const all = stages.reduce((sum, [, took]) => sum + took, 0)
  return stages.length === 0
    ? ''
    : `${all.toFixed(1)} h (${stages.map(([stage, took]) => `${stage} ${took.toFixed(1)}`).join(', ')})`
}

const Rows = styled.ul`
  > li { display: grid; grid-template-columns: minmax(200px, 1fr) minmax(0, 2.4fr); gap: 4px 20px; padding: 8px 0; border-bottom: 0.75px solid var(--line); line-height: 1.25; }
  .head a { display: inline-flex; align-items: center; min-height: var(--touch); font-weight: 600; }
  .head small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
  dl { display: grid; gap: 3px; align-content: start; }
  dl > div { display: grid; grid-template-columns: 130px minmax(0, 1fr); gap: 8px; }
  dt { color: var(--ink-2); font-size: var(--fs-small); padding-top: 1px; }
  dd span { display: block; overflow-wrap: anywhere; }
  @media (max-width: 700px) { > li { grid-template-columns: minmax(0, 1fr); } dl > div { grid-template-columns: 100px minmax(0, 1fr); } }
`
