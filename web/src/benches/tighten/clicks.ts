import type { Schemas } from '../../api/client'
import { type Draft, slot } from '../draft'
import type { ResultOf } from '../table'
import { hasExtension } from './Wrench'

type Pull = Schemas['Pull']

/** Every click in the order it came. One that was taken back stays, struck through, and is not sent. */
export interface Click extends Pull {
  takenBack?: boolean
}

export const CLICKS = slot<readonly Click[]>('clicks', [])
export const pullsOf = (draft: Draft): Pull[] =>
  CLICKS.of(draft)
    .filter((click) => !click.takenBack)
    .map(({ takenBack, ...pull }) => ({ ...pull, ...(hasExtension(draft) && { reached_is: pull.reached_is ?? 'bolt' }) }))
/** A pull as an entry holds it; those from before had the torque under another name. */
export type Kept = Pull & { torque_nm?: number }
export const asKept = ({ torque_nm, ...pull }: Kept): Click => ({ ...pull, reached_nm: pull.reached_nm ?? torque_nm })

/** The bolt whose turn it is, from the core's sequence: known at once, so that two quick clicks are two bolts.
 * Whether another round follows, the core says: for that moment there is none. */
export function nextTurn(result: ResultOf<'tighten'> | null, pulls: readonly Pull[]) {
  return result?.sequence.find((turn) => !pulls.some((p) => p.pass === turn.pass && p.bolt === turn.bolt)) ?? null
}
