import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useLive } from '../api/live'
import { notSent, useOutbox } from '../api/outbox'
import { jobOptions } from '../api/queries'
import { BENCHES } from '../benches/benches'
import { Lost } from '../frame/Lost'
import { BenchStep } from './BenchStep'
import { type Job, JobProvider } from './context'
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
  if (!job) return error ? <Lost why={error} /> : null
  const step = job.steps.find((s) => s.key === stepKey)
  if (!step) return stepKey ? <Lost /> : null
  const common = { step, key: step.key }
  return (
    <JobProvider value={job}>
      {step.form.kind === 'bench' && BENCHES[step.form.bench!] && (
        <BenchStep {...common} bench={BENCHES[step.form.bench!]!} />
      )}
      {step.form.kind === 'sheet' && <SheetStep {...common} />}
      {step.form.kind === 'sign' && <SignStep {...common} />}
    </JobProvider>
  )
}

/** The step a job stands at. */
function firstOpen(job: Job): string {
  return job.next ?? job.steps[job.steps.length - 1]!.key
}
