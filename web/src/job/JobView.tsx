import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useLive } from '../api/live'
import { notSent, useOutbox } from '../api/outbox'
import { jobOptions } from '../api/queries'
import { benchOf } from '../benches/benches'
import { Lost } from '../frame/Lost'
import { BenchStep } from './BenchStep'
import { CoveredStep } from './CoveredStep'
import { isBench, isSheet, type Job, JobProvider, type Step } from './context'
import { SheetStep } from './SheetStep'
import { SignStep } from './SignStep'
import { withWaiting } from './waiting'

/** A job at one of its steps; without a step in the address, at the first that is not done. */
export function JobView() {
  const { jobId = '', stepKey } = useParams()
  const navigate = useNavigate()
  const { data: sent, error } = useQuery(jobOptions(jobId))
  const outbox = useOutbox()
  useLive(jobId)
  const job = useMemo(() => sent && withWaiting(sent, notSent(outbox)), [sent, outbox])
  useEffect(() => {
    if (job && !stepKey) navigate(`/jobs/${jobId}/steps/${firstOpen(job)}`, { replace: true })
  }, [job, stepKey, jobId, navigate])
  if (!job) return error ? <Lost why={error} file={`/api/records/${jobId}/json`} /> : null
  const step = job.steps.find((s) => s.key === stepKey)
  if (!step) return stepKey ? <Lost /> : null
  return (
    <JobProvider value={job}>
      <OneStep key={step.key} step={step} />
    </JobProvider>
  )
}

function OneStep({ step }: { step: Step }) {
  if (step.covered) return <CoveredStep step={step} />
  if (isSheet(step)) return <SheetStep step={step} />
  if (!isBench(step)) return <SignStep step={step} />
  const bench = benchOf(step.form.bench)
  return bench && <BenchStep step={step} bench={bench} />
}

/** The step a job stands at. */
function firstOpen(job: Job): string {
  return job.next ?? job.steps[job.steps.length - 1]!.key
}
