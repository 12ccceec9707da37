import type { Schemas } from '../api/client'
import { showOnCard } from '../line/figure'
import type { LengthUnit } from '../units/length'
import { sayWhen } from '../units/when'
import type { Job } from './context'

interface Changed {
  key: string
  reason?: string
  was?: Schemas['Value'] | null
}

/** What stood on a line of the card before it was last changed, who changed it, when and why; empty where nobody did. */
export function sayChanged(job: Pick<Job, 'entries'>, key: string, unit: LengthUnit): string {
  const last = job.entries.findLast((e) => e.kind === 'value' && (e.inputs as unknown as Changed).key === key)
  const { was, reason } = (last?.inputs ?? {}) as unknown as Changed
  if (!last || !was) return ''
  const before = key.endsWith('_mm') || key.includes('_mm@') ? showOnCard(was.value, 'mm', unit) : String(was.value)
  return `Was ${before}, changed by ${last.by}, ${sayWhen(last.at)}: ${reason ?? ''}`
}
