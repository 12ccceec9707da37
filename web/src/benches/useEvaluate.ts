import { useEffect, useRef, useState } from 'react'
import { post, Refused } from '../api/client'
import { useUnit } from '../units/preferences'
import { sayProblem } from '../units/say'
import type { Reading } from './draft'
import type { BenchName, Given, ResultOf } from './table'

export interface Evaluated<N extends BenchName> {
  result: ResultOf<N> | null
  /** Cell → what is wrong with it. */
  problems: Record<string, string>
  /** What is wrong with the whole. */
  general: string
  waiting: boolean
}

const NOTHING = { result: null, problems: {}, general: '', waiting: false }
const MARKED = 'Correct what is marked on the sheet.'
const TRY_AGAIN_MS = 2_000

/** Asks the core what the readings say, with each key typed; the last answer wins. */
export function useEvaluate<N extends BenchName>(
  bench: N,
  reading: Omit<Reading<Given<N>>, 'partial'>,
  preset: Given<N>,
): Evaluated<N> {
  const body = reading.input === null ? null : JSON.stringify({ ...reading.input, ...preset })
  const [evaluated, setEvaluated] = useState<Evaluated<N>>(NOTHING)
  const [tries, setTries] = useState(0)
  const unit = useUnit()
  const cellAt = useRef(reading.cellAt)
  cellAt.current = reading.cellAt

  // biome-ignore lint/correctness/useExhaustiveDependencies: `tries` asks again after the server was away
  useEffect(() => {
    if (body === null) {
      setEvaluated(NOTHING)
      return
    }
    const cancel = new AbortController()
    let again: ReturnType<typeof setTimeout> | undefined
    setEvaluated((before) => ({ ...before, waiting: true }))
    post<ResultOf<N>>(`/api/benches/${bench}`, body, cancel.signal)
      .then((result) => setEvaluated({ result, problems: {}, general: '', waiting: false }))
      .catch((why) => {
        if (cancel.signal.aborted) return
        if (!(why instanceof Refused)) throw why
        if (why.unreachable) {
          setEvaluated((before) => ({
            ...before,
            general: 'The server cannot be reached. Your readings are kept; trying again.',
            waiting: true,
          }))
          again = setTimeout(() => setTries((n) => n + 1), TRY_AGAIN_MS)
          return
        }
        const problems: Record<string, string> = {}
        const general: string[] = []
        for (const problem of why.problems) {
          const cell = cellAt.current[problem.path]
          const said = sayProblem(problem, unit)
          if (cell) problems[cell] = said
          else general.push(said)
        }
        setEvaluated({ result: null, problems, general: [...new Set(general)].join(' ') || MARKED, waiting: false })
      })
    return () => {
      cancel.abort()
      clearTimeout(again)
    }
  }, [bench, body, tries, unit])
  return evaluated
}
