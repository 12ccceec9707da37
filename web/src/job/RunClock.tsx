import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { sinceNow, useServerNow } from '../kit/serverClock'
import { showTime } from '../units/length'
import { type Step, useJob } from './context'

type Run = Schemas['HeatRunOut']

/** What is waited for, large: ready to leave the heater, the carry, the seconds on the shaft, how long the hub burns. */
export function RunClock({ step }: { step: Step }) {
  const now = useServerNow(useJob().now)
  const run = step.heat_run
  if (!run) return null
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
export function readyNow(run: Run, now: number): Run['ready'] | 'read it again' {
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
export function carryOf(run: Run, now: number) {
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

const Big = styled.div`
  span { display: block; font-weight: 500; }
  b { display: block; font: 600 var(--fs-clock)/0.95 var(--text); font-variant-numeric: tabular-nums; }
  small { color: var(--ink-2); }
  strong { display: block; font-weight: 600; margin-top: 4px; }
  &[data-shut] { background: var(--ink); color: var(--paper); padding: 8px 12px; }
`
