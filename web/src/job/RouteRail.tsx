import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { type Here, useOthers } from '../api/live'
import { Chevron } from '../kit/Chevron'
import { NARROW } from '../kit/widths'
import { showTime } from '../units/length'
import { sayHour } from '../units/when'
import { isSettled, type Job, type Step, useJob } from './context'
import { STATE_WORDS } from './states'

/** Not said in the list: its mark says it. */
const BY_ITS_MARK: ReadonlySet<Step['state']> = new Set(['blocked', 'open', 'done'])

/** The route on a scribed line: stages as balloons, the steps of the one that is open, holds and points of no return. */
export function RouteRail({ live }: { live: Step }) {
  const job = useJob()
  const others = useOthers(job.id)
  const [open, setOpen] = useState(live.stage)
  const list = useRef<HTMLOListElement>(null)
  useEffect(() => setOpen(live.stage), [live.stage])
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is looked for is another one then
  useEffect(() => showLive(list.current), [live.key, open])
  const stages = [...new Set(job.steps.map((s) => s.stage))]
  const [isUnfolded, unfold] = useState(false)
  // biome-ignore lint/correctness/useExhaustiveDependencies: whoever went to another step has read the list
  useEffect(() => unfold(false), [live.key])
  return (
    <Rail
      aria-label="Route"
      data-unfolded={isUnfolded || undefined}
      onKeyDown={(event) => event.key === 'Escape' && unfold(false)}
    >
      <InOneLine live={live} stages={stages} isUnfolded={isUnfolded} onPress={() => unfold(!isUnfolded)} />
      <Whole>
        <Head href={`/jobs/${job.id}/record`}>
          <b>Job {job.number}</b>
          <span>{job.title}</span>
        </Head>
        <Route>
          {stages.map((stage, i) => {
            const steps = job.steps.filter((s) => s.stage === stage)
            const state = stageState(steps)
            return (
              <li key={stage} data-state={state}>
                <Stage type="button" aria-expanded={open === stage} onClick={() => setOpen(stage)}>
                  <i>{i + 1}</i>
                  <span>
                    {stage}
                    <small>{stageNote(steps)}</small>
                  </span>
                </Stage>
                {open === stage && (
                  <Steps ref={list}>
                    {steps.map((step) => (
                      <li key={step.key}>
                        <Link
                          href={`/jobs/${job.id}/steps/${step.key}`}
                          data-state={step.state}
                          aria-current={step.key === live.key ? 'step' : undefined}
                        >
                          <Mark step={step} isLive={step.key === live.key} />
                          <span>
                            {step.title}
                            <Duration step={step} />
                            {others.some((here) => here.step === step.key) && (
                              <small>here: {namesAt(others, step.key)}</small>
                            )}
                            {stateWords(step) && <em>{stateWords(step)}</em>}
                          </span>
                        </Link>
                        {step.no_return && (
                          <NoReturn data-fold data-passed={step.state === 'done' ? '' : undefined}>
                            {step.state === 'done' ? 'passed' : 'no way back after this'}
                          </NoReturn>
                        )}
                      </li>
                    ))}
                  </Steps>
                )}
              </li>
            )
          })}
        </Route>
        <Foot data-fold href="/">
          To the floor
        </Foot>
      </Whole>
    </Rail>
  )
}

interface InOneLineProps {
  live: Step
  stages: readonly Step['stage'][]
  isUnfolded: boolean
  onPress: () => void
}

/** The route where there is no margin for it: the stage, the step among its own, a dot a stage; it opens over the sheet. */
function InOneLine({ live, stages, isUnfolded, onPress }: InOneLineProps) {
  const job = useJob()
  const mine = job.steps.filter((step) => step.stage === live.stage)
  return (
    <OneLine type="button" aria-expanded={isUnfolded} onClick={onPress}>
      <i>{stages.indexOf(live.stage) + 1}</i>
      <b>{live.stage}</b>
      <span>
        step {mine.findIndex((step) => step.key === live.key) + 1} of {mine.length}
      </span>
      <Chevron isUp={isUnfolded} />
      <svg width={stages.length * 22} height="18" viewBox={`0 0 ${stages.length * 22} 18`} aria-hidden="true" data-dots>
        {stages.map((stage, i) => {
          const state = stageState(job.steps.filter((step) => step.stage === stage))
          const isLive = stage === live.stage
          return (
            <circle
              key={stage}
              cx={11 + i * 22}
              cy="9"
              r={isLive ? 6.5 : 5.5}
              fill={state === 'done' && !isLive ? 'var(--ink)' : 'var(--paper)'}
              stroke={isLive ? 'var(--blue)' : 'var(--ink)'}
              strokeWidth={isLive ? 3 : 1.25}
            />
          )
        })}
      </svg>
    </OneLine>
  )
}

/** The step that is worked on, in the middle of the list where it is longer than its place. */
function showLive(list: HTMLOListElement | null) {
  const at = list?.querySelector<HTMLElement>('[aria-current]')
  if (list && at && list.scrollHeight > list.clientHeight) list.scrollTop = at.offsetTop - list.clientHeight / 2
}

function namesAt(others: readonly Here[], step: string): string {
  return [...new Set(others.filter((here) => here.step === step).map((here) => here.name))].join(', ')
}

function stateWords(step: Step): string {
  if (step.waits) return 'not sent'
  if (step.optional && !step.current) return 'optional'
  return BY_ITS_MARK.has(step.state) ? '' : STATE_WORDS[step.state]
}

/** How long a hot hub takes, or when this can start. */
function Duration({ step }: { step: Step }) {
  const words = step.not_before ? [`cold about ${sayHour(step.not_before)}`] : step.heat_run ? sayRun(step.heat_run) : []
  return words.length > 0 && step.state !== 'done' && <small>{words.join(', ')}</small>
}

function sayRun(run: NonNullable<Step['heat_run']>): string[] {
  if (run.ready_at) return [`on the heater, hot about ${sayHour(run.ready_at)}`]
  if (run.phase !== 'cold') return []
  return [
    run.heating_s ? `heats ${showTime(run.heating_s)}` : '',
    run.window_s ? `carry ${showTime(run.window_s)}` : '',
    run.cooling_s ? `cools ${showTime(run.cooling_s)}` : '',
  ].filter(Boolean)
}

function stageState(steps: Job['steps']) {
  if (steps.every(isSettled)) return 'done'
  return steps.every((s) => s.state === 'blocked') ? 'ahead' : 'open'
}

function stageNote(steps: Job['steps']) {
  const asked = steps.filter((s) => !s.optional || s.current !== null)
  const done = asked.filter(isSettled).length
  const bad = steps.find((s) => s.state === 'stale' || s.state === 'over' || s.state === 'cannot tell yet')
  return bad ? `${STATE_WORDS[bad.state]}, ${done} of ${asked.length}` : `${done} of ${asked.length}`
}

/** Tick on the line, blue diamond, flag of a hold. */
function Mark({ step, isLive }: { step: Step; isLive: boolean }) {
  if (isLive)
    return (
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <path d="M9 1L17 9L9 17L1 9Z" fill="var(--blue)" />
      </svg>
    )
  if (step.hold)
    return (
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <path
          d="M4 17V2H15L12 6L15 10H4"
          fill={step.state === 'done' ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      </svg>
    )
  const weight = step.state === 'done' ? 2 : 1.25
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      {step.state === 'stale' ? (
        <path d="M1 9Q4 4 7 9T13 9T17 9" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      ) : step.state === 'over' ? (
        <path d="M3 3V15M11 3V15M15.5 9h.1" stroke="var(--ink)" strokeWidth="2" strokeLinecap="round" />
      ) : (
        <path
          d="M3 9H15"
          stroke={step.state === 'blocked' ? 'var(--line)' : 'var(--ink)'}
          strokeWidth={weight}
          strokeDasharray={step.state === 'done' ? undefined : '4 3'}
        />
      )}
    </svg>
  )
}

const Rail = styled.nav``
const OneLine = styled.button`
  display: none;
  ${NARROW} {
    display: flex;
    width: 100%;
    min-height: max(48px, var(--touch));
    align-items: center;
    gap: 10px;
    padding: 0 14px;
    i { width: 29px; height: 29px; flex: none; border-radius: 50%; border: 1.25px solid var(--ink); background: var(--leaf); display: grid; place-items: center; font: 500 var(--fs-text) var(--read); }
    b { font-size: var(--fs-body); font-weight: 600; white-space: nowrap; }
    span { font-size: var(--fs-small); color: var(--ink-2); white-space: nowrap; }
    svg { flex: none; }
    [data-dots] { margin-left: auto; }
  }
  @media (max-width: 480px) { [data-dots] { display: none; } }
`
const Whole = styled.div`
  ${NARROW} {
    display: none;
    ${Rail}[data-unfolded] & {
      display: block;
      position: absolute;
      top: 100%;
      left: 0;
      right: 0;
      max-height: 66vh;
      overflow-y: auto;
      background: var(--rail);
      border-bottom: 3px solid var(--ink);
    }
  }
`
const Head = styled(Link)`
  display: block;
  padding: 10px 14px 8px;
  border-bottom: 1.25px solid var(--line);
  text-decoration: none;
  white-space: nowrap;
  overflow: hidden;
  b { font-size: var(--fs-body); font-weight: 600; display: block; line-height: 1.2; }
  span { font-size: var(--fs-small); color: var(--ink-2); }
`
const Route = styled.ol`
  position: relative;
  > li[data-state='done'] > button i { background: var(--ink); color: var(--paper); }
  > li[data-state='open'] > button i { border: 3px solid var(--blue); color: var(--blue); background: var(--leaf); }
  > li[data-state='ahead'] > button { color: var(--ink-2); }
  &::before { content: ''; position: absolute; left: 27px; top: 22px; bottom: 22px; border-left: 1.25px solid var(--ink); }
`
const Stage = styled.button`
  display: flex;
  width: 100%;
  min-height: var(--touch);
  align-items: center;
  gap: 11px;
  padding: 2px 6px 2px 13px;
  text-align: left;
  position: relative;
  font-weight: 500;
  font-size: var(--fs-body);
  line-height: 1.1;
  white-space: nowrap;
  &[aria-expanded='true'] { background: var(--paper); font-weight: 600; }
  i { width: 29px; height: 29px; flex: none; border-radius: 50%; border: 1.25px solid var(--ink); background: var(--rail); display: grid; place-items: center; font: 500 var(--fs-text) var(--read); z-index: 1; }
  small { display: block; font-size: var(--fs-note); color: var(--ink-2); font-weight: 400; }
`
const Steps = styled.ol`
  background: var(--paper);
  border-bottom: 0.75px solid var(--line);
  position: relative;
  a { display: flex; min-height: var(--touch); align-items: center; gap: 10px; padding: 4px 8px 4px 18px; font-size: var(--fs-text); line-height: 1.15; text-decoration: none; position: relative; }
  a small { display: block; font-size: var(--fs-note); font-weight: 400; color: var(--ink-2); }
  a svg { flex: none; background: var(--paper); z-index: 1; }
  a[aria-current] { background: var(--blue-wash); font-weight: 600; }
  a[aria-current] svg { background: none; }
  a[data-state='blocked'] { color: var(--ink-2); }
  em { display: block; font-style: normal; font-size: var(--fs-note); font-weight: 500; white-space: nowrap; }
`
const NoReturn = styled.div`
  margin-left: 18px;
  padding: 1px 8px 3px 26px;
  border-top: 3px double var(--ink);
  font-size: var(--fs-note);
  color: var(--ink-2);
`
const Foot = styled(Link)`
  display: flex;
  align-items: center;
  min-height: max(48px, var(--touch));
  padding: 0 14px;
  font-weight: 500;
  white-space: nowrap;
`
