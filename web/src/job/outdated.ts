import type { Say } from '../benches/bench'
import { inSheetUnit, type LengthUnit } from '../units/length'
import type { Step } from './context'

/**
 * Why what stands here, or is typed here, says nothing any more; empty where it still does.
 * `movesAtFirst`: how many moves the job had when the first figure was typed.
 */
export function outdatedBecause(step: Pick<Step, 'stale_because'>, touched: boolean, movesAtFirst?: unknown, movesNow = 0) {
  if (!touched) return step.stale_because
  return typeof movesAtFirst === 'number' && movesNow > movesAtFirst ? 'Since this was typed, a move was entered' : ''
}

/** What a verdict says instead: what happened, and to read again. It orders nothing. */
export function sayOutdated(because: string, unit: LengthUnit): Say {
  return { title: 'Read again.', note: `${inSheetUnit(because, unit)}. What it said no longer counts.`, moves: [] }
}
