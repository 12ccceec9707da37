import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { api, bring, Refused, type Schemas } from '../api/client'
import { instrumentsOptions, usableOptions } from '../api/queries'
import { sayDay } from '../drawing/overTime'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { TopLinks } from '../frame/TopLinks'
import { MainButton, PlainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { Pick } from '../kit/Pick'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayEach } from '../units/say'
import { sayWhen } from '../units/when'
import { sayDays } from './due'

type Instrument = Schemas['InstrumentOut']
const NEW_KINDS = ['dial', 'laser', 'micrometer', 'pyrometer', 'strobe', 'vibration meter'] as const
type Slips = { what: 'calibrated'; of: Instrument | null } | { what: 'withdraw'; of: Instrument } | null

/** Everything that measures: until when its calibration holds, what is withdrawn, and what it read in open jobs. */
export function InstrumentsView() {
  const { data, error } = useQuery(instrumentsOptions)
  const mayKeep = useMay('keep instruments')
  const [slip, setSlip] = useState<Slips>(null)
  if (!data) return error ? <Lost why={error} /> : null
  const { instruments, today } = data
  const late = instruments.filter((one) => !one.withdrawn_at && isOutOfDate(one, today)).length
  return (
    <Sheet
      title="Instruments"
      note={late === 0 ? `${instruments.length} in the register` : `${late} out of date`}
      tools={
        <TopLinks>
          <Link href="/due">What is due</Link>
        </TopLinks>
      }
    >
      <Page>
        {mayKeep && (
          <div className="tools">
            <PlainButton onPress={() => setSlip({ what: 'calibrated', of: null })}>Add an instrument</PlainButton>
            <p>Wrenches come here from the bolts they pull, brackets from the dials they hold.</p>
          </div>
        )}
        <ul>
          {instruments.map((one) => (
            <Row key={`${one.kind} ${one.name}`} one={one} today={today} mayKeep={mayKeep} onSlip={setSlip} />
          ))}
        </ul>
        {instruments.length === 0 && <p>No instrument in the register yet.</p>}
        {slip?.what === 'calibrated' && <Calibrated of={slip.of} onClose={() => setSlip(null)} />}
        {slip?.what === 'withdraw' && <Withdraw of={slip.of} onClose={() => setSlip(null)} />}
      </Page>
    </Sheet>
  )
}

const isOutOfDate = (one: Instrument, today: string) => one.calibrated_until !== null && one.calibrated_until < today

function sayState(one: Instrument, today: string): string {
  if (one.withdrawn_at) return `withdrawn ${sayWhen(one.withdrawn_at)} by ${one.withdrawn_by}: ${one.withdrawn_because}`
  if (!one.calibrated_until) return 'no calibration noted'
  return `calibrated until ${sayDay(one.calibrated_until)}, ${isOutOfDate(one, today) ? 'out of date: not used' : sayDays(one.calibrated_until, today)}`
}

interface RowProps {
  one: Instrument
  today: string
  mayKeep: boolean
  onSlip: (slip: Slips) => void
}

function Row({ one, today, mayKeep, onSlip }: RowProps) {
  const isOut = !!one.withdrawn_at || isOutOfDate(one, today)
  return (
    <li data-late={isOut || undefined}>
      <div>
        <b>{one.called}</b>
        <small>{sayState(one, today)}</small>
        {one.changes.length > 0 && (
          <details>
            <summary>Its history</summary>
            {one.changes.map((change) => (
              <small key={change.at}>
                {sayWhen(change.at)}, {change.by}: {change.what}
              </small>
            ))}
          </details>
        )}
        {one.used_in.map((used) => (
          <small key={`${used.job} ${used.step}`}>
            Read with it in an open job:{' '}
            <Link href={`/jobs/${used.job}`}>
              job {used.number}, {used.line}
            </Link>
            , {used.step}. Read it again with another one.
          </small>
        ))}
      </div>
      {mayKeep && (
        <div className="does">
          <PlainButton
            aria-label={`${one.called}: back from calibration`}
            onPress={() => onSlip({ what: 'calibrated', of: one })}
          >
            Back from calibration
          </PlainButton>
          {!one.withdrawn_at && (
            <PlainButton aria-label={`Withdraw ${one.called}`} onPress={() => onSlip({ what: 'withdraw', of: one })}>
              Withdraw
            </PlainButton>
          )}
        </div>
      )}
    </li>
  )
}

function useSave(onClose: () => void) {
  const unit = useUnit()
  const client = useQueryClient()
  const [problems, setProblems] = useState<Record<string, string>>({})
  const save = async (call: () => Promise<Schemas['RegisterOut']>) => {
    try {
      client.setQueryData(instrumentsOptions.queryKey, await call())
      client.invalidateQueries({ queryKey: usableOptions.queryKey })
      client.invalidateQueries({ queryKey: ['due'] })
      onClose()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setProblems(sayEach(why.problems, unit))
    }
  }
  return { problems, save }
}

function Calibrated({ of, onClose }: { of: Instrument | null; onClose: () => void }) {
  const [kind, setKind] = useState<Instrument['kind']>(of?.kind ?? 'dial')
  const [name, setName] = useState(of?.name ?? '')
  const [until, setUntil] = useState('')
  const { problems, save } = useSave(onClose)
  const put = () =>
    save(() => bring(api.PUT('/api/instruments', { body: { kind, name: name.trim(), calibrated_until: until } })))
  return (
    <Slip title={of ? `${of.called}: back from calibration` : 'Add an instrument'} isOpen onClose={onClose}>
      {!of && (
        <>
          <Pick label="What it is" options={NEW_KINDS} value={kind} onChange={(v) => setKind(v as Instrument['kind'])} />
          <Words label="Its number" value={name} onChange={setName} problem={problems.name} />
        </>
      )}
      {of && problems.name && <p role="alert">{problems.name}</p>}
      <Words label="Calibrated until" type="date" value={until} onChange={setUntil} problem={problems.calibrated_until} />
      <MainButton isDisabled={!until || !name.trim()} onPress={put}>
        {of ? 'Put it back in use' : 'Add it'}
      </MainButton>
    </Slip>
  )
}

function Withdraw({ of, onClose }: { of: Instrument; onClose: () => void }) {
  const [reason, setReason] = useState('')
  const { problems, save } = useSave(onClose)
  const put = () =>
    save(() => bring(api.POST('/api/instruments/withdraw', { body: { kind: of.kind, name: of.name, reason } })))
  return (
    <Slip title={`Withdraw ${of.called}`} isOpen onClose={onClose}>
      <p>Nothing is entered with it from now on, wherever it is. What it read in open jobs is named here.</p>
      <Words
        label="Reason"
        value={reason}
        onChange={setReason}
        problem={problems.reason}
        detail="Dropped, out of its band, lost"
      />
      <MainButton isDisabled={!reason.trim()} onPress={put}>
        Withdraw it
      </MainButton>
    </Slip>
  )
}

const Page = styled.div`
  .tools { display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; padding: 10px 16px; border-bottom: 1.25px solid var(--line); color: var(--ink-2); }
  > p { padding: 16px; }
  li { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 6px 20px; align-items: center; padding: 8px 16px; border-bottom: 0.75px solid var(--line); line-height: 1.3; }
  li[data-late] { border-left: 8px solid var(--ink); padding-left: 8px; }
  li > div:first-child { flex: 1 1 320px; min-width: 0; }
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
  small a { display: inline-flex; min-height: var(--touch); align-items: center; }
  .does { display: flex; flex-wrap: wrap; gap: 8px; }
`
