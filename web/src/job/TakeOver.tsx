import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused } from '../api/client'
import { MainButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { useMay } from '../session/may'

/** A job that came with a file: nothing goes by it until a lead has read it and takes it over by name. */
export function TakeOver({ jobId }: { jobId: string }) {
  const client = useQueryClient()
  const may = useMay('take over jobs that were read in')
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState('')
  const [wrong, setWrong] = useState('')
  if (!may) return <p>A lead takes it over, or nobody goes by it.</p>
  const send = async () => {
    setProblem('')
    setWrong('')
    try {
      await bring(api.POST('/api/jobs/{job_id}/take-over', { params: { path: { job_id: jobId } }, body: { password } }))
      await client.invalidateQueries()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      const atPassword = why.problems.find((p) => p.path === 'password')
      if (atPassword) setWrong(atPassword.message)
      else setProblem(why.message)
    }
  }
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        send()
      }}
    >
      <p>Read all of it first. What is due, what was left and what drifts goes by it once you take it over.</p>
      <Words
        label="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        problem={wrong}
      />
      <MainButton type="submit" isDisabled={!password}>
        Take this job over
      </MainButton>
      {problem && <p role="alert">{problem}</p>}
    </Form>
  )
}

const Form = styled.form`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  max-width: 420px;
`
