import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { useOthers } from '../api/live'
import { append, newId } from '../api/outbox'
import { catalogueOptions } from '../api/queries'
import { Tray } from '../frame/Tray'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { sinceNow, useServerNow } from '../kit/serverClock'
import { askedBy, asksOf, heldIn, mayHave, ofBothHubs } from '../line/asked'
import { Documents } from '../line/Documents'
import { ValueLines } from '../line/ValueLines'
import { useMay } from '../session/may'
import { showTime } from '../units/length'
import { useUnit } from '../units/preferences'
import { type Step, useJob } from './context'
import { HandOver } from './HandOver'
import { RunningTimers } from './HeatRunPanel'
import { lastChange } from './lastChange'
import { saveValues } from './saveValues'

type Open = 'card' | 'ledger' | 'provisional' | 'hand-over' | null

/** What runs through every stage, one tap away: the value card, the ledger, what is provisional, what waits to be sent. */
export function Reach({ step, waiting }: { step: Step; waiting: string }) {
  const job = useJob()
  const unit = useUnit()
  const [open, setOpen] = useState<Open>(null)
  const { coupling } = job.spec
  const catalogue = useQuery(catalogueOptions).data
  const mayChange = useMay('change values of the card')
  const asked = askedBy(catalogue, asksOf(job.spec))
  /** What stands is the lead's to change: with its figure, its paper and the reason it is a question that waits. */
  const askFor = (key: string, value: Schemas['Value'], reason: string) => {
    const kind = catalogue?.kinds.find((one) => one.key === key.split('@')[0])
    const { document, issue, page } = value.source
    const figure = kind?.words_only
      ? value.means
      : `${value.typed || value.value} ${kind?.unit_by_means[value.means] ?? kind?.unit ?? ''}`
    const paper = [value.source.kind, document, issue && `issue ${issue}`, page && `page ${page}`].filter(Boolean).join(', ')
    return `Please change “${kind?.title ?? key}” on the card to ${figure.trim()} (${paper}). ${reason}`
  }
  const missing = new Set(job.steps.flatMap((s) => s.needs).filter((key) => !(key in job.card))).size
  const out = job.ledger.filter((line) => line.open).length
  const close = () => setOpen(null)
  return (
    <Bar>
      <button type="button" onClick={() => setOpen('card')}>
        Value card{missing > 0 && <b> {missing} missing</b>}
      </button>
      <button type="button" onClick={() => setOpen('ledger')}>
        Ledger{out > 0 && <b> {out} out</b>}
      </button>
      <button type="button" onClick={() => setOpen('provisional')}>
        Not final yet{job.provisional.length > 0 && <b> {job.provisional.length}</b>}
      </button>
      {!job.closed && (
        <button type="button" onClick={() => setOpen('hand-over')}>
          Break / hand-over
        </button>
      )}
      <Tray jobId={job.id} titleOf={(key) => job.steps.find((s) => s.key === key)?.title ?? key} />
      {job.cancelled_by && <strong>Cancelled by {job.cancelled_by}</strong>}
      {job.locks.live && !job.closed && <strong>Locks are off</strong>}
      <RunningTimers />
      <HeldBy />
      {waiting && <output>{waiting}</output>}
      <AtThisStep step={step} />
      <Slip title="Value card" isOpen={open === 'card'} onClose={close} wide>
        <p>
          Every limit and torque with its document. A step whose value is missing waits for it; whoever works fills it in.
          What is on it is changed by the lead; others ask, with the paper and the reason. Samples are invented and bind
          nobody.
        </p>
        <Documents card={job.card} />
        <ValueLines
          place={`${job.id}.card`}
          keys={[...new Set([...asked, ...Object.keys(job.card), ...job.steps.flatMap((s) => s.needs)])]}
          mayHave={mayHave(catalogue, coupling.family)}
          perHub={ofBothHubs(catalogue, heldIn(coupling))}
          card={job.card}
          needed={step.needs}
          canEdit={!job.closed}
          changes={mayChange ? 'with a reason' : 'asked of the lead'}
          changed={(key) => lastChange(job, key)}
          onSaveAll={(values) => saveValues(values, { jobId: job.id, step: step.key, unit })}
          onSave={async (key, value, reason) => {
            const asks = !mayChange && key in job.card
            const body = asks
              ? ({ step: step.key, kind: 'question', inputs: { text: askFor(key, value, reason) } } as const)
              : ({ step: step.key, kind: 'value', inputs: { key, value, ...(reason && { reason }) } } as const)
            await append({ jobId: job.id, body })
          }}
        />
      </Slip>
      <Slip title="Ledger" isOpen={open === 'ledger'} onClose={close} wide>
        <LedgerLines step={step} />
      </Slip>
      <Slip title="Not final yet" isOpen={open === 'provisional'} onClose={close}>
        {job.provisional.length ? (
          <ul>
            {job.provisional.map((what) => (
              <li key={what}>{what}</li>
            ))}
          </ul>
        ) : (
          <p>Everything is final.</p>
        )}
      </Slip>
      <HandOver step={step} isOpen={open === 'hand-over'} onClose={close} />
    </Bar>
  )
}

/** What holds a weight for now, and what was laid and skins over: in the strip, like a clock that runs. */
function HeldBy() {
  const job = useJob()
  const now = useServerNow(job.now)
  if (job.closed) return null
  return (
    <>
      {job.held.map((held) => (
        <Held key={held.what} role="status" title={held.until && `until: ${held.until}`}>
          {held.what} held by: <b>{held.by}</b>
        </Held>
      ))}
      {job.skins.map(({ what, until, step }) => {
        const left = sinceNow(until, now)
        return (
          <Held key={step} role="timer" aria-label={`${what}, open time left`}>
            {what} {left > 0 ? 'open' : 'skinned over'} <b>{showTime(Math.abs(left))}</b>
          </Held>
        )
      })}
    </>
  )
}

/** In the strip, where nothing moves away under a finger when somebody comes or begins to type. */
function AtThisStep({ step }: { step: Step }) {
  const here = useOthers(useJob().id).filter((other) => other.step === step.key)
  const typing = here.find((other) => other.typing)
  if (typing) return <output>{typing.name} is typing here too: both will stand</output>
  return here[0] ? <output>{here[0].name} is at this step too</output> : null
}

const GOES = ['temporary, must come out', 'removed, must go back'] as const

function LedgerLines({ step }: { step: Step }) {
  const job = useJob()
  const [what, setWhat] = useState('')
  const [count, setCount] = useState('1')
  const [goes, setGoes] = useState<(typeof GOES)[number]>('temporary, must come out')
  const [problem, setProblem] = useState('')
  const send = (inputs: Schemas['LedgerCount']) =>
    append({ jobId: job.id, body: { step: step.key, kind: 'ledger', inputs } })
      .then(() => {
        setProblem('')
        setWhat('')
        setCount('1')
      })
      .catch((why) => setProblem(why.message))
  // Never disabled: a button that goes dead under the finger takes the keyboard's focus with it.
  const countOut = () => {
    if (!what.trim()) return setProblem('Say what was counted out.')
    if (!/^[1-9]\d*$/.test(count)) return setProblem('How many? A whole number.')
    return send({ line: newId(), what: what.trim(), goes, counted: 'out', count: Number(count) })
  }
  return (
    <Ledger>
      <p>
        What went in for the work must come out; what came off must go back. The record cannot be signed while a line is open.
      </p>
      <ul>
        {job.ledger.map((line) => (
          <li key={line.line}>
            <span>
              <b>{line.what}</b>
              <small>
                {line.goes}; {line.out} out, {line.back} back
              </small>
            </span>
            {line.open ? (
              <PlainButton
                onPress={() => send({ line: line.line, what: line.what, goes: line.goes, counted: 'back', count: 1 })}
              >
                Return 1
              </PlainButton>
            ) : (
              <span>closed</span>
            )}
          </li>
        ))}
      </ul>
      <Words
        label="What"
        value={what}
        onChange={setWhat}
        detail="set screw of the motor hub, strap, spacer bar, eye bolt …"
        problem={problem}
      />
      <Words label="How many" value={count} onChange={setCount} />
      <Choice label="Part" options={GOES} value={goes} onChange={setGoes} />
      <PlainButton onPress={countOut}>Add to ledger</PlainButton>
    </Ledger>
  )
}

const Bar = styled.div`
  display: flex;
  align-items: stretch;
  min-width: 0;
  > button { padding: 0 14px; min-height: var(--touch); border-right: 1.25px solid var(--line); font-weight: 500; white-space: nowrap; }
  > button:focus-visible { outline-offset: -4px; }
  b { font-weight: 600; }
  > strong { align-self: center; padding: 4px 10px; margin: 0 8px; font-weight: 600; white-space: nowrap; background: var(--ink); color: var(--paper); }
  output { align-self: center; padding: 0 12px; font-weight: 600; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
`
const Held = styled.span`
  align-self: center;
  padding: 3px 10px;
  margin-left: 8px;
  border: 2px solid var(--ink);
  font-size: var(--fs-text);
  white-space: nowrap;
  b { font-weight: 600; }
  @media (max-width: 860px) { order: -1; margin: 0 8px 0 4px; }
`
const Ledger = styled.div`
  display: flex;
  flex-direction: column;
  gap: 10px;
  li { display: flex; justify-content: space-between; align-items: center; gap: 12px; border-bottom: 0.75px solid var(--line); padding: 4px 0; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
`
