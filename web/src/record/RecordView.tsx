import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-aria-components'
import { useParams } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { recordOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { Glyph, Num } from '../kit/Allowance'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'

type Reading = Schemas['Reading']

/** The record of a job: as found, every move, as left, torques, sources, who and when. */
export function RecordView() {
  const { jobId = '' } = useParams()
  const { data: record, error } = useQuery(recordOptions(jobId))
  const unit = useUnit()
  if (!record) return error ? <Lost why={error} /> : null
  const stages = [...new Set(record.steps.map((s) => s.stage))]
  return (
    <Sheet title={`${record.line}, job ${record.number}`} note={record.what}>
      <Paper>
        <header>
          <div>
            <h2>{record.title}</h2>
            <p>
              {record.site}. Started {sayWhen(record.started_at)} by {record.started_by}.{' '}
              {record.cancelled || (record.closed ? 'Signed and closed.' : 'Open.')}
            </p>
            {record.read_in && <p className="note">{record.read_in}</p>}
          </div>
          <nav aria-label="Record as a file">
            <a href={`/api/records/${jobId}/pdf`}>PDF</a>
            <a href={`/api/records/${jobId}/json`}>Job as JSON</a>
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
        {record.summary.length > 0 && (
          <>
            <h3>In short</h3>
            <table className="short">
              <thead>
                <tr>
                  {['What', 'As found', 'As left', 'Limit', '', 'Source'].map((head) => (
                    <th key={head}>{head}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {record.summary.map((line) => (
                  <tr key={line.name}>
                    <td>
                      {line.name}
                      {line.overtaken.template && <div className="note">{sayIn(line.overtaken, unit)}</div>}
                    </td>
                    <td>
                      <Num>{sayIn(line.found, unit)}</Num>
                    </td>
                    <td>
                      <Num>
                        <b>{sayIn(line.value, unit)}</b>
                      </Num>
                    </td>
                    <td>
                      <Num>{sayIn(line.limit, unit)}</Num>
                    </td>
                    <td>
                      {line.overtaken.template ? (
                        'stale'
                      ) : (
                        <>
                          <Glyph {...line} /> {line.said}
                        </>
                      )}
                    </td>
                    <td className="note">{line.source}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        <h3>Value card</h3>
        <table>
          <tbody>
            {record.card.map((line) => (
              <tr key={line.title}>
                <td>{line.title}</td>
                <td>
                  <Num>{sayIn(line.value, unit)}</Num> {line.means}
                </td>
                <td>{line.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {stages.map((stage) => (
          <section key={stage}>
            <h3>{stage}</h3>
            {record.steps
              .filter((s) => s.stage === stage)
              .map((step) => (
                <article key={step.key}>
                  <h4>
                    {step.title} <span>{sayIn(step.stale_because, unit) || step.state}</span>
                  </h4>
                  {step.readings.map((reading) => (
                    <OneReading key={reading.id} reading={reading} jobId={jobId} />
                  ))}
                  {step.signatures.map((s) => (
                    <p className="signed" key={s.at}>
                      {s.kind === 'authorise' ? 'Accepted over its limit' : 'Signed'} by {s.by}, {s.role}, {sayWhen(s.at)}
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
                  <OneReading key={reading.id} reading={reading} jobId={jobId} />
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

function OneReading({ reading, jobId }: { reading: Reading; jobId: string }) {
  const unit = useUnit()
  return (
    <div className="reading">
      <p>
        <b>{reading.label}</b>{' '}
        {reading.verdict && (
          <>
            <Glyph status={reading.verdict} /> {reading.verdict === 'not judged' ? 'done' : reading.verdict}{' '}
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
      {reading.as_it_is && <p className="note">Taken as it is: the readings do not tell whether it keeps its limit.</p>}
      <Ticks word="Ticked" what={reading.ticked} />
      <Ticks word="Not ticked" what={reading.not_ticked} />
      {reading.checks.length > 0 && (
        <table>
          <tbody>
            {reading.checks.map((check) => (
              <tr key={check.name}>
                <td>{check.name}</td>
                <td>
                  <Num>{sayIn(check.value, unit)}</Num>
                </td>
                <td>
                  <Num>{sayIn(check.limit, unit)}</Num>
                </td>
                <td>{check.said}</td>
                <td className="note">{check.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
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
  header { display: flex; justify-content: space-between; gap: 16px; align-items: start; }
  nav { display: flex; gap: 8px; }
  nav a { display: inline-flex; align-items: center; min-height: 44px; padding: 0 14px; border: 1.25px solid var(--ink); background: var(--leaf); text-decoration: none; font-weight: 500; white-space: nowrap; }
  h2 { font-size: 26px; font-weight: 600; line-height: 1.1; }
  h3 { font-size: 20px; font-weight: 600; border-bottom: 2px solid var(--ink); margin-top: 20px; }
  h4 { font-size: 16px; font-weight: 600; margin-top: 10px; }
  h4 span, small, .note { color: var(--ink-2); font-weight: 400; font-size: 14px; }
  .note ${Num} { overflow-wrap: anywhere; }
  .open { border: 2px solid var(--ink); padding: 8px 12px; margin-top: 12px; }
  .open li { list-style: disc; margin-left: 18px; }
  table { border-collapse: collapse; width: 100%; font-size: 15px; }
  td { border-bottom: 0.75px solid var(--line); padding: 2px 10px 2px 0; vertical-align: top; }
  .reading { border-left: 2px solid var(--line); padding: 2px 0 4px 10px; margin: 4px 0; }
  .short { margin-top: 4px; }
  .short th { text-align: left; font-weight: 500; color: var(--ink-2); font-size: 14px; padding-right: 10px; }
  .short td { white-space: nowrap; }
  .short td:first-child, .short td:last-child { white-space: normal; }
  .short td:first-child { width: 24%; }
  @media (max-width: 860px) { .short td:nth-child(4) { white-space: normal; } }
  .ticks { font-size: 15px; line-height: 1.3; }
  .ticks b { font-weight: 500; color: var(--ink-2); margin-right: 4px; }
  .reading > p:first-child { display: flex; gap: 8px; align-items: center; flex-wrap: wrap; }
  .reading > p a { min-height: 44px; min-width: 44px; display: inline-flex; align-items: center; }
  dl { columns: 3 240px; font-size: 15px; }
  dl div { break-inside: avoid; display: flex; gap: 6px; }
  dl .across { column-span: all; }
  dt { color: var(--ink-2); }
  .signed { font-weight: 600; }
  img { max-width: 100%; background: #fff; }
  img.photograph { width: auto; max-width: min(100%, 560px); }
`
