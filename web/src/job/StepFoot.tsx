import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, bring, Refused } from '../api/client'
import { newId } from '../api/outbox'
import { sessionOptions } from '../api/queries'
import { MainButton, PlainButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { useMay } from '../session/may'
import { sayWhen } from '../units/when'
import { type Step, useJob } from './context'

interface StepFootProps {
  step: Step
  touched: boolean
  enter?: { label: string; onPress: () => void; isDisabled: boolean }
  onStartOver?: () => void
}

/** What can be done with the step now: enter, sign, accept with a reason, go on to the next. */
export function StepFoot({ step, touched, enter, onStartOver }: StepFootProps) {
  const job = useJob()
  const navigate = useNavigate()
  const next = job.steps.find((s) => s.key === job.next && s.key !== step.key)
  const waits = !touched && step.waits
  const unproven = step.state === 'cannot tell yet'
  const mustEnter = !waits && (touched || !step.current || step.state === 'stale' || unproven)
  const signed = job.signatures.find((s) => s.id === step.signed)
  const accepted = job.signatures.find((s) => s.id === step.authorised)
  const foot = useKeptFocus()
  return (
    <Foot ref={foot}>
      {accepted && (
        <p>
          Accepted over its limit by {accepted.by}, {sayWhen(accepted.at)}: {accepted.reason}
        </p>
      )}
      {signed && (
        <p>
          Signed by {signed.by}, {signed.role}, {sayWhen(signed.at)}.
        </p>
      )}
      {waits && (
        <p role="status">
          Entered {sayWhen(new Date(waits.at).toISOString())}, kept on this device.
          {step.hold && ' It wants a signature, and a signature waits for the server; what comes after waits for both.'}
        </p>
      )}
      {!touched && !waits && step.state === 'to sign' && <Sign step={step} />}
      {!touched && !waits && step.state === 'over' && step.may_authorise && <Authorise step={step} />}
      {enter && mustEnter && (
        <MainButton data-enter-goes-here isDisabled={enter.isDisabled} onPress={enter.onPress}>
          {enter.label}
        </MainButton>
      )}
      {step.optional && !step.current && !touched && !waits && next && (
        <PlainButton onPress={() => navigate(`/jobs/${job.id}/steps/${next.key}`)}>Leave it out: {next.title}</PlainButton>
      )}
      {step.blocked_by.length > 0 && step.state !== 'done' && next && (
        <PlainButton onPress={() => navigate(`/jobs/${job.id}/steps/${next.key}`)}>
          What comes first: {next.title}
        </PlainButton>
      )}
      {touched && onStartOver && <PlainButton onPress={onStartOver}>Clear what was typed</PlainButton>}
      {!touched && (step.state === 'done' || waits) && next && (
        <MainButton
          data-enter-goes-here
          onPress={(press) =>
            navigate(`/jobs/${job.id}/steps/${next.key}`, { state: { byKeys: press.pointerType === 'keyboard' } })
          }
        >
          Next: {next.title}
        </MainButton>
      )}
      {!touched && step.state === 'done' && !next && (
        <MainButton data-enter-goes-here onPress={() => navigate(`/jobs/${job.id}/record`)}>
          See the record
        </MainButton>
      )}
    </Foot>
  )
}

/** When the button that had the focus makes way for the next one, that one has it; where there is none, the sheet has. */
function useKeptFocus() {
  const foot = useRef<HTMLDivElement>(null)
  const wasHere = useRef(false)
  useEffect(() => {
    const onFocus = (event: FocusEvent) => {
      wasHere.current = foot.current?.contains(event.target as Node) ?? false
    }
    document.addEventListener('focusin', onFocus)
    return () => document.removeEventListener('focusin', onFocus)
  }, [])
  useEffect(() => {
    const isLost = document.activeElement === document.body || document.activeElement === null
    if (!wasHere.current || !isLost) return
    const next = foot.current?.querySelector<HTMLElement>('input, button:not([disabled])')
    const first = next ?? document.querySelector<HTMLElement>('[data-bench] :is(input, button):not([disabled])')
    first?.focus()
  })
  return foot
}

/** A signature goes to the server at once or not at all: a password is never kept on the device. */
function useSign(step: Step) {
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
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      const wrong = why.problems.find((p) => p.path === 'password')
      if (wrong) setWrongPassword(wrong.message)
      else
        setProblem(why.unreachable ? `${why.message} A signature does not wait: sign once the server is back.` : why.message)
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

function Sign({ step }: { step: Step }) {
  const session = useQuery(sessionOptions).data
  const role = session?.role
  const { sign, problem, password, yourPassword } = useSign(step)
  const wanted = step.hold!
  if (!session?.acts_as.includes(wanted)) {
    return (
      <p>
        Hold: {wanted === 'lead' ? 'the lead signs' : 'a millwright or the lead signs'}. You are signed in as {role}.
      </p>
    )
  }
  return (
    <Form
      data-sign
      onSubmit={(event) => {
        event.preventDefault()
        sign('hold')
      }}
    >
      {yourPassword}
      <MainButton type="submit" data-enter-goes-here isDisabled={!password}>
        Sign as {role}
      </MainButton>
      {problem && <p role="alert">{problem}</p>}
    </Form>
  )
}

function Authorise({ step }: { step: Step }) {
  const mayAccept = useMay('accept what is over its limit')
  const { sign, problem, password, yourPassword } = useSign(step)
  const [reason, setReason] = useState('')
  if (!mayAccept) return <p>Over its limit. Put it right, or the lead may accept it with a reason.</p>
  return (
    <Form
      data-sign
      onSubmit={(event) => {
        event.preventDefault()
        sign('authorise', reason)
      }}
    >
      <Words
        label="Accept it over its limit, because"
        value={reason}
        onChange={setReason}
        problem={problem}
        detail="The record shows who, why and when."
      />
      {yourPassword}
      <PlainButton type="submit" isDisabled={!reason.trim() || !password}>
        Accept with this reason
      </PlainButton>
    </Form>
  )
}

const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 8px;
`
const Foot = styled.div`
  padding: 10px 16px;
  border-bottom: 1.25px solid var(--ink);
  display: flex;
  flex-direction: column;
  gap: 8px;
  &:empty { display: none; }
  p { font-size: 15px; line-height: 1.25; }
  p[role='alert'] { font-weight: 600; }
`
