import { QueryClient, queryOptions } from '@tanstack/react-query'
import { useEffect } from 'react'
import { api, bring, Refused } from './client'
import { serverBack, useServerAway } from './server'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: 'always', // the server may be there where the internet is not; and what is kept is read without either
      staleTime: 2_000,
      retryDelay: 400,
      retry: (failures, why) => failures < 2 && why instanceof Refused && why.unreachable,
    },
  },
})

const OTHERS_WORK_TOO_MS = 5_000 // several people on one job: what they enter shows within this
const HEARD_OF_MS = 60_000

/** Jobs whose changes are heard of as they happen (live.ts): they are asked for only now and then. */
export const heardOf = new Set<string>()

export const sessionOptions = queryOptions({
  queryKey: ['session'],
  queryFn: () => bring(api.GET('/api/session')),
  retry: false,
  staleTime: Number.POSITIVE_INFINITY,
})
export const floorOptions = queryOptions({ queryKey: ['floor'], queryFn: () => bring(api.GET('/api/jobs')) })
export const catalogueOptions = queryOptions({
  queryKey: ['catalogue'],
  queryFn: () => bring(api.GET('/api/couplings')),
})
export const bracketsOptions = queryOptions({
  queryKey: ['brackets'],
  queryFn: () => bring(api.GET('/api/instruments/brackets')),
})
export const wrenchesOptions = queryOptions({
  queryKey: ['wrenches'],
  queryFn: () => bring(api.GET('/api/instruments/wrenches')),
})
export const lineOptions = (lineId: string) =>
  queryOptions({
    queryKey: ['line', lineId],
    queryFn: () => bring(api.GET('/api/lines/{line_id}', { params: { path: { line_id: lineId } } })),
  })
export const lineChangesOptions = (lineId: string) =>
  queryOptions({
    queryKey: ['line', lineId, 'changes'],
    queryFn: () => bring(api.GET('/api/lines/{line_id}/changes', { params: { path: { line_id: lineId } } })),
  })
export const sizeChangesOptions = (series: string, size: string) =>
  queryOptions({
    queryKey: ['catalogue', series, size, 'changes'],
    queryFn: () => bring(api.GET('/api/couplings/changes', { params: { query: { series, size } } })),
  })
export const lineJobsOptions = (lineId: string) =>
  queryOptions({
    queryKey: ['line', lineId, 'jobs'],
    queryFn: () => bring(api.GET('/api/jobs/of-line/{line_id}', { params: { path: { line_id: lineId } } })),
  })
export const dueOptions = (sort: 'day' | 'line' | 'kind' = 'day') =>
  queryOptions({ queryKey: ['due', sort], queryFn: () => bring(api.GET('/api/due', { params: { query: { sort } } })) })
export const dueCountOptions = queryOptions({
  queryKey: ['due', 'count'],
  queryFn: () => bring(api.GET('/api/due/count')),
})
export const lineDueOptions = (lineId: string) =>
  queryOptions({
    queryKey: ['due', 'line', lineId],
    queryFn: () => bring(api.GET('/api/due', { params: { query: { line: lineId } } })),
  })
export const roundOptions = queryOptions({ queryKey: ['round'], queryFn: () => bring(api.GET('/api/rounds')) })
export const historyOptions = (lineId: string) =>
  queryOptions({
    queryKey: ['history', lineId],
    queryFn: () => bring(api.GET('/api/history/{line_id}', { params: { path: { line_id: lineId } } })),
  })
export const reasonsOptions = (months: number) =>
  queryOptions({
    queryKey: ['reasons', months],
    queryFn: () => bring(api.GET('/api/reasons', { params: { query: { months } } })),
  })
export const instrumentsOptions = queryOptions({
  queryKey: ['instruments'],
  queryFn: () => bring(api.GET('/api/instruments')),
})
export const calendarsOptions = queryOptions({ queryKey: ['calendars'], queryFn: () => bring(api.GET('/api/calendar')) })
export const exportOptions = (exportId: string) =>
  queryOptions({
    queryKey: ['export', exportId],
    queryFn: () => bring(api.GET('/api/exports/{export_id}', { params: { path: { export_id: exportId } } })),
    refetchInterval: (query) => (query.state.data?.ready || query.state.data?.failed ? false : 700),
  })
export const jobOptions = (jobId: string) =>
  queryOptions({
    queryKey: ['job', jobId],
    queryFn: () => bring(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: jobId } } })),
    refetchInterval: () => (heardOf.has(jobId) ? HEARD_OF_MS : OTHERS_WORK_TOO_MS),
  })
export const recordOptions = (jobId: string) =>
  queryOptions({
    queryKey: ['job', jobId, 'record'],
    queryFn: () => bring(api.GET('/api/records/{job_id}', { params: { path: { job_id: jobId } } })),
  })
/** The figures of one entry, in words; they stand for ever. */
export const figuresOptions = (jobId: string, entryId: string) =>
  queryOptions({
    queryKey: ['figures', entryId],
    queryFn: () =>
      bring(api.GET('/api/records/{job_id}/entries/{entry_id}', { params: { path: { job_id: jobId, entry_id: entryId } } })),
    staleTime: Number.POSITIVE_INFINITY,
  })

/** What the service worker keeps for a server that does not answer belongs to whoever was signed in. */
export async function forgetAnswers(): Promise<void> {
  await window.caches?.delete('answers')
}

const ASK_WHETHER_IT_IS_BACK_MS = 3_000

/** While the server is away it is asked whether it is back; then everything on the sheet is asked for anew. */
export function useReturningServer(): void {
  const isAway = useServerAway() !== null
  useEffect(() => {
    if (!isAway) return
    const ask = () => queryClient.invalidateQueries({ queryKey: sessionOptions.queryKey })
    const timer = setInterval(ask, ASK_WHETHER_IT_IS_BACK_MS)
    return () => clearInterval(timer)
  }, [isAway])
  useEffect(() => {
    const askAnew = () => queryClient.invalidateQueries()
    serverBack.addEventListener('back', askAnew)
    return () => serverBack.removeEventListener('back', askAnew)
  }, [])
}

/** What the lead is asked to change in the catalogue. */
export const sizeRequestsOptions = queryOptions({
  queryKey: ['catalogue', 'requests'],
  queryFn: () => bring(api.GET('/api/couplings/requests')),
})

/** What a reading may be taken with today. */
export const usableOptions = queryOptions({
  queryKey: ['instruments', 'usable'],
  queryFn: () => bring(api.GET('/api/instruments/usable')),
})
