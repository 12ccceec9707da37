import { createContext, useContext } from 'react'
import type { Schemas } from '../api/client'

export type Job = Schemas['JobOut']
export type Step = Schemas['StepOut']
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
export function isSettled(step: Step): boolean {
  return step.state === 'done' || (step.optional && step.current === null)
}

/** The entries of a step, oldest first. */
export function entriesOf(job: Job, step: string): Entry[] {
  return job.entries.filter((e) => e.step === step)
}
