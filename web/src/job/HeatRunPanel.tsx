import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append } from '../api/outbox'
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
import { carryOf, readyNow } from './RunClock'
import { readSinceItLeft } from './readSinceItLeft'

type Run = Schemas['HeatRunOut']
type Event = Schemas['NextOut']['event']
const LEAVES: readonly Event[] = ['out of the heater']

/** The run of a hot hub: what happens to it, what the pyrometer said, how it cools. Its clock stands where the verdict does. */
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
      jobId: job.id,
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
        <div className="curve">
          <CoolingCurve
            result={plan}
            readings={readSinceItLeft(entriesOf(job, step.key), run.out_at)}
            closes_s={run.out_at && run.closes_at ? (Date.parse(run.closes_at) - Date.parse(run.out_at)) / 1000 : undefined}
            now_s={run.out_at && run.phase === 'on its way' ? (now - Date.parse(run.out_at)) / 1000 : undefined}
          />
        </div>
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
  .curve { margin-top: 6px; }
  .row { display: flex; gap: 8px; align-items: center; }
  p[role='alert'] { font-weight: 600; }
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); .buttons { order: -1; } }
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
