import type { Schemas } from '../api/client'
import { Glyph, Num } from '../kit/Allowance'
import type { LengthUnit } from '../units/length'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'
import { Table } from './Table'

type Record = Schemas['RecordOut']
type Front = Schemas['Front']

interface FrontProps {
  record: Record
  unit: LengthUnit
  jobId: string
}

export const SIGNED: { [kind in Schemas['Signed']['kind']]: string } = {
  hold: 'Signed',
  authorise: 'Accepted out of tolerance',
  cancel: 'Cancelled',
  'take over': 'Taken over',
}

/** What a plant takes as proof: deviations first, then machines, as found and as left, signatures, instruments, pictures. */
export function FrontPage({ record, unit, jobId }: FrontProps) {
  const { front } = record
  return (
    <>
      {!!front?.proofs?.length && (
        <section>
          <h3>What was proved</h3>
          <Table
            head={['', '', '']}
            rows={front.proofs.map((one) => [
              one.what,
              <b key="stands">{one.stands}</b>,
              <span key="of" className="note">
                {one.of.join('; ')}
              </span>,
            ])}
          />
        </section>
      )}
      {front && <Deviations of={front.deviations} unit={unit} />}
      {front && (
        <section>
          <h3>Machines</h3>
          <Table
            head={['Machine', '', 'Serial number']}
            rows={front.machines.map((one) => [one.name, sayIn(one.what, unit), one.serial || 'not entered'])}
          />
        </section>
      )}
      {record.summary.length > 0 && (
        <section>
          <h3>As found and as left</h3>
          <Table
            head={['What', 'As found', 'As left', 'Limit', '', 'Source']}
            rows={record.summary.map((line) => [
              <>
                {line.name}
                {line.overtaken.template && <div className="note">{sayIn(line.overtaken, unit)}</div>}
              </>,
              line.found.template && <Num key="found">{sayIn(line.found, unit)}</Num>,
              <Num key="left">
                <b>{sayIn(line.value, unit)}</b>
              </Num>,
              <Num key="limit">{sayIn(line.limit, unit)}</Num>,
              line.overtaken.template ? (
                'to read again'
              ) : (
                <span key="said" className="said">
                  <Glyph {...line} /> {line.said}
                </span>
              ),
              <span key="source" className="note">
                {line.source}
              </span>,
            ])}
          />
        </section>
      )}
      {front && <Signatures of={front.signatures} isOfAFile={!!record.read_in} />}
      {front && front.instruments.length > 0 && (
        <section>
          <h3>Instruments</h3>
          <Table
            head={['Instrument', 'Number', 'Calibration', 'Used in']}
            rows={front.instruments.map((one) => [
              one.what,
              one.number,
              one.calibrated || 'not entered',
              one.used_in.join(', '),
            ])}
          />
        </section>
      )}
      {front && front.pictures.length > 0 && (
        <section>
          <h3>Photographs</h3>
          <div className="pictures">
            {front.pictures.map((one) => (
              <figure key={one.id}>
                <img alt={one.caption || 'photograph'} src={`/api/jobs/${jobId}/photographs/${one.id}`} />
                <figcaption className="note">{one.caption || one.step}</figcaption>
              </figure>
            ))}
          </div>
        </section>
      )}
    </>
  )
}

function Deviations({ of, unit }: { of: Front['deviations']; unit: LengthUnit }) {
  return (
    <section>
      <h3>Deviations and accepted limits</h3>
      {of.length === 0 ? (
        <p>None.</p>
      ) : (
        <Table
          head={['What', 'Reading', 'Limit', '', 'Who, when, why']}
          rows={of.map((one) => [
            <>
              {one.what}
              <div className="note">{one.step}</div>
            </>,
            <Num key="value">
              <b>{sayIn(one.value, unit)}</b>
            </Num>,
            <Num key="limit">{sayIn(one.limit, unit)}</Num>,
            one.said,
            one.by && (
              <>
                {one.by}, {one.role}
                {one.at && `, ${sayWhen(one.at)}`}
                {one.reason && `: ${one.reason}`}
              </>
            ),
          ])}
        />
      )}
    </section>
  )
}

function Signatures({ of, isOfAFile }: { of: Front['signatures']; isOfAFile: boolean }) {
  if (of.length === 0) return null
  return (
    <section>
      <h3>{isOfAFile ? 'Signatures, as the file has them' : 'Signatures'}</h3>
      <Table
        head={['Step', '', 'Who', 'When']}
        rows={of.map((one) => [one.step, SIGNED[one.kind].toLowerCase(), `${one.by}, ${one.role}`, sayWhen(one.at)])}
      />
    </section>
  )
}
