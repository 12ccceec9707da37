import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, bring } from '../api/client'
import { floorOptions, lineJobsOptions } from '../api/queries'
import { MainButton, PlainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'

/** The lead cancels a job, with a reason: it stays on record, and its line is free for another. */
export function CancelJob({ jobId, number, lineId }: { jobId: string; number: number; lineId: string }) {
  const client = useQueryClient()
  const [asking, setAsking] = useState(false)
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState('')
  const cancel = async () => {
    if (!reason.trim()) return setProblem('Enter the reason. The record shows it.')
    try {
      await bring(api.POST('/api/jobs/{job_id}/cancel', { params: { path: { job_id: jobId } }, body: { reason } }))
      await client.invalidateQueries({ queryKey: lineJobsOptions(lineId).queryKey })
      client.invalidateQueries({ queryKey: floorOptions.queryKey })
    } catch (why) {
      setProblem(String((why as Error).message))
    }
  }
  return (
    <>
      <PlainButton onPress={() => setAsking(true)}>Cancel job {number}</PlainButton>
      <Slip title={`Cancel job ${number}`} isOpen={asking} onClose={() => setAsking(false)}>
        <p>
          What was entered stays on record. Nothing can be entered in this job any more. Locks come off by their owners only.
        </p>
        <Words label="Because" value={reason} onChange={setReason} problem={problem} autoFocus />
        <MainButton onPress={cancel}>Cancel the job</MainButton>
      </Slip>
    </>
  )
}
