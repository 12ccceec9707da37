import type { Schemas } from '../api/client'
import { sayWhen } from '../units/when'
import type { Entry, Job } from './context'

type Changed = Extract<Entry, { kind: 'value' }>

/** What stood on a line of the card before it was last changed, and who changed it, when and why; nothing where nobody did. */
export function lastChange(job: Pick<Job, 'entries'>, key: string): { was: Schemas['Value']; how: string } | undefined {
  const last = job.entries.findLast((e): e is Changed => e.kind === 'value' && e.inputs.key === key)
  const { was, reason } = last?.inputs ?? {}
  return last && was ? { was, how: `changed by ${last.by}, ${sayWhen(last.at)}: ${reason ?? ''}` } : undefined
}
