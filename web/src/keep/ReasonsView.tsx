import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { api, bring } from '../api/client'
import { exportOptions, reasonsOptions } from '../api/queries'
import { Bars } from '../drawing/Bars'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { TopLinks } from '../frame/TopLinks'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { sayLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'

const SPANS = ['6', '12', '24', '60'] as const

/** What comes back on the site: reasons, lines, alignments that moved, hours. Charts, with their numbers in them. */
export function ReasonsView() {
  const unit = useUnit()
  const [months, setMonths] = useState<(typeof SPANS)[number]>('24')
  const { data, error } = useQuery(reasonsOptions(Number(months)))
  if (!data) return error ? <Lost why={error} /> : null
  const told = data.wandered.filter((one) => one.moved !== null)
  const moved = told.filter((one) => one.moved)
  const all = data.hours.reduce((sum, one) => sum + one.hours, 0)
  return (
    <Sheet
      title="Reasons that repeat"
      note={`${data.jobs === 1 ? '1 closed job' : `${data.jobs} closed jobs`} in ${months} months`}
      tools={
        <TopLinks>
          <Link href="/due">What is due</Link>
        </TopLinks>
      }
    >
      <Page>
        <div className="tools">
          <Choice
            label="Of the last"
            options={SPANS}
            words={{ 6: '6 months', 12: '1 year', 24: '2 years', 60: '5 years' }}
            value={months}
            onChange={setMonths}
          />
          <Export />
        </div>
        <section>
          <h2>What jobs came from</h2>
          {data.reasons.length === 0 && <p>No job says yet what it came from.</p>}
          <Bars
            of="Reason"
            unit="jobs"
            bars={data.reasons.map((one) => ({
              name: one.reason,
              value: one.jobs,
              text: String(one.jobs),
              note: one.lines === 1 ? 'on 1 line' : `on ${one.lines} lines`,
            }))}
          />
          {data.left_out.length > 0 && (
            <>
              <p>Not in these numbers:</p>
              <ul>
                {data.left_out.map((one) => (
                  <li key={one.job}>
                    <Link href={`/jobs/${one.job}/record`}>
                      {one.name}, job {one.number}
                    </Link>
                    <b>{one.said}</b>
                  </li>
                ))}
              </ul>
            </>
          )}
          {data.unsaid > 0 && (
            <p>{data.unsaid === 1 ? '1 job does' : `${data.unsaid} jobs do`} not say: they are older than the question.</p>
          )}
        </section>
        <section>
          <h2>Lines that come back</h2>
          {data.returning.length === 0 && <p>None: no line had two jobs that were not planned.</p>}
          <ul>
            {data.returning.map((one) => (
              <li key={one.line_id}>
                <Link href={`/lines/${one.line_id}/history`}>{one.name}</Link>
                <b>{one.jobs} jobs</b>
                <small>
                  {Object.entries(one.reasons)
                    .map(([reason, jobs]) => `${reason}${jobs > 1 ? ` ${jobs} times` : ''}`)
                    .join(', ')}
                </small>
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2>Alignments between being left and being found</h2>
          <p>
            {told.length === 0
              ? 'None was read again yet.'
              : `${moved.length} of ${told.length} moved by more than their readings leave open.`}
          </p>
          <Bars
            of="Line, from job to job"
            unit="offset moved by"
            bars={data.wandered
              .toSorted((a, b) => b.by_mm - a.by_mm)
              .map((one) => ({
                name: `${one.name}, ${one.left_in} to ${one.found_in}`,
                value: one.by_mm,
                text: sayLength(one.by_mm, unit),
                note: `${one.moved === null ? 'cannot tell' : one.moved ? 'moved' : 'stayed'}${one.plus_minus_mm === null ? '' : `, ±${sayLength(one.plus_minus_mm, unit)}`}`,
              }))}
          />
        </section>
        <section>
          <h2>Hours from lock-out to guard</h2>
          {data.hours.length === 0 ? (
            <p>No closed job has both.</p>
          ) : (
            <p>
              {all.toFixed(1)} h where every stage comes, on average of {data.timed_jobs}{' '}
              {data.timed_jobs === 1 ? 'job' : 'jobs'}. From the times of the entries; more than four hours without one count
              as nobody there.
            </p>
          )}
          <Bars
            of="Stage"
            unit="h"
            bars={data.hours.map((one) => ({
              name: one.stage,
              value: one.hours,
              text: one.hours.toFixed(1),
              note: one.jobs === 1 ? '1 job' : `${one.jobs} jobs`,
            }))}
          />
        </section>
      </Page>
    </Sheet>
  )
}

/** The history of every line as one file, written behind the scenes: how far it is, then where it lies. */
function Export() {
  const client = useQueryClient()
  const unit = useUnit()
  const [id, setId] = useState('')
  const [problem, setProblem] = useState('')
  const ask = async () => {
    try {
      const asked = await bring(api.POST('/api/exports'))
      client.setQueryData(exportOptions(asked.id).queryKey, asked)
      setId(asked.id)
    } catch (why) {
      setProblem(sayRefusal(why, unit))
    }
  }
  return (
    <div className="export">
      {id ? <Progress id={id} /> : <PlainButton onPress={ask}>History of all lines as CSV</PlainButton>}
      {problem && <p role="alert">{problem}</p>}
    </div>
  )
}

function Progress({ id }: { id: string }) {
  const export_ = useQuery(exportOptions(id)).data
  if (!export_) return null
  const { done, lines, ready, failed } = export_
  if (failed) return <p role="alert">{failed}</p>
  if (ready) return <a href={`/api/exports/${id}/file`}>Take the file: {lines} lines</a>
  return (
    <label>
      Writing: {done} of {lines} lines
      <progress value={done} max={Math.max(lines, 1)} />
    </label>
  )
}

const Page = styled.div`
  padding: 12px 16px 24px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 18px 40px;
  align-items: start;
  .tools { grid-column: 1 / -1; display: flex; flex-wrap: wrap; gap: 12px 28px; align-items: end; padding-bottom: 10px; border-bottom: 1.25px solid var(--line); }
  h2 { font-size: var(--fs-sub); font-weight: 600; border-bottom: 1.25px solid var(--ink); margin-bottom: 4px; }
  p { line-height: 1.3; padding: 4px 0; color: var(--ink-2); }
  li { display: flex; flex-wrap: wrap; gap: 2px 12px; align-items: center; border-bottom: 0.75px solid var(--line); }
  li a, .export a { display: inline-flex; align-items: center; min-height: var(--touch); font-weight: 500; }
  li b { font: 500 var(--fs-text) var(--read); margin-left: auto; }
  li small { flex-basis: 100%; color: var(--ink-2); font-size: var(--fs-small); padding-bottom: 6px; }
  progress { display: block; width: 260px; height: 14px; accent-color: var(--ink); }
`
