import { useEffect } from 'react'
import { api, type Schemas } from './client'
import { followed } from './followed'
import { newId } from './outbox'
import { heardOf, queryClient } from './queries'

/** Somebody else who has the job open. */
export interface Here {
  device: string
  name: string
  step: string
  typing: boolean
}

type Job = Schemas['JobOut']

/** This window, for as long as it is open. */
const DEVICE = newId()
const SAY_SO_EVERY_MS = 10_000
const NOBODY: readonly Here[] = []
const others = followed<{ job: string; here: readonly Here[] }>({ job: '', here: NOBODY })

/** Hears of a job while its page is looked at. A page in the background asks nothing and keeps no line busy. */
export function useLive(jobId: string): void {
  useEffect(() => {
    let source: EventSource | null = null
    const listen = () => {
      if (document.hidden) return stop()
      if (source) return
      source = new EventSource(`/api/jobs/${jobId}/live`)
      source.addEventListener('hello', () => {
        heardOf.add(jobId)
        askFor(jobId)
      })
      source.addEventListener('changed', ({ data }) => {
        if (!holds(jobId, JSON.parse(data).number)) askFor(jobId)
      })
      source.addEventListener('here', ({ data }) => {
        const all = JSON.parse(data) as Here[]
        others.set({ job: jobId, here: all.filter((here) => here.device !== DEVICE) })
      })
      source.addEventListener('error', () => heardOf.delete(jobId))
    }
    const stop = () => {
      source?.close()
      source = null
      heardOf.delete(jobId)
      others.set({ job: jobId, here: NOBODY })
      tell(jobId, { step: '', typing: false, left: true })
    }
    listen()
    document.addEventListener('visibilitychange', listen)
    window.addEventListener('pagehide', stop)
    return () => {
      document.removeEventListener('visibilitychange', listen)
      window.removeEventListener('pagehide', stop)
      stop()
    }
  }, [jobId])
}

/** Tells the others that this window is at a step, and whether something is typed there that is not entered. */
export function useBeHere(jobId: string, step: string, typing: boolean): void {
  useEffect(() => {
    const say = () => !document.hidden && tell(jobId, { step, typing, left: false })
    say()
    const timer = setInterval(say, SAY_SO_EVERY_MS)
    return () => clearInterval(timer)
  }, [jobId, step, typing])
}

/** Who else has the job open. */
export function useOthers(jobId: string): readonly Here[] {
  return others.use(({ job, here }) => (job === jobId ? here : NOBODY))
}

function askFor(jobId: string) {
  queryClient.invalidateQueries({ queryKey: ['job', jobId] })
}

/** What was heard of stands on the sheet already: it was entered here. */
function holds(jobId: string, number: number | null): boolean {
  const job = queryClient.getQueryData<Job>(['job', jobId])
  return number !== null && !!job && [...job.entries, ...job.signatures].some((row) => row.number === number)
}

/** A word that does not arrive is said again soon. */
function tell(jobId: string, said: { step: string; typing: boolean; left: boolean }) {
  const body = { device: DEVICE, ...said }
  api.POST('/api/jobs/{job_id}/here', { params: { path: { job_id: jobId } }, body, keepalive: true }).catch(() => null)
}
