import styled from 'styled-components'
import { VerdictColumn } from '../benches/VerdictColumn'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { isSettled, type Step, useJob } from './context'
import { JobSheet } from './JobSheet'
import { KeepValues } from './KeepValues'
import { StepFoot } from './StepFoot'
import { STATE_WORDS } from './states'

/** A signature on the whole: what is still open is listed before anybody signs. */
export function SignStep({ step }: { step: Step }) {
  const job = useJob()
  const unit = useUnit()
  const open = job.steps.filter((s) => s.form.kind !== 'sign' && !isSettled(s))
  const ledger = job.ledger.filter((line) => line.open)
  const signed = step.signed !== null
  const clear = !open.length && !ledger.length && !job.provisional.length
  return (
    <JobSheet
      step={step}
      verdict={
        <VerdictColumn
          say={{ title: signed ? 'Signed.' : clear ? 'Nothing is open.' : 'Not ready to sign.', note: '', moves: [] }}
          result={null}
          lacking=""
          general=""
          foot={<StepFoot step={step} touched={false} others="" />}
        />
      }
    >
      <Paper>
        {open.map((s) => (
          <p key={s.key}>
            <b>{s.title}</b> {sayIn(s.stale_because, unit) || STATE_WORDS[s.state]}
          </p>
        ))}
        {ledger.map((line) => (
          <p key={line.line}>
            <b>Ledger</b> {line.what}: {line.out - line.back} to count back
          </p>
        ))}
        {job.provisional.map((what) => (
          <p key={what}>
            <b>Not final yet</b> {what}
          </p>
        ))}
        {job.proofs.map((proof) => (
          <p key={proof.what} data-proof={proof.stands}>
            <b>{proof.what}</b> {proof.stands}
            {proof.of.length > 0 && <small>: {proof.of.join('; ')}</small>}
          </p>
        ))}
        <KeepValues />
        {clear && <p>Every step is done, the ledger is closed, everything is final.</p>}
      </Paper>
    </JobSheet>
  )
}

const Paper = styled.div`
  padding: 12px 16px;
  p { padding: 6px 0; border-bottom: 0.75px solid var(--line); }
`
