import { useEffect, useRef } from 'react'
import { api, bring, Refused, type Schemas } from '../../api/client'

export const STREAM = '/api/jobs/{job_id}/streams/{step}'
const ASK_EVERY_MS = 500

interface Listening {
  isOn: boolean
  jobId: string
  step: string
  /** The last reading that was taken. */
  after: () => number
  take: (got: Schemas['StreamOut']) => void
  onProblem: (words: string) => void
}

/**
 * Takes what an instrument streams, each reading once: on a slow line the same question is asked again before it is answered,
 * or the sweep is started anew meanwhile, and an answer to what is no longer asked is let go.
 */
export function useStream(listening: Listening): void {
  const now = useRef(listening)
  now.current = listening
  const { isOn, jobId, step } = listening
  useEffect(() => {
    if (!isOn || !jobId) return
    const ask = async () => {
      const after = now.current.after()
      try {
        const path = { job_id: jobId, step }
        const got = await bring(api.GET(STREAM, { params: { path, query: { after } } }))
        if (now.current.isOn && now.current.after() === after) now.current.take(got)
      } catch (why) {
        now.current.onProblem(why instanceof Refused ? why.message : String(why))
      }
    }
    const timer = setInterval(ask, ASK_EVERY_MS)
    return () => clearInterval(timer)
  }, [isOn, jobId, step])
}
