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
import { entriesOf, type Step, useJob } from './context'
import { readSinceItLeft } from './readSinceItLeft'

type Run = Schemas['HeatRunOut']
type Event = Schemas['NextOut']['event']

/** The run of a hot hub: how long it may be carried, large, by the server's clock; on the shaft that ends. */
export function HeatRunPanel({ step }: { step: Step }) {
  const job = useJob()
  const now = useServerNow(job.now)
  const { draft, change, clear } = useDraft(`${job.id}.${step.key}.pyrometer`, () => ({ cells: {}, choices: {} }))
  const [problem, setProblem] = useState('')
  const run = step.heat_run
  if (!run) return <Note>Work out the heat first: the countdown goes by it.</Note>
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
  const blocked = step.blocked_by.length > 0 && (run.phase === 'cold' || !job.locks.proof_due)
  // What may happen now comes from the server; once it grips nothing is expected any more.
  const may = run.may[run.phase] ?? []
  const main = run.phase === 'gripped' ? undefined : may[0]
  const others = may.filter((next) => next !== main)
  const plan = planOf(job, step)
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
        {run.ready_at && (
          <p>
            Hot at about <Num>{sayHour(run.ready_at)}</Num>, then let it soak.
          </p>
        )}
      </div>
      <div className="buttons">
        {main && (
          <MainButton isDisabled={blocked} onPress={() => send(main.event)}>
            {main.words}
          </MainButton>
        )}
        {others.map(({ event, words }) => (
          <PlainButton key={event} isDisabled={blocked} onPress={() => send(event)}>
            {words}
          </PlainButton>
        ))}
        <div className="row">
          <LabelledCell cell="hub" label="Hub" kind="temperature" unit="°C" draft={draft} change={change} problems={{}} />
          <PlainButton isDisabled={blocked} onPress={note}>
            Note it
          </PlainButton>
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

/** How long it may be carried; before that the target, after it how long the hub burns. */
function Countdown({ run, now }: { run: Run; now: number }) {
  const left = run.closes_at ? sinceNow(run.closes_at, now) : null
  const touch = run.touch_at ? sinceNow(run.touch_at, now) : null
  switch (run.phase) {
    case 'cold':
    case 'on the heater':
      return (
        <Big>
          <span>
            {run.phase === 'cold' ? (run.tries ? `Try ${run.tries + 1}: heat it to` : 'Heat it to') : 'On the heater, target'}
          </span>
          <b>{Math.round(run.target_c)} °C</b>
        </Big>
      )
    case 'on its way':
      return (
        <Big data-shut={left !== null && left <= 0 ? '' : undefined} role="timer" aria-label="Carry">
          <span>
            {left === null
              ? 'In this air the bore does not close'
              : left > 0
                ? 'May be carried for, in still air'
                : 'Carried too long. Do not slide it on: back to the heater.'}
          </span>
          {left !== null && <b>{left > 0 ? showTime(left) : `+${showTime(-left)}`}</b>}
          <strong>On the shaft it grips in seconds.</strong>
        </Big>
      )
    case 'on the shaft':
      return (
        <Big>
          <span>On the shaft it grips in seconds.</span>
          <b>Hold it</b>
          {run.on_at && run.out_at && (
            <small>carried for {showTime((Date.parse(run.on_at) - Date.parse(run.out_at)) / 1000)}</small>
          )}
        </Big>
      )
    case 'gripped':
      return (
        <Big role="timer" aria-label="Until it can be touched">
          <span>Gripped. Hot for about</span>
          {touch !== null && <b>{touch > 0 ? showTime(touch) : '0:00'}</b>}
        </Big>
      )
  }
}

function planOf(job: ReturnType<typeof useJob>, step: Step) {
  const current = job.steps.find((s) => s.key === step.heat_plan)?.current
  return (job.entries.find((e) => e.id === current)?.result as Schemas['HeatResult'] | undefined) ?? null
}

/** Every running countdown of this job, one line each, for the strip. */
export function RunningTimers() {
  const job = useJob()
  const now = useServerNow(job.now)
  const open = job.steps.filter((s) => s.heat_run?.phase === 'on its way' && s.heat_run.closes_at)
  return open.map((s) => {
    const left = sinceNow(s.heat_run!.closes_at!, now)
    return (
      <Timer key={s.key}>
        {left > 0 ? 'hot hub, left to carry' : 'hot hub, carried too long by'} <Num>{showTime(Math.abs(left))}</Num>
      </Timer>
    )
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
  b { display: block; font: 600 76px/0.95 var(--text); font-variant-numeric: tabular-nums; }
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
  ${Num} { font-weight: 600; font-size: 18px; margin-left: 4px; }
`
