import type { Schemas } from '../api/client'
import { type Kept, ofKind } from '../api/outbox'
import { byServerClock } from '../kit/serverClock'
import { isSettled, type Job, type Step } from './context'

type Run = Schemas['HeatRunOut']
type Event = ReturnType<typeof ofKind<'event'>>[number]
type Count = ReturnType<typeof ofKind<'ledger'>>[number]

/**
 * A job with what waits on this device laid over it, so that the work goes on without the server: by the order of its steps
 * and by what the clock says, without a verdict. A step whose reading waits holds nothing up any more, unless it wants a
 * signature: a signature does not wait. A move that waits makes what was read before it stale, as one that was sent does.
 */
export function withWaiting(job: Job, unsent: readonly Kept[]): Job {
  const here = unsent.filter((p) => p.jobId === job.id)
  // What happened to a hot hub and what was counted counts from the press, before it is known that there is no server.
  const counts = here.filter((p) => p.waits !== '' || p.body.kind === 'event' || p.body.kind === 'ledger')
  if (counts.length === 0) return job
  const readings = new Map(ofKind(counts, 'reading').map((p) => [p.step, p]))
  const moves = ofKind(counts, 'move')
  const events = ofKind(counts, 'event')
  const moved = Math.max(0, ...moves.map((p) => p.at))
  const wantsSignature = new Set(job.steps.filter((s) => s.hold !== null).map((s) => s.key))
  const goesOn = (key: string) => readings.has(key) && !wantsSignature.has(key)
  const steps = job.steps.map((step): Step => {
    const reading = readings.get(step.key)
    const blocked_by = step.blocked_by.filter((why) => !goesOn(why.step))
    const laid = { ...step, blocked_by, heat_run: step.heat_run && runAfter(step.heat_run, step.key, events) }
    if (step.moves && moved > (reading?.at ?? 0)) return step.current || reading ? { ...laid, ...MOVED } : laid
    if (reading) return { ...laid, waits: reading }
    return step.state === 'blocked' && blocked_by.length === 0 ? { ...laid, state: 'open' } : laid
  })
  return {
    ...job,
    steps,
    next: steps.find((s) => !isSettled(s) && !s.waits)?.key ?? null,
    ledger: ofKind(counts, 'ledger').reduce(counted, job.ledger),
    movesWaiting: moves.length,
  }
}

const MOVED = {
  state: 'stale',
  stale_because: { template: 'Since this was read, a move was entered that is not sent yet', values: {} },
} as const

function counted(ledger: Job['ledger'], { body }: Count): Job['ledger'] {
  const { count, counted: way, ...line } = body.inputs
  const before = ledger.find((other) => other.line === line.line) ?? { ...line, out: 0, back: 0, open: true }
  const now = { ...before, [way]: before[way] + count }
  const after = { ...now, open: now.out > now.back }
  return ledger.includes(before) ? ledger.map((other) => (other === before ? after : other)) : [...ledger, after]
}

/** The run after what was noted and waits, by the plan's own times: no reading of a pyrometer is in them. */
function runAfter(run: Run, step: string, events: readonly Event[]): Run {
  return events.filter((p) => p.step === step).reduce(afterEvent, run)
}

function afterEvent(run: Run, { body, happenedAt }: Event): Run {
  const { event } = body.inputs
  const to = run.may[run.phase]?.find((next) => next.event === event)?.to
  if (to === undefined || happenedAt === undefined) return run
  const at = (seconds: number) => byServerClock(happenedAt + seconds * 1000)
  const after = (seconds: number | null) => (seconds === null ? null : at(seconds))
  switch (to) {
    case 'on the heater':
      return {
        ...run,
        phase: to,
        heating_since: at(0),
        ready_at: after(run.heating_s),
        ready: 'read it',
        out_at: null,
        on_at: null,
      }
    case 'on its way':
      return {
        ...run,
        phase: to,
        tries: run.tries + 1,
        ready_at: null,
        out_at: at(0),
        on_at: null,
        ready: null,
        carry_until: after(run.carry_s),
        closes_at: after(run.window_s),
        touch_at: after(run.cooling_s),
      }
    case 'on the shaft':
      return {
        ...run,
        phase: to,
        on_at: at(0),
        clear_mm: null,
        grips_from: after(run.grips_least_s),
        grips_by: after(run.grips_most_s),
      }
    case 'gripped':
      return { ...run, phase: to }
    case 'cold':
      return {
        ...run,
        phase: to,
        heating_since: null,
        ready_at: null,
        ready: null,
        out_at: null,
        on_at: null,
        closes_at: null,
      }
  }
}

/** The verdict on what was entered and waits. */
export const NOT_SENT = { title: 'Entered, not sent yet.', note: 'The verdict comes with the server.', moves: [] }

/** What stands on the sheet is what was entered here and waits: nothing was typed on top of it since. */
export function isEntered(step: Step, draft: unknown): boolean {
  return step.waits?.typedAt !== undefined && JSON.stringify(step.waits.typedAt.draft) === JSON.stringify(draft)
}
