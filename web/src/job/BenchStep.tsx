import { useMemo, useRef, useState } from 'react'
import { append } from '../api/outbox'
import { type BenchClient, cannotTell, isOfToday, plainSay } from '../benches/bench'
import { type Draft, EMPTY, laidOver, type Part, slot } from '../benches/draft'
import { GivenCells } from '../benches/parts'
import type { BenchName, FormOf, Given, Hints } from '../benches/table'
import { useDraft } from '../benches/useDraft'
import { useEvaluate } from '../benches/useEvaluate'
import { VerdictColumn } from '../benches/VerdictColumn'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { type BenchStepOf, currentOf, isReadOn, type Job, type ReadingEntry, useJob } from './context'
import { History } from './History'
import { JobSheet } from './JobSheet'
import { MoveSlip } from './MoveSlip'
import { hasWork, planOf } from './move'
import { outdatedBecause, sayOutdated } from './outdated'
import { ReadWith, useReadWith } from './ReadWith'
import { StepFoot } from './StepFoot'
import { focusSoon, useTypedAnew } from './typedAnew'
import { useOneAtATime } from './useOneAtATime'
import { isEntered, NOT_SENT } from './waiting'

/** The last reading in this job that was taken on a bench, in whichever step. */
function lastOnBench(job: Job, bench: string) {
  return job.entries.findLast((e): e is ReadingEntry => e.kind === 'reading' && e.bench === bench && !e.slip)
}

/** How many moves the job had when the first figure was typed. */
const MOVES = slot<number | undefined>('moves', undefined)

/** A step that wants readings: the bench's drawing, its verdict while typing, and what was read before. */
export function BenchStep<N extends BenchName>({ step, bench }: { step: BenchStepOf<N>; bench: BenchClient<N> }) {
  const job = useJob()
  const unit = useUnit()
  const form: FormOf<N> = step.form
  const [preset, hints]: [Given<N>, Hints<N>] = [form.preset, form.suggest]
  const given = useMemo(() => bench.restore({ inputs: preset, typed: {} }, 'all').cells, [bench, preset])
  const standsRead = currentOf(job, step)
  const current = isReadOn(standsRead, bench.name) ? standsRead : undefined
  const standsEntered = current !== undefined && step.state !== 'stale'
  /** The cells as they start: what stands entered, or empty and set up as for the last reading on this bench. */
  const start = (part: Part): Draft => {
    const fresh = bench.start(preset, hints)
    const last = current ?? lastOnBench(job, bench.name)
    const kept = last ? bench.restore(last, part) : EMPTY
    return laidOver(fresh, kept)
  }
  const place = `${job.id}.${step.key}`
  const { draft, touched, others, change, clear } = useDraft(place, () => start(standsEntered ? 'all' : 'set-up'))
  const entered = isEntered(step, draft)
  const movesNow = job.entries.filter((e) => e.kind === 'move' && !e.slip).length + (job.movesWaiting ?? 0)
  const type = (next: Draft) => change(MOVES.put(next, MOVES.of(draft) ?? movesNow))
  const outdated = outdatedBecause(step, touched, MOVES.of(draft), movesNow)
  const reading = bench.read(draft, preset)
  /** Empty cells, set up as it stands on the sheet now. */
  const readAgain = () => {
    const fresh = start('set-up')
    const now = bench.restore({ inputs: { ...preset, ...reading.partial }, typed: reading.typed }, 'set-up')
    change(MOVES.put(laidOver(fresh, now), movesNow))
    focusSoon('[data-bench] input[data-cell="reading"]')
  }
  const sheet = useRef<HTMLDivElement>(null)
  useTypedAnew(sheet, outdated !== null && touched, () => change(MOVES.put(draft, movesNow)))
  const unproven = step.state === 'cannot tell yet'
  const isOpen = touched || !standsEntered || unproven
  const counts = outdated === null && isOpen
  const evaluated = useEvaluate(bench.name, counts ? reading : { ...reading, input: null }, { ...preset, ...form.compare })
  const readWith = useReadWith(step.reads_with, draft)
  const [refused, setRefused] = useState('')
  const [moving, setMoving] = useState(false)
  const standing = touched || outdated ? null : (current?.result ?? null)
  const result = evaluated.result ?? standing
  const send = async (as_it_is: boolean) => {
    if (!reading.input) return undefined
    setRefused('')
    const instruments = [...readWith.named, ...(bench.named?.(draft) ?? [])]
    readWith.keep()
    const body = {
      step: step.key,
      kind: 'reading',
      inputs: reading.input,
      typed: reading.typed,
      as_it_is,
      instruments,
    } as const
    return append({ jobId: job.id, body, typedAt: { place, draft } }).catch((why) => setRefused(sayRefusal(why, unit)))
  }
  const enter = useOneAtATime(() => send(result !== null && cannotTell(result)))
  /** A move answers a reading: one that is not saved yet is saved first, as it was found. */
  const recordMove = useOneAtATime(async () => {
    const isUnsaved = touched && !entered && outdated === null && reading.input !== null
    if (!isUnsaved || (await send(false))) setMoving(true)
  })
  const now = outdated ? null : touched ? reading.input && { ...reading.input, ...preset } : (current?.inputs ?? null)
  const read = result && { result, inputs: now }
  const plan = planOf(read, step, job.spec)
  const isRefused = !evaluated.result && !evaluated.waiting
  const blocked = step.blocked_by.length > 0
  const mayReadAgain = entered || (standsEntered ? !touched : touched && outdated !== null)
  const moves = step.moves ? movesNow : 0
  return (
    <JobSheet
      step={step}
      isTyping={touched && !entered}
      keys={bench.keys}
      verdict={
        <VerdictColumn
          say={
            entered
              ? NOT_SENT
              : outdated
                ? sayOutdated(outdated, unit)
                : result && (isOfToday(result) ? bench.say(result, unit, job.spec) : plainSay(result))
          }
          result={result}
          lacking={touched || !standsEntered ? reading.lacking : ''}
          general={entered ? '' : refused || evaluated.general}
          foot={
            <StepFoot
              step={step}
              touched={touched && !entered}
              enter={{
                label: result && cannotTell(result) ? 'Take it as it is' : undefined,
                onPress: enter,
                // Nothing was typed: there is nothing to save, but what stands and cannot be told may be taken as it is.
                isDisabled: !reading.input || blocked || isRefused || (touched ? outdated !== null : !unproven),
                mayGoOn: !result || (result.verdict !== 'over' && !cannotTell(result)),
              }}
              move={
                step.moves && !blocked
                  ? {
                      label: plan.slides ? 'Record the move' : 'Record the shims',
                      isPlanned: plan.slides || hasWork(plan),
                      onPress: recordMove,
                    }
                  : undefined
              }
              onAgain={mayReadAgain && !job.closed ? readAgain : undefined}
              onStartOver={clear}
              others={others}
            />
          }
        >
          {moves > 0 && <p>{moves === 1 ? 'One move so far.' : `${moves} moves so far.`}</p>}
        </VerdictColumn>
      }
    >
      <div data-bench ref={sheet}>
        <GivenCells value={given}>
          <bench.Drawing
            draft={draft}
            change={type}
            preset={preset}
            hints={hints}
            result={result && isOfToday(result) ? result : null}
            problems={evaluated.problems}
            spec={job.spec}
            stream={{ jobId: job.id, step: step.key }}
          />
        </GivenCells>
        <ReadWith of={readWith} draft={draft} change={type} />
      </div>
      <History step={step} />
      {moving && <MoveSlip step={step} read={read} onClose={() => setMoving(false)} />}
    </JobSheet>
  )
}
