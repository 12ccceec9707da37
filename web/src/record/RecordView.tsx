import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-aria-components'
import { useParams } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { recordOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { TakeOver } from '../job/TakeOver'
import { Glyph, Num } from '../kit/Allowance'
import type { LengthUnit } from '../units/length'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'
import { FrontPage, SIGNED } from './Front'
import { Table } from './Table'

type Reading = Schemas['Reading']

/** The record of a job: as found, every move, as left, torques, sources, who and when. */
export function RecordView() {
  const { jobId = '' } = useParams()
  const { data: record, error } = useQuery(recordOptions(jobId))
  if (!record) return error ? <Lost why={error} file={`/api/records/${jobId}/json`} /> : null
  const { unit } = record
  const stages = [...new Set(record.steps.map((s) => s.stage))]
  return (
    <Sheet title={`${record.line}, job ${record.number}`} note={record.what}>
      <Paper>
        <header>
          <div>
            <h2>{record.title}</h2>
            <p>
              {record.site}. Started {sayWhen(record.started_at)} by {record.started_by}.{' '}
              {record.cancelled || (record.closed ? 'Signed and closed.' : record.read_in ? 'Not closed here.' : 'Open.')}
            </p>
            {record.read_in && <p className={record.to_take_over ? 'told' : 'note'}>{record.read_in}</p>}
            {record.to_take_over && <TakeOver jobId={jobId} />}
            {record.file_waits && <p className="note">{record.file_waits}</p>}
          </div>
          <nav aria-label="Record as a file">
            <a href={`/api/records/${jobId}/pdf`}>PDF</a>
            {!record.file_waits && <a href={`/api/records/${jobId}/json`}>Job as JSON</a>}
            <Link href={`/jobs/${jobId}`}>To the job</Link>
          </nav>
        </header>
        {record.open_things.length > 0 && (
          <div className="open">
            <b>This record is open. Still to be done:</b>
            <ul>
              {record.open_things.map((thing) => (
                <li key={thing.template}>{sayIn(thing, unit)}</li>
              ))}
            </ul>
          </div>
        )}
        <FrontPage record={record} unit={unit} jobId={jobId} />
        <h3>Value card</h3>
        <Table
          head={['Value', 'Figure', 'Source']}
          rows={record.card.map((line) => [
            line.title,
            <>
              <Num>{sayIn(line.value, unit)}</Num>
              {line.means && `, ${line.means}`}
            </>,
            line.source,
          ])}
        />
        {stages.map((stage) => (
          <section key={stage}>
            <h3>{stage}</h3>
            {record.steps
              .filter((s) => s.stage === stage)
              .map((step) => (
                <article key={step.key}>
                  <h4>
                    {step.title} <span>{sayIn(step.stale_because, unit) || step.said}</span>
                  </h4>
                  {step.readings.map((reading) => (
                    <OneReading key={reading.id} reading={reading} unit={unit} jobId={jobId} />
                  ))}
                  {step.signatures.map((s) => (
                    <p className="signed" key={s.at}>
                      {SIGNED[s.kind]} by {s.by}, {s.role}, {sayWhen(s.at)}
                      {s.reason && `: ${s.reason}`}
                    </p>
                  ))}
                </article>
              ))}
          </section>
        ))}
        {record.ledger.length > 0 && (
          <section>
            <h3>Ledger</h3>
            {record.ledger.map((line) => (
              <p key={line.label}>
                {line.label}: {sayIn(line.value, unit)} ({line.typed})
              </p>
            ))}
          </section>
        )}
        {record.added_since!.length > 0 && (
          <section>
            <h3>Added since it was closed</h3>
            {record.added_since!.map((step) => (
              <article key={step.key}>
                <h4>{step.title}</h4>
                {step.readings.map((reading) => (
                  <OneReading key={reading.id} reading={reading} unit={unit} jobId={jobId} />
                ))}
              </article>
            ))}
          </section>
        )}
        {record.issued_at && (
          <p className="note">
            Issued {sayWhen(record.issued_at)} and kept as it is. Digest (SHA-256) <Num>{record.digest}</Num>
          </p>
        )}
        <p className="note">
          Chain of what was entered and signed, up to here <Num>{record.chain}</Num>
        </p>
        <p className="note">
          This record shows what was entered. The maker’s manual, the plant’s procedure, the local code and authorised people
          decide.
        </p>
      </Paper>
    </Sheet>
  )
}

function OneReading({ reading, unit, jobId }: { reading: Reading; unit: LengthUnit; jobId: string }) {
  return (
    <div className="reading">
      <p>
        <b>{reading.label}</b>{' '}
        {reading.verdict && (
          <>
            <Glyph status={reading.verdict} /> {reading.said}{' '}
          </>
        )}
        <small>
          {reading.by}, {reading.role}, {sayWhen(reading.at)}
        </small>
        {reading.rings.map((ring, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rings are asked for by their place
          <a key={i} href={`/api/records/${jobId}/entries/${reading.id}/csv?dial=${i}`}>
            {ring} as CSV
          </a>
        ))}
      </p>
      <dl>
        {reading.figures.map((f, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: figures in their order; labels can repeat
          <div key={i} className={f.goes_across ? 'across' : undefined}>
            <dt>{f.label}</dt>
            <dd>
              {f.is_words ? sayIn(f.value, unit) : <Num>{sayIn(f.value, unit)}</Num>}
              {f.typed && <small> typed {f.typed}</small>}
            </dd>
          </div>
        ))}
      </dl>
      {reading.pulls && (
        <Table
          head={['Bolt', ...reading.pulls.passes]}
          rows={reading.pulls.rows.map((row) => [
            row.bolt,
            ...row.cells.map((cell, i) => <Num key={reading.pulls!.passes[i]}>{sayIn(cell, unit)}</Num>),
          ])}
        />
      )}
      {reading.as_the_file_has_it!.length > 0 && (
        <p className="note">
          In its file this is worded: {reading.as_the_file_has_it!.map((text) => `“${text}”`).join(', ')}
        </p>
      )}
      {reading.as_it_is && <p className="note">Taken as it is: the readings do not tell whether it is within tolerance.</p>}
      <Ticks word="Ticked" what={reading.ticked} />
      <Ticks word="Not ticked" what={reading.not_ticked} />
      {reading.checks.length > 0 && (
        <Table
          head={['', '', '', '', '']}
          rows={reading.checks.map((check) => [
            check.name,
            <Num key="value">{sayIn(check.value, unit)}</Num>,
            <Num key="limit">{sayIn(check.limit, unit)}</Num>,
            check.said,
            check.source,
          ])}
        />
      )}
      {reading.kind === 'photograph' && (
        <img className="photograph" alt="as it was taken" src={`/api/jobs/${jobId}/photographs/${reading.id}`} />
      )}
      {reading.drawing && (
        <img
          alt={reading.drawing_title || 'drawn as it was read'}
          src={`data:image/svg+xml;utf8,${encodeURIComponent(reading.drawing)}`}
        />
      )}
    </div>
  )
}

function Ticks({ word, what }: { word: string; what: string[] }) {
  if (!what.length) return null
  return (
    <p className="ticks">
      <b>{word}</b> {what.join(' · ')}
    </p>
  )
}

const Paper = styled.div`
  max-width: 1020px;
  margin: 0 auto;
  padding: 16px 20px 40px;
  header { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 16px; align-items: start; }
  nav { display: flex; flex-wrap: wrap; gap: 8px; }
  nav a { display: inline-flex; align-items: center; justify-content: center; min-height: var(--touch); min-width: var(--touch); padding: 0 14px; border: 1.25px solid var(--ink); background: var(--leaf); text-decoration: none; font-weight: 500; white-space: nowrap; }
  h2 { font-size: var(--fs-figure); font-weight: 600; line-height: 1.1; }
  h3 { font-size: var(--fs-head); font-weight: 600; border-bottom: 2px solid var(--ink); margin-top: 20px; }
  h4 { font-size: var(--fs-body); font-weight: 600; margin-top: 10px; }
  h4 span, small, .note { color: var(--ink-2); font-weight: 400; font-size: var(--fs-small); }
  .note ${Num} { overflow-wrap: anywhere; }
  .told { border-left: 6px solid var(--ink); padding: 6px 10px; font-weight: 600; margin: 6px 0; overflow-wrap: anywhere; }
  .open { border: 2px solid var(--ink); padding: 8px 12px; margin-top: 12px; }
  .open li { list-style: disc; margin-left: 18px; }
  .said { white-space: nowrap; }
  .pictures { display: flex; flex-wrap: wrap; gap: 12px; margin-top: 6px; }
  .pictures figure { flex: 0 1 220px; }
  .reading { border-left: 2px solid var(--line); padding: 2px 0 4px 10px; margin: 4px 0; }
  .ticks { font-size: var(--fs-text); line-height: 1.3; }
  .ticks b { font-weight: 500; color: var(--ink-2); margin-right: 4px; }
  .reading > p:first-child { display: flex; gap: 8px; align-items: center; flex-wrap: wrap; }
  .reading > p a { min-height: var(--touch); min-width: var(--touch); display: inline-flex; align-items: center; }
  dl { columns: 3 240px; font-size: var(--fs-text); }
  dl div { break-inside: avoid; display: flex; gap: 6px; }
  dl .across { column-span: all; }
  dt { color: var(--ink-2); }
  .signed { font-weight: 600; }
  img { max-width: 100%; background: #fff; }
  img.photograph { width: auto; max-width: min(100%, 560px); }
`
