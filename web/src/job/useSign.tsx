import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api, bring, Refused } from '../api/client'
import { newId } from '../api/outbox'
import { Words } from '../kit/Field'
import { type Step, useJob } from './context'

/** A signature goes to the server at once or not at all: a password is never kept on the device. */
export function useSign(step: Step) {
  const job = useJob()
  const client = useQueryClient()
  const id = useRef(newId())
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState('')
  const [wrongPassword, setWrongPassword] = useState('')
  const sign = async (kind: 'hold' | 'authorise', reason = '') => {
    setProblem('')
    setWrongPassword('')
    const body = { id: id.current, step: step.key, kind, entry: step.current, reason, password }
    try {
      await bring(api.POST('/api/jobs/{job_id}/signatures', { params: { path: { job_id: job.id } }, body }))
      id.current = newId()
      setPassword('')
      await client.invalidateQueries({ queryKey: ['job', job.id] })
      client.invalidateQueries({ queryKey: ['floor'] })
      return true
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      const wrong = why.problems.find((p) => p.path === 'password')
      if (wrong) setWrongPassword(wrong.message)
      else
        setProblem(why.unreachable ? `${why.message} A signature does not wait: sign once the server is back.` : why.message)
      return false
    }
  }
  const yourPassword = (
    <Words
      label="Your password"
      type="password"
      autoComplete="current-password"
      value={password}
      onChange={setPassword}
      problem={wrongPassword}
    />
  )
  return { sign, problem, password, yourPassword }
}
