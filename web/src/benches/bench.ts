import type { ComponentType, ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { isUnproven } from '../kit/Allowance'
import type { LengthUnit } from '../units/length'
import type { Draft, Entered, Part, Reading } from './draft'

export type Result = Pick<Schemas['FitResult'], 'bench' | 'verdict' | 'proven' | 'checks' | 'advice' | 'says' | 'working'> & {
  /** Of an entry: somebody took it although it cannot tell. */
  as_it_is?: boolean
}
type Verdict = Schemas['Verdict']
export type Preset = Record<string, unknown>

/** What a bench's drawing is given. */
export interface BenchProps<R extends Result = Result> {
  draft: Draft
  change: (draft: Draft) => void
  preset: Preset
  result: R | null
  /** Cell → what is wrong with what stands in it. */
  problems: Record<string, string>
  /** The line worked on, where there is one. */
  spec: Schemas['LineSpec'] | null
  /** Where instruments stream readings to, in a job's step. */
  stream?: { jobId: string; step: string }
}

/** The verdict in words: one sentence, one note, at most a few moves. */
export interface Say {
  title: string
  note: string
  moves: ReactNode[]
}

/** One bench in the client. Add one here and in `benches.ts`; the route, the API and the record know it from the core. */
export interface BenchClient<R extends Result = Result> {
  name: string
  title: string
  /** What it answers, for the list of quick benches. */
  answers: string
  /** The cells as they stand before a hand has typed anything. */
  start: (preset: Preset, suggest: Preset) => Draft
  /** An entry back in its cells, to be looked at or corrected; or only its set-up, to read again. */
  restore: (entered: Entered, part: Part) => Draft
  /** The typed cells as the bench's input, without the preset. */
  read: (draft: Draft, preset: Preset) => Reading
  say: (result: R, unit: LengthUnit, spec: Schemas['LineSpec'] | null) => Say
  Drawing: ComponentType<BenchProps<R>>
  /** Limits a quick bench lets one type, since there is no value card: cell, label, path into the preset. */
  quickLimits?: readonly { cell: string; label: string; kind: 'length' | 'number' | 'degrees' | 'torque'; unit: string }[]
  quickPreset?: (values: Record<string, number>) => Preset
  keys?: readonly (readonly [string, string])[]
}

const TITLES: Record<Verdict, string> = {
  inside: 'Inside.',
  close: 'Inside, but close.',
  over: 'Over the limit.',
  incomplete: 'Not complete yet.',
  'not judged': 'Read. No limit to judge by.',
}

export const cannotTell = ({ verdict, proven }: Pick<Result, 'verdict' | 'proven'>) => isUnproven({ status: verdict, proven })

/** The verdict in one sentence, where its ± has a say in it. */
export function titleOf(result: Result, title: string): string {
  if (!cannotTell(result)) return title
  return result.as_it_is ? 'Taken as it is: it cannot tell.' : 'Cannot tell yet.'
}

/** In today's shape. What was answered by an earlier version stands as it was said then, and draws nothing. */
export function isOfToday(result: Result): boolean {
  return 'says' in result
}

/** What most benches say: the verdict, then the core's advice. */
export function plainSay(result: Result): Say {
  return { title: TITLES[result.verdict], note: '', moves: [] }
}
