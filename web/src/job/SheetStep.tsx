import { useState } from 'react'
import styled from 'styled-components'
import { append } from '../api/outbox'
import type { Result } from '../benches/bench'
import type { Draft } from '../benches/draft'
import { useDraft } from '../benches/useDraft'
import { VerdictColumn } from '../benches/VerdictColumn'
import { useUnit } from '../units/preferences'
import { sayEach, sayRefusal } from '../units/say'
import { currentOf, type SheetStepOf, useJob } from './context'
import { HeatRunPanel } from './HeatRunPanel'
import { History } from './History'
import { JobSheet } from './JobSheet'
import { outdatedBecause, sayOutdated } from './outdated'
import { RowTable } from './RowTable'
import { RunClock } from './RunClock'
import { OneField } from './SheetFields'
import { StepFoot } from './StepFoot'
import { lacking, ROWS, readSheet, startSheet, stillWrong, withChoice } from './sheet'
import { useOneAtATime } from './useOneAtATime'
import { isEntered, NOT_SENT } from './waiting'

const TITLES: Record<Result['verdict'], string> = {
  inside: 'In order.',
  close: 'In order, near the limit.',
  over: 'Not in order.',
  incomplete: 'Not complete yet.',
  'not judged': 'Done.',
}

/** What was wrong with a sheet as it was entered. */
interface Refusal {
  message: string
  problems: Record<string, string>
  entered: Draft
}

/** A step that wants ticks, words and figures. */
export function SheetStep({ step }: { step: SheetStepOf }) {
  const job = useJob()
  const unit = useUnit()
  const { form } = step
  const current = currentOf(job, step)
  const place = `${job.id}.${step.key}`
  const { draft, touched, others, change, clear } = useDraft(place, () =>
    startSheet(form, current?.bench === 'sheet' ? current.inputs : undefined),
  )
  const entered = isEntered(step, draft)
  const [wrong, setWrong] = useState<Refusal | null>(null)
  const problems = wrong ? stillWrong(wrong.problems, wrong.entered, draft) : {}
  const refused = wrong?.entered === draft ? wrong.message : ''
  const { inputs, typed, unreadable } = readSheet(form, draft)
  const wanted = lacking(form, inputs, ROWS.of(draft))
  const outdated = outdatedBecause(step, touched)
  const result = touched || outdated ? null : (current?.result ?? null)
  const hot = step.heat_plan || step.run ? (job.steps.find((s) => s.key === step.run) ?? step) : null
  const blocked = step.blocked_by.length > 0
  const enter = useOneAtATime(() => {
    setWrong(null)
    return append({
      jobId: job.id,
      body: { step: step.key, kind: 'reading', inputs, typed },
      typedAt: { place, draft },
    }).catch((why) => {
      setWrong({ message: sayRefusal(why, unit), problems: sayEach(why.problems, unit), entered: draft })
    })
  })
  const set = (key: string, value: unknown, more: Record<string, unknown> = {}) =>
    change({ ...draft, choices: { ...withChoice(form, draft.choices, key, value), ...more } })
  return (
    <JobSheet
      step={step}
      isTyping={touched && !entered}
      verdict={
        <VerdictColumn
          say={
            entered
              ? NOT_SENT
              : outdated
                ? sayOutdated(outdated, unit)
                : result && { title: TITLES[result.verdict], note: '', moves: [] }
          }
          result={result}
          lacking={
            wanted.length && !entered && !(hot?.heat_run && !touched)
              ? `Still to fill in: ${wanted.slice(0, 3).join('; ')}${wanted.length > 3 ? `; and ${wanted.length - 3} more` : ''}.`
              : ''
          }
          notYet="Not done yet."
          general={refused}
          clock={hot?.heat_run && <RunClock step={hot} />}
          foot={
            <StepFoot
              step={step}
              touched={touched && !entered}
              enter={
                step.heat_plan && !touched
                  ? undefined
                  : {
                      label: wanted.length && touched ? 'Save unfinished' : undefined,
                      onPress: enter,
                      // Nothing was ticked or typed: there is nothing to save, unless nothing has to be.
                      isDisabled: blocked || unreadable || (!touched && wanted.length > 0),
                      mayGoOn: wanted.length === 0,
                    }
              }
              onStartOver={clear}
              others={others}
            />
          }
        />
      }
    >
      {hot && <HeatRunPanel step={hot} />}
      <Paper data-bench>
        {form.ordered && <Ordered>In this order, top to bottom: a line opens when the one above it is ticked.</Ordered>}
        {form.rows.length > 0 && (
          <RowTable form={form} rows={ROWS.of(draft)} onChange={(rows) => set('rows', rows)} problems={problems} />
        )}
        {form.fields.map((field) => (
          <OneField key={field.key} form={form} field={field} draft={draft} change={change} set={set} problems={problems} />
        ))}
      </Paper>
      <History step={step} />
    </JobSheet>
  )
}

const Paper = styled.div`
  padding: 10px 16px 16px;
  display: flex;
  flex-direction: column;
  gap: 8px;
`
const Ordered = styled.p`
  font-size: var(--fs-small);
  color: var(--ink-2);
`
