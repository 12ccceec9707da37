import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append, newId } from '../api/outbox'
import { DraftReader } from '../benches/draft'
import { CoolingCurve } from '../benches/heat/CoolingCurve'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { Num } from '../kit/Allowance'
import { MainButton, PlainButton } from '../kit/Button'
import { sinceNow, useServerNow } from '../kit/serverClock'
import { showLength, showTime } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayHour } from '../units/when'
import { currentOf, entriesOf, isReadOn, type Step, useJob } from './context'
import { readSinceItLeft } from './readSinceItLeft'

type Run = Schemas['HeatRunOut']
type Event = Schemas['NextOut']['event']
const LEAVES: readonly Event[] = ['out of the heater']

/** The run of a hot hub: how long it may be carried, large, by the server's clock; on the shaft that ends. */
export function HeatRunPanel({ step }: { step: Step }) {
  const job = useJob()
  const now = useServerNow(job.now)
  const { draft, change, clear } = useDraft(`${job.id}.${step.key}.pyrometer`, () => ({ cells: {}, choices: {} }))
  const [problem, setProblem] = useState('')
  const run = step.heat_run
  if (!run) return <Note>Calculate the heat first: the countdown goes by it.</Note>
  const send = (event: Event, more: Record<string, unknown> = {}, typed: Record<string, string> = {}) => {
    setProblem('')
    return append({
      id: newId(),
      jobId: job.id,
      to: 'entries',
      step: step.key,
      happenedAt: Date.now(),
      body: { step: step.key, kind: 'event', inputs: { event, ...more }, typed },
    }).catch((why) => setProblem(why.message))
  }
  const reader = new DraftReader(draft)
  const degrees = reader.temperature('hub', 'hub_c')
  const note = () => {
    if (degrees === null) return setProblem('How hot is it?')
    return send('hub temperature', { hub_c: degrees }, reader.typed).then(clear)
  }
  // A hub that is hot waits for nobody: what happens to it is noted even where the dead state is to be proved meanwhile.
  // It may be on the heater while what is ticked before it leaves it is still to be done.
  const heats = run.phase === 'cold' || run.phase === 'on the heater'
  const gate = job.steps.find((s) => s.key === step.readied_by)
  const isGate = (block: Step['blocked_by'][number]) => block.step === gate?.key && gate.blocked_by.length === 0
  const isHeld = step.blocked_by.length > 0 && (run.phase === 'cold' || !job.locks.proof_due)
  const blocked = isHeld && !(heats && step.blocked_by.every(isGate))
  const mayLeave = !isHeld || step.blocked_by.length === 0
  // What may happen now comes from the server; once it grips nothing is expected any more.
  const may = run.may[run.phase] ?? []
  const main = run.phase === 'gripped' ? undefined : may[0]
  const others = may.filter((next) => next !== main)
  const plan = planOf(job, step)
  // While it is not ready the pyrometer is what is needed.
  const isEarly = run.phase === 'on the heater' && readyNow(run, now) !== 'go'
  const [Onward, Pyrometer] = isEarly ? [PlainButton, MainButton] : [MainButton, PlainButton]
  return (
    <Panel data-bench>
      <div>
        <Countdown run={run} now={now} />
        {run.too_hot_c !== null && (
          <TooHot role="alert">
            Over: read at <Num>{Math.round(run.too_hot_c)} °C</Num>, ceiling <Num>{Math.round(run.ceiling_c)} °C</Num>. Its
            metal may be spoiled. Do not fit it before the maker has said that it may be used.
          </TooHot>
        )}
        {run.hub_c !== null && <LastRead run={run} />}
        {run.phase === 'cold' && run.heating_s !== null && (
          <p>
            Put on the heater now it is hot at <Num>{sayHour(new Date(now + run.heating_s * 1000).toISOString())}</Num>. Be
            ready by then, not before.
          </p>
        )}
        {run.ready_at && sinceNow(run.ready_at, now) > 0 && (
          <p>
            Hot at about <Num>{sayHour(run.ready_at)}</Num>.
          </p>
        )}
      </div>
      <div className="buttons">
        {main && (
          <Onward isDisabled={blocked || (!mayLeave && LEAVES.includes(main.event))} onPress={() => send(main.event)}>
            {main.words}
          </Onward>
        )}
        {others.map(({ event, words }) => (
          <PlainButton key={event} isDisabled={blocked || (!mayLeave && LEAVES.includes(event))} onPress={() => send(event)}>
            {words}
          </PlainButton>
        ))}
        <div className="row">
          <LabelledCell cell="hub" label="Hub" kind="temperature" unit="°C" draft={draft} change={change} problems={{}} />
          <Pyrometer isDisabled={blocked} onPress={note}>
            Log temperature
          </Pyrometer>
        </div>
        {problem && <p role="alert">{problem}</p>}
      </div>
      <div className="curve">
        <CoolingCurve
          result={plan}
          readings={readSinceItLeft(entriesOf(job, step.key), run.out_at)}
          closes_s={run.out_at && run.closes_at ? (Date.parse(run.closes_at) - Date.parse(run.out_at)) / 1000 : undefined}
          now_s={run.out_at && run.phase === 'on its way' ? (now - Date.parse(run.out_at)) / 1000 : undefined}
        />
      </div>
    </Panel>
  )
}

/** The pyrometer's last word, and what it means for the bore. */
function LastRead({ run }: { run: Run }) {
  const unit = useUnit()
  return (
    <p>
      Last read <Num>{Math.round(run.hub_c!)} °C</Num>
      {run.clear_mm === null ? (
        '.'
      ) : run.clear_mm > 0 ? (
        <>
          : clear by{' '}
          <Num>
            {showLength(run.clear_mm, unit, 3)} {unit}
          </Num>
        </>
      ) : (
        ': it would grip.'
      )}
    </p>
  )
}

/** What is waited for, large: ready to leave the heater, the carry, the seconds on the shaft, how long the hub burns. */
function Countdown({ run, now }: { run: Run; now: number }) {
  switch (run.phase) {
    case 'cold':
      return (
        <Big>
          <span>{run.tries ? `Try ${run.tries + 1}: heat it to` : 'Heat it to'}</span>
          <b>{Math.round(run.target_c)} °C</b>
        </Big>
      )
    case 'on the heater':
      return <OnHeater run={run} now={now} />
    case 'on its way':
      return <Carry run={run} now={now} />
    case 'on the shaft':
      return <OnShaft run={run} now={now} />
    case 'gripped':
      return (
        <Big role="timer" aria-label="Until it can be touched">
          <span>Gripped. Hot for about</span>
          {run.touch_at !== null && <b>{showTime(Math.max(sinceNow(run.touch_at, now), 0))}</b>}
        </Big>
      )
  }
}

const isOld = (run: Run, now: number) => run.ready_until !== null && sinceNow(run.ready_until, now) <= 0
const soakLeft = (run: Run, now: number) => (run.soaked_at === null ? 0 : sinceNow(run.soaked_at, now))

/** What the pyrometer said last, the soak and the age of that reading taken into account. */
function readyNow(run: Run, now: number): Run['ready'] | 'read it again' {
  const ready = run.ready === 'soak' && soakLeft(run, now) <= 0 ? 'go' : run.ready
  return (ready === 'go' || ready === 'soak') && isOld(run, now) ? 'read it again' : ready
}

/** Go, wait, or read it again: by what the pyrometer said last, and how long ago. */
function OnHeater({ run, now }: { run: Run; now: number }) {
  const ready = readyNow(run, now)
  const last = `${Math.round(run.hub_c ?? 0)} of ${Math.round(run.target_c)}`
  const said = () => {
    switch (ready) {
      case 'over its ceiling':
        return ['Over its ceiling, °C. Take it off the heater.', last]
      case 'wait':
        return [isOld(run, now) ? 'Wait, and read it again: °C' : 'Wait: °C', last]
      case 'read it again':
        return [`It was at ${last} °C. Read it again before it leaves.`, 'Read it again']
      case 'soak':
        return ['Hot enough. Let it soak for', showTime(soakLeft(run, now))]
      case 'go':
        return [`${last} °C: hot enough`, 'Go']
      default:
        return ['Read the hub with the pyrometer', 'Read it']
    }
  }
  const [words, large] = said() as [string, string]
  return (
    <Big role="status" aria-label="Ready to leave the heater" data-shut={ready === 'over its ceiling' ? '' : undefined}>
      <span>{words}</span>
      <b>{large}</b>
      {run.heating_since && <small>on the heater for {showTime(-sinceNow(run.heating_since, now))}</small>}
    </Big>
  )
}

/** What is left of the carry: still time to push it to the stop, little of it, none; null seconds where the bore does not close. */
function carryOf(run: Run, now: number) {
  const open = run.closes_at ? sinceNow(run.closes_at, now) : null
  const carry = run.carry_until ? sinceNow(run.carry_until, now) : open
  if (open !== null && open <= 0) return { is: 'too long', seconds: -open, open } as const
  if (carry === null) return { is: 'no end', seconds: null, open } as const
  return { is: carry > 0 ? 'left' : 'little', seconds: Math.abs(carry), open } as const
}

const CARRY_WORDS = {
  left: 'Left to carry it',
  little: 'Little time left on the shaft: push it on in one go, or heat it again.',
  'too long': 'Carried too long. Do not slide it on: back to the heater.',
  'no end': 'In this air the bore does not close',
}

/** How long it may be carried and still be pushed home; and how long it stays open at all. */
function Carry({ run, now }: { run: Run; now: number }) {
  const { is, seconds, open } = carryOf(run, now)
  return (
    <Big data-shut={is === 'too long' ? '' : undefined} role="timer" aria-label="Carry">
      <span>{CARRY_WORDS[is]}</span>
      {seconds !== null && <b>{is === 'left' ? showTime(seconds) : `+${showTime(seconds)}`}</b>}
      {open !== null && open > 0 && <small>open for another {showTime(open)} in still air, if nothing touches it</small>}
      <strong>On the shaft it grips in seconds.</strong>
    </Big>
  )
}

/** The seconds there are to push it home, and what to do when it stops short. */
function OnShaft({ run, now }: { run: Run; now: number }) {
  const least = run.grips_from ? sinceNow(run.grips_from, now) : null
  const most = run.grips_by ? sinceNow(run.grips_by, now) : null
  const words =
    least === null
      ? 'On the shaft it grips in seconds.'
      : least > 0
        ? 'Push it on: it may grip in'
        : most !== null && most > 0
          ? 'It may grip now.'
          : 'It has gripped, as calculated.'
  return (
    <Big role="timer" aria-label="Until it may grip">
      <span>{words}</span>
      <b>{least !== null && least > 0 ? `${Math.ceil(least)} s` : 'Hold it'}</b>
      {run.on_at && run.out_at && (
        <small>carried for {showTime((Date.parse(run.on_at) - Date.parse(run.out_at)) / 1000)}</small>
      )}
      <strong>Stopped short? Do not hammer it. Pull it off at once while it is hot, cool both, find out why.</strong>
    </Big>
  )
}

function planOf(job: ReturnType<typeof useJob>, step: Step) {
  const plan = job.steps.find((s) => s.key === step.heat_plan)
  const current = plan && currentOf(job, plan)
  return isReadOn(current, 'heat') ? current.result : null
}

/** Every running countdown of this job, one line each, for the strip. */
export function RunningTimers() {
  const job = useJob()
  const now = useServerNow(job.now)
  return job.steps.flatMap((s) => {
    const run = s.heat_run
    if (run?.phase !== 'on its way') return []
    const { is, seconds, open } = carryOf(run, now)
    const [words, left] = {
      left: ['left to carry', seconds],
      little: ['push it on at once, open for', open],
      'too long': ['carried too long by', seconds],
      'no end': ['on its way', null],
    }[is] as [string, number | null]
    return [
      <Timer key={s.key}>
        hot hub, {words} {left !== null && <Num>{showTime(left)}</Num>}
      </Timer>,
    ]
  })
}

const Note = styled.p`
  padding: 10px 16px;
  color: var(--ink-2);
`
const Panel = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(240px, 320px);
  gap: 8px 20px;
  padding: 10px 16px;
  border-bottom: 2px solid var(--ink);
  .buttons { display: flex; flex-direction: column; gap: 8px; }
  .curve { grid-column: 1 / -1; }
  .row { display: flex; gap: 8px; align-items: center; }
  p[role='alert'] { font-weight: 600; }
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`
const Big = styled.div`
  span { display: block; font-weight: 500; }
  b { display: block; font: 600 var(--fs-clock)/0.95 var(--text); font-variant-numeric: tabular-nums; }
  small { color: var(--ink-2); }
  strong { display: block; font-weight: 600; margin-top: 4px; }
  &[data-shut] { background: var(--ink); color: var(--paper); padding: 8px 12px; }
`
const TooHot = styled.p`
  border: 3px solid var(--ink);
  padding: 6px 10px;
  margin: 6px 0;
`
const Timer = styled.span`
  align-self: center;
  padding: 0 14px;
  border-right: 1.25px solid var(--line);
  white-space: nowrap;
  ${Num} { font-weight: 600; font-size: var(--fs-sub); margin-left: 4px; }
`
