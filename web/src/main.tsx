import '@fontsource/barlow-semi-condensed/latin-400.css'
import '@fontsource/barlow-semi-condensed/latin-500.css'
import '@fontsource/barlow-semi-condensed/latin-600.css'
import '@fontsource/spline-sans-mono/latin-500.css'
import '@fontsource/spline-sans-mono/latin-600.css'
import './kit/tokens.css'
import { QueryClientProvider, useQuery } from '@tanstack/react-query'
import { StrictMode, useEffect, useState } from 'react'
import { RouterProvider } from 'react-aria-components'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Route, Routes, useNavigate } from 'react-router'
import { api, signedOut } from './api/client'
import { readDrafts } from './api/drafts'
import { openOutbox } from './api/outbox'
import {
  floorOptions,
  forgetAnswers,
  jobOptions,
  queryClient,
  roundOptions,
  sessionOptions,
  useReturningServer,
} from './api/queries'
import { Floor } from './floor/Floor'
import { type Late, LateView } from './frame/LateView'
import { Lost } from './frame/Lost'
import { Slip } from './kit/Dialog'
import { SignIn, SignInPage } from './session/SignIn'
import { useIdleLock } from './session/useIdleLock'
import { PreferencesProvider } from './units/preferences'

const JOB: Late = () => import('./job/JobView').then((m) => m.JobView)
const LINE: Late = () => import('./line/LineView').then((m) => m.LineView)
const LINE_EDITOR: Late = () => import('./line/LineEditor').then((m) => m.LineEditor)
const CATALOGUE: Late = () => import('./line/CatalogueView').then((m) => m.CatalogueView)
const RECORD: Late = () => import('./record/RecordView').then((m) => m.RecordView)
const DUE: Late = () => import('./keep/DueView').then((m) => m.DueView)
const ROUNDS: Late = () => import('./keep/RoundsView').then((m) => m.RoundsView)
const HISTORY: Late = () => import('./keep/HistoryView').then((m) => m.HistoryView)
const REASONS: Late = () => import('./keep/ReasonsView').then((m) => m.ReasonsView)
const INSTRUMENTS: Late = () => import('./keep/InstrumentsView').then((m) => m.InstrumentsView)
const QUICK_BENCHES: Late = () => import('./quick/QuickBenches').then((m) => m.QuickBenches)
const QUICK_BENCH: Late = () => import('./quick/QuickBench').then((m) => m.QuickBench)

const MOST_WALKED = 400 // lines; a larger hall is asked for when it is walked

/** Floor and round open without a server as well, once their answers were here. */
async function keepToOpenWithoutServer() {
  const lines = await queryClient.fetchQuery(floorOptions).catch(() => null)
  if (lines && lines.length <= MOST_WALKED) await queryClient.prefetchQuery(roundOptions)
}

/** Signed in or not; and signed out in the middle of work, where the sheet stays as it is underneath. */
function App() {
  const session = useQuery(sessionOptions)
  useReturningServer()
  useEffect(() => {
    if (!session.data) return
    keepToOpenWithoutServer()
  }, [session.data])
  const [ended, setEnded] = useState(false)
  const navigate = useNavigate()
  useIdleLock(session.data?.site.lock_minutes ?? null, async () => {
    // Without a server nobody could sign in again: then it stays open.
    const out = await api.DELETE('/api/session').catch(() => null)
    if (!out?.response.ok) return
    setEnded(true)
    await forgetAnswers()
  })
  useEffect(() => {
    const end = () => setEnded(queryClient.getQueryData(sessionOptions.queryKey) !== undefined)
    signedOut.addEventListener('signed-out', end)
    return () => signedOut.removeEventListener('signed-out', end)
  }, [])
  // Asked once more, the page stays as it is: a name may be half typed on it.
  if (session.isPending && !session.isFetched) return null
  if (!session.data) return <SignInPage />
  const goOn = () => {
    setEnded(false)
    queryClient.invalidateQueries()
  }
  return (
    <RouterProvider navigate={navigate}>
      <Routes>
        <Route path="/" element={<Floor />} />
        <Route path="/lines/new" element={<LateView view={LINE_EDITOR} />} />
        <Route path="/catalogue" element={<LateView view={CATALOGUE} />} />
        <Route path="/lines/:lineId" element={<LateView view={LINE} />} />
        <Route path="/lines/:lineId/edit" element={<LateView view={LINE_EDITOR} />} />
        <Route path="/lines/:lineId/history" element={<LateView view={HISTORY} />} />
        <Route path="/due" element={<LateView view={DUE} />} />
        <Route path="/rounds" element={<LateView view={ROUNDS} />} />
        <Route path="/reasons" element={<LateView view={REASONS} />} />
        <Route path="/instruments" element={<LateView view={INSTRUMENTS} />} />
        <Route path="/jobs/:jobId" element={<LateView view={JOB} />} />
        <Route path="/jobs/:jobId/steps/:stepKey" element={<LateView view={JOB} />} />
        <Route path="/jobs/:jobId/record" element={<LateView view={RECORD} />} />
        <Route path="/benches" element={<LateView view={QUICK_BENCHES} />} />
        <Route path="/benches/:name" element={<LateView view={QUICK_BENCH} />} />
        <Route path="*" element={<Lost />} />
      </Routes>
      <Slip title="Your session has ended" isOpen={ended}>
        <p>Sign in again, whoever works on. The readings are still on the sheet.</p>
        <SignIn onDone={goOn} />
      </Slip>
    </RouterProvider>
  )
}

// Who is signed in and what the address asks for are fetched side by side.
const jobId = window.location.pathname.match(/^\/jobs\/([\da-f-]+)/)?.[1]
if (jobId) queryClient.prefetchQuery(jobOptions(jobId))

// From here on answers are kept for a server that is away; what was asked before is asked once more.
navigator.serviceWorker?.addEventListener('controllerchange', async () => {
  const asked = queryClient.getQueryCache().getAll()
  await Promise.allSettled(asked.map((query) => query.promise))
  queryClient.invalidateQueries({ refetchType: 'all' })
})
navigator.serviceWorker?.register('/sw.js')
await Promise.all([readDrafts(), openOutbox()])

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <PreferencesProvider>
        <BrowserRouter useTransitions={false}>
          <App />
        </BrowserRouter>
      </PreferencesProvider>
    </QueryClientProvider>
  </StrictMode>,
)
