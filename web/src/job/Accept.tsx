import { useState } from 'react'
import styled from 'styled-components'
import { MainButton, PlainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { useMay } from '../session/may'
import { sayWhen } from '../units/when'
import { type Job, type Step, useJob } from './context'
import { OneText } from './OneText'
import { useSign } from './useSign'

/** The open request to accept the reading of this step. */
export function requestOf(job: Job, step: Step) {
  return job.entries
    .filter((e) => e.kind === 'question')
    .find((e) => job.questions.includes(e.id) && e.step === step.key && e.inputs.accept === step.current)
}

/** A reading out of tolerance: whoever works asks the lead to accept it, the lead accepts it with a reason or sends it back. */
export function Accept({ step }: { step: Step }) {
  const job = useJob()
  const mayAccept = useMay('accept out of tolerance')
  const [open, setOpen] = useState<'accept' | 'ask' | 'send back' | null>(null)
  const request = requestOf(job, step)
  const close = () => setOpen(null)
  return (
    <>
      {request && !mayAccept && <p role="status">The lead was asked to accept it, {sayWhen(request.at)}.</p>}
      {!request && !mayAccept && <PlainButton onPress={() => setOpen('ask')}>Ask the lead to accept</PlainButton>}
      {mayAccept && <PlainButton onPress={() => setOpen('accept')}>Accept with a reason</PlainButton>}
      {request && mayAccept && <PlainButton onPress={() => setOpen('send back')}>Send it back</PlainButton>}
      {open === 'ask' && <AskSlip step={step} onClose={close} />}
      {open === 'accept' && <AcceptSlip step={step} asked={request?.inputs.text ?? ''} onClose={close} />}
      {open === 'send back' && request && <SendBackSlip step={step} request={request.id} onClose={close} />}
    </>
  )
}

interface SlipProps {
  step: Step
  onClose: () => void
}

function AskSlip({ step, onClose }: SlipProps) {
  return (
    <OneText
      title="Ask the lead to accept"
      told={`“${step.title}” is out of tolerance. The lead sees its readings with what you write. A better reading takes the request back.`}
      label="Why it could be accepted"
      button="Ask the lead"
      body={(text) => ({ step: step.key, kind: 'question', inputs: { text, accept: step.current } })}
      onClose={onClose}
    />
  )
}

function SendBackSlip({ step, request, onClose }: SlipProps & { request: string }) {
  return (
    <OneText
      title="Send it back"
      told="It stays out of tolerance. Say what is to be done."
      label="What is to be done"
      button="Send it back"
      body={(text) => ({ step: step.key, kind: 'answer', inputs: { question: request, text } })}
      onClose={onClose}
    />
  )
}

function AcceptSlip({ step, asked, onClose }: SlipProps & { asked: string }) {
  const { sign, problem, password, yourPassword } = useSign(step)
  const [reason, setReason] = useState('')
  return (
    <Slip title="Accept it out of tolerance" isOpen onClose={onClose}>
      {asked && <p>Asked: {asked}</p>}
      <p>
        It stays out of tolerance in the record, beside who accepted it, when and why. A limit that is wrong is changed on the
        value card instead.
      </p>
      <Form
        onSubmit={async (event) => {
          event.preventDefault()
          if (await sign('authorise', reason)) onClose()
        }}
      >
        <Words label="Reason" value={reason} onChange={setReason} problem={problem} autoFocus />
        {yourPassword}
        <MainButton type="submit" isDisabled={!reason.trim() || !password}>
          Accept with this reason
        </MainButton>
      </Form>
    </Slip>
  )
}

const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 8px;
`
