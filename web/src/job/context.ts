import { createContext, useContext } from 'react'
import type { Schemas } from '../api/client'

export type Job = Schemas['JobOut']
export type Step = Schemas['StepOut']
export type Entry = Schemas['EntryOut']
export type Role = Schemas['Role']

const Context = createContext<Job | null>(null)
export const JobProvider = Context.Provider

/** The job worked on. */
export function useJob(): Job {
  const job = useContext(Context)
  if (!job) throw new Error('useJob outside a job')
  return job
}

const ORDER: Role[] = ['apprentice', 'millwright', 'lead']

/** Whether a role includes what another may do. */
export function mayActAs(role: Role | undefined, wanted: Role): boolean {
  return role !== undefined && ORDER.indexOf(role) >= ORDER.indexOf(wanted)
}

/** Done, or left out where it may be. */
export function isSettled(step: Step): boolean {
  return step.state === 'done' || (step.optional && step.current === null)
}

/** The entries of a step, oldest first. */
export function entriesOf(job: Job, step: string): Entry[] {
  return job.entries.filter((e) => e.step === step)
}

/** Hour and minute. */
export function sayHour(at: string): string {
  return new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

/** Day and hour as a hand writes them. */
export function sayWhen(at: string): string {
  const then = new Date(at)
  const year = then.getFullYear() === new Date().getFullYear() ? undefined : 'numeric'
  return then.toLocaleString('en-GB', { day: 'numeric', month: 'short', year, hour: '2-digit', minute: '2-digit' })
}
