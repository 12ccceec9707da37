import { createContext, useContext } from 'react'
import type { Schemas } from '../api/client'
import type { Kept } from '../api/outbox'

/** A step; `waits` is its reading that was entered on this device and cannot be sent now. */
export type Step = Schemas['StepOut'] & { waits?: Kept | undefined }
/** A job; `movesWaiting` are those that were entered on this device and cannot be sent now. */
export type Job = Omit<Schemas['JobOut'], 'steps'> & { steps: Step[]; movesWaiting?: number }
export type Entry = Schemas['EntryOut']

const Context = createContext<Job | null>(null)
export const JobProvider = Context.Provider

/** The job worked on. */
export function useJob(): Job {
  const job = useContext(Context)
  if (!job) throw new Error('useJob outside a job')
  return job
}

/** Done, or left out where it may be. */
export function isSettled(step: Pick<Step, 'state' | 'optional' | 'current'>): boolean {
  return step.state === 'done' || (step.optional && step.current === null)
}

/** The entries of a step, oldest first. */
export function entriesOf(job: Job, step: string): Entry[] {
  return job.entries.filter((e) => e.step === step)
}
