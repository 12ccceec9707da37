import type { Schemas } from '../api/client'
import { append } from '../api/outbox'
import type { LengthUnit } from '../units/length'
import { sayRefusal } from '../units/say'

interface Where {
  jobId: string
  step: string
  unit: LengthUnit
}

/** Puts values on the card of a job, an entry each; what was refused, and why, by its key. */
export async function saveValues(values: Record<string, Schemas['Value']>, { jobId, step, unit }: Where) {
  const refused: Record<string, string> = {}
  for (const [key, value] of Object.entries(values)) {
    const body = { step, kind: 'value', inputs: { key, value } } as const
    await append({ jobId, body }).catch((why) => {
      refused[key] = sayRefusal(why, unit)
    })
  }
  return refused
}
