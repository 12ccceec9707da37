import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { VerdictColumn } from '../benches/VerdictColumn'
import { MainButton } from '../kit/Button'
import { type Step, useJob } from './context'
import { JobSheet } from './JobSheet'

/** A step somebody else has answered, and whose answer nobody sees until a second person has answered as well. */
export function CoveredStep({ step }: { step: Step }) {
  const job = useJob()
  const navigate = useNavigate()
  const second = job.steps.find((other) => other.second_to === step.key)
  return (
    <JobSheet
      step={step}
      isTyping={false}
      verdict={
        <VerdictColumn
          say={{ title: 'Covered.', note: `${step.covered} has answered.`, moves: [] }}
          result={null}
          lacking=""
          general=""
          foot={
            second && (
              <MainButton data-enter-goes-here onPress={() => navigate(`/jobs/${job.id}/steps/${second.key}`)}>
                {second.title}
              </MainButton>
            )
          }
        />
      }
    >
      <Told data-bench>
        <h3>{step.covered} has entered this.</h3>
        <p>
          It stays covered until a second person has looked at the unit and entered it as well, each without knowing what the
          other said. Then both are shown side by side.
        </p>
      </Told>
    </JobSheet>
  )
}

const Told = styled.div`
  padding: 24px 16px;
  h3 { font-size: var(--fs-head); font-weight: 600; }
  p { max-width: 60ch; padding-top: 6px; }
`
