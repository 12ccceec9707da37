import type { ComponentType, ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { isUnproven } from '../kit/Allowance'
import type { LengthUnit } from '../units/length'
import type { Draft, Entered, Part, Reading } from './draft'
import type { BenchName, Given, Hints, ResultOf } from './table'

/** What every result has. */
export type Result = Schemas['Result']
type Verdict = Schemas['Verdict']

/** What is given to whatever has cells of a bench in it. */
export interface CellsProps {
  draft: Draft
  change: (draft: Draft) => void
  /** Cell → what is wrong with what stands in it. */
  problems: Record<string, string>
}

/** What a bench's drawing is given. */
export interface BenchProps<N extends BenchName = BenchName> extends CellsProps {
  preset: Given<N>
  /** What the step knows before anything was read. */
  hints: Hints<N>
  result: ResultOf<N> | null
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
export interface BenchClient<N extends BenchName = BenchName> {
  name: N
  title: string
  /** What it answers, for the list of quick benches. */
  answers: string
  /** The cells as they stand before a hand has typed anything. */
  start: (preset: Given<N>, hints: Hints<N>) => Draft
  /** An entry back in its cells, to be looked at or corrected; or only its set-up, to read again. */
  restore: (entered: Entered, part: Part) => Draft
  /** The typed cells as the bench's input, without the preset. */
  read: (draft: Draft, preset: Given<N>) => Reading<Given<N>>
  /** Instruments of the register that stand on its sheet anyway. */
  named?: (draft: Draft) => Schemas['ReadWithIn'][]
  say: (result: ResultOf<N>, unit: LengthUnit, spec: Schemas['LineSpec'] | null) => Say
  Drawing: ComponentType<BenchProps<N>>
  /** Limits a quick bench lets one type, since there is no value card: cell, label, path into the preset. */
  quickLimits?: readonly { cell: string; label: string; kind: 'length' | 'number' | 'degrees' | 'torque'; unit: string }[]
  quickPreset?: (values: Record<string, number>) => Given<N>
  /** Why limits as they are typed judge nothing; null where they do, or where none are typed. */
  quickProblem?: (values: Record<string, number>) => LimitsProblem | null
  keys?: readonly (readonly [string, string])[]
}

/** What is amiss with the limits of a quick bench, and in which of their cells, if in one of them. */
export interface LimitsProblem {
  says: string
  cells?: readonly string[]
}

const TITLES: Record<Verdict, string> = {
  inside: 'Within tolerance.',
  close: 'Within tolerance, near the limit.',
  over: 'Out of tolerance.',
  incomplete: 'Not complete yet.',
  'not judged': 'Read. No limit to judge by.',
}

export const cannotTell = ({ verdict, proven }: Pick<Result, 'verdict' | 'proven'>) => isUnproven({ status: verdict, proven })

/** The verdict in one sentence, where its ± has a say in it. */
export function titleOf(result: Result, title: string): string {
  if (!cannotTell(result)) return title
  return result.as_it_is ? 'Taken as it is: cannot tell yet.' : 'Cannot tell yet.'
}

/** In today's shape. What was answered by an earlier version stands as it was said then, and draws nothing. */
export function isOfToday(result: Result): boolean {
  return 'says' in result
}

/** What most benches say: the verdict, then the core's advice. */
export function plainSay(result: Result): Say {
  return { title: TITLES[result.verdict], note: '', moves: [] }
}

/** What the machine that is moved and the one that stays are called. */
export type Names = Record<'movable' | 'stationary', string>

export function namesOf(spec: Schemas['LineSpec'] | null): Names {
  if (!spec) return { movable: 'Movable', stationary: 'Stationary' }
  const stays = spec.movable === 'driver' ? 'driven' : 'driver'
  return { movable: spec[spec.movable].name, stationary: spec[stays].name }
}
