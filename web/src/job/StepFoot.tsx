import { useQuery } from '@tanstack/react-query'
import { useEffect, useLayoutEffect, useRef } from 'react'
import type { PressEvent } from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { jobOptions, queryClient, sessionOptions } from '../api/queries'
import { useHeld } from '../benches/useHeld'
import { MainButton, PlainButton } from '../kit/Button'
import { Discard, TypedBy } from '../kit/Discard'
import { sayWhen } from '../units/when'
import { Accept, requestOf } from './Accept'
import { type Step, useJob } from './context'
import type { GoesTo } from './JobSheet'
import { useSign } from './useSign'

interface StepFootProps {
  step: Step
  touched: boolean
  enter?: {
    /** Where it is not simply saved: what saving it means. */
    label?: string | undefined
    onPress: () => Promise<unknown>
    isDisabled: boolean
    /** As far as can be told before it is saved, the step is done with it. */
    mayGoOn: boolean
  }
  /** Record the move, where the machine is moved here; planned, unless the reading says that no move cures it. */
  move?: { label: string; isPlanned: boolean; onPress: () => void } | undefined
  /** Take new readings, where some stand. */
  onAgain?: (() => void) | undefined
  onStartOver?: () => void
  /** Who else typed what stands here and is not saved. */
  others: string
}

/** What can be done with the step now: save, sign, move, read again, have it accepted, go on to the next. */
export function StepFoot({ step, touched, enter, move, onAgain, onStartOver, others }: StepFootProps) {
  const job = useJob()
  const navigate = useNavigate()
  const next = job.steps.find((s) => s.key === job.next && s.key !== step.key)
  const waits = !touched && step.waits
  const unproven = step.state === 'cannot tell yet'
  const mustEnter = !waits && (touched || !step.current || step.state === 'stale' || unproven)
  const isOver = !touched && !waits && step.may_authorise && isOutOfTolerance(step, job)
  const signed = job.signatures.find((s) => s.id === step.signed)
  const accepted = job.signatures.find((s) => s.id === step.authorised)
  const isDone = !touched && (step.state === 'done' || !!waits)
  const goTo = (to: Pick<Step, 'key'>, by: PressEvent['pointerType']) => {
    // A finger's keyboard stays down: the head of the sheet has the focus then, else the first field.
    const goes: GoesTo = by === 'touch' || by === 'pen' ? 'head' : 'field'
    navigate(`/jobs/${job.id}/steps/${to.key}`, { state: { goes } })
  }
  const foot = useKeptFocus()
  const { held: goesOn, onPointerDown } = useHeld(enter?.mayGoOn && !step.hold && step.blocked_by.length === 0)
  const saveAndGoOn = async (by: PressEvent['pointerType']) => {
    if ((await enter?.onPress()) !== 'stands' || !isStillAt(foot.current)) return
    const now = queryClient.getQueryData(jobOptions(job.id).queryKey)
    const [here, then] = [step.key, now?.next].map((key) => now?.steps.find((s) => s.key === key))
    if (here?.state === 'done' && then && then !== here) goTo(then, by)
  }
  const MoveButton = isOver && move?.isPlanned ? MainButton : PlainButton
  const AgainButton = isOver && !move?.isPlanned ? MainButton : PlainButton
  return (
    <Foot ref={foot} onPointerDownCapture={onPointerDown}>
      {touched && <TypedBy others={others} />}
      {accepted && (
        <p>
          Accepted out of tolerance by {accepted.by}, {sayWhen(accepted.at)}: {accepted.reason}
        </p>
      )}
      {signed && (
        <p>
          Signed by {signed.by}, {signed.role}, {sayWhen(signed.at)}.
        </p>
      )}
      {waits && (
        <p role="status">
          Saved {sayWhen(new Date(waits.at).toISOString())}, kept on this device.
          {step.hold && ' It needs a signature, and a signature waits for the server; what comes after waits for both.'}
        </p>
      )}
      {!touched && !waits && step.state === 'to sign' && <Sign step={step} />}
      {enter && mustEnter && (
        <Side>
          <MainButton
            data-enter-goes-here
            isDisabled={enter.isDisabled}
            onPress={(press) => (goesOn ? saveAndGoOn(press.pointerType) : enter.onPress())}
          >
            {goesOn ? 'Save and go on' : (enter.label ?? 'Save')}
          </MainButton>
          {goesOn && (
            <PlainButton isDisabled={enter.isDisabled} onPress={() => enter.onPress()}>
              Save
            </PlainButton>
          )}
        </Side>
      )}
      {isDone && next && (
        <MainButton data-enter-goes-here onPress={(press) => goTo(next, press.pointerType)}>
          Next: {next.title}
        </MainButton>
      )}
      {!touched && step.state === 'done' && !next && (
        <MainButton data-enter-goes-here onPress={() => navigate(`/jobs/${job.id}/record`)}>
          See the record
        </MainButton>
      )}
      {(move || onAgain) && (
        <Side>
          {move && <MoveButton onPress={move.onPress}>{move.label}</MoveButton>}
          {onAgain && <AgainButton onPress={onAgain}>New readings</AgainButton>}
        </Side>
      )}
      {isOver && <Accept step={step} />}
      {step.optional && !step.current && !touched && !waits && next && (
        <PlainButton onPress={(press) => goTo(next, press.pointerType)}>Leave it out: {next.title}</PlainButton>
      )}
      {step.blocked_by.length > 0 && step.state !== 'done' && next && (
        <PlainButton onPress={(press) => goTo(next, press.pointerType)}>What comes first: {next.title}</PlainButton>
      )}
      {touched && onStartOver && <Discard others={others} onDiscard={onStartOver} />}
    </Foot>
  )
}

/** Out of tolerance, and nobody has accepted it; the lead may have been asked to. */
function isOutOfTolerance(step: Step, job: ReturnType<typeof useJob>) {
  return step.state === 'over' || (step.state === 'waiting' && requestOf(job, step) !== undefined)
}

/** The hand that saved has not gone elsewhere since: the sheet is there, and nothing but its foot has the focus. */
function isStillAt(foot: HTMLElement | null) {
  const focus = document.activeElement
  return foot?.isConnected === true && (focus === document.body || foot.contains(focus))
}

/** When the button that had the focus makes way for the next one, that one has it; where there is none, the sheet has. */
function useKeptFocus() {
  const foot = useRef<HTMLDivElement>(null)
  const wasHere = useRef(false)
  useLayoutEffect(() => {
    const onFocus = (event: FocusEvent) => {
      wasHere.current = foot.current?.contains(event.target as Node) ?? false
    }
    document.addEventListener('focusin', onFocus)
    return () => document.removeEventListener('focusin', onFocus)
  }, [])
  useEffect(() => {
    const isLost = document.activeElement === document.body || document.activeElement === null
    if (!wasHere.current || !isLost) return
    const next = ['[data-enter-goes-here]', 'input', 'button']
      .map((what) => foot.current?.querySelector<HTMLElement>(`${what}:not([disabled])`))
      .find((found) => found)
    const first = next ?? document.querySelector<HTMLElement>('[data-bench] :is(input, button):not([disabled])')
    first?.focus()
  })
  return foot
}

function Sign({ step }: { step: Step }) {
  const session = useQuery(sessionOptions).data
  const role = session?.role
  const { sign, problem, password, yourPassword } = useSign(step)
  const needed = step.hold!
  if (!session?.acts_as.includes(needed)) {
    return (
      <p>
        {needed === 'lead' ? 'Lead’s signature needed' : 'Millwright’s or lead’s signature needed'}. You are signed in as{' '}
        {role}.
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
  p { font-size: var(--fs-text); line-height: 1.25; }
  p[role='alert'] { font-weight: 600; }
`
const Side = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  > * { padding: 2px 10px; }
  > :first-child { flex: 1 1 auto; }
`
