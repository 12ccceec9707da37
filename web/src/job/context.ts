import { createContext, useContext } from 'react'
import type { Schemas } from '../api/client'
import type { Kept } from '../api/outbox'
import type { BenchName, FormOf, Readings } from '../benches/table'

/** A step; `waits` is its reading that was entered on this device and cannot be sent now. */
export type Step = Schemas['StepOut'] & { waits?: Kept | undefined }
/** A job; `movesWaiting` are those that were entered on this device and cannot be sent now. */
export type Job = Omit<Schemas['JobOut'], 'steps'> & { steps: Step[]; movesWaiting?: number }
export type Entry = Schemas['EntryOut']
/** An entry that was read on a bench or filled on a sheet. */
export type ReadingEntry = Extract<Entry, { kind: 'reading' }>
export type BenchStepOf<N extends BenchName = BenchName> = Step & { form: FormOf<N> }
export type SheetStepOf = Step & { form: Schemas['SheetFormOut'] }

export const isBench = (step: Step): step is BenchStepOf => step.form.kind === 'bench'
export const isSheet = (step: Step): step is SheetStepOf => step.form.kind === 'sheet'

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

/** The reading that stands in a step. */
export function currentOf(job: Job, step: Pick<Step, 'current'>): ReadingEntry | undefined {
  const entry = job.entries.find((e) => e.id === step.current)
  return entry?.kind === 'reading' ? entry : undefined
}

/** Whether an entry was read on this bench. */
export function isReadOn<N extends BenchName>(entry: Entry | undefined, bench: N): entry is Readings[N] {
  return entry?.kind === 'reading' && entry.bench === bench
}

/** The entries of a step, oldest first. */
export function entriesOf(job: Job, step: string): Entry[] {
  return job.entries.filter((e) => e.step === step)
}
