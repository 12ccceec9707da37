import type { Say } from '../benches/bench'
import type { LengthUnit } from '../units/length'
import { sayIn, type Words } from '../units/say'
import type { Step } from './context'

const NOTHING: Words = { template: '', values: {} }
const MOVED_SINCE: Words = { template: 'Since these readings were typed, a move was recorded', values: {} }

/**
 * Why what stands here, or is typed here, says nothing any more; null where it still does.
 * `movesAtFirst`: how many moves the job had when the first figure was typed.
 */
export function outdatedBecause(
  step: Pick<Step, 'stale_because'>,
  touched: boolean,
  movesAtFirst?: unknown,
  movesNow = 0,
): Words | null {
  const because = !touched
    ? step.stale_because
    : typeof movesAtFirst === 'number' && movesNow > movesAtFirst
      ? MOVED_SINCE
      : NOTHING
  return because.template ? because : null
}

/** What a verdict says instead: what happened, and to read again. It orders nothing. */
export function sayOutdated(because: Words, unit: LengthUnit): Say {
  const typed = because === MOVED_SINCE ? ' Type every reading anew, or press New readings.' : ''
  return { title: 'Read again.', note: `${sayIn(because, unit)}. What it said no longer counts.${typed}`, moves: [] }
}
