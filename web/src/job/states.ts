import type { Schemas } from '../api/client'

/** Where a step is, in the words of the sheet, the floor and the record. */
export const STATE_WORDS: Record<Schemas['StepState'], string> = {
  blocked: 'not started',
  open: 'not started',
  incomplete: 'in work',
  'cannot tell yet': 'cannot tell yet',
  over: 'out of tolerance',
  stale: 'to read again',
  waiting: 'waiting for the lead',
  'to sign': 'to sign',
  done: 'done',
}
