import { useState } from 'react'
import { Input, Label, TextField } from 'react-aria-components'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append, newId } from '../api/outbox'
import type { Result } from '../benches/bench'
import { type Draft, DraftReader } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { VerdictColumn } from '../benches/VerdictColumn'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { Tick } from '../kit/Tick'
import { useUnit } from '../units/preferences'
import { entriesOf, type Step, useJob } from './context'
import { HeatRunPanel } from './HeatRunPanel'
import { History } from './History'
import { JobSheet } from './JobSheet'
import { outdatedBecause, sayOutdated } from './outdated'
import { PackPictures } from './PackPictures'
import { StepFoot } from './StepFoot'

type Field = Schemas['FieldOut']
type Rows = Record<string, string>[]

const TITLES: Record<Result['verdict'], string> = {
  inside: 'In order.',
  close: 'In order, but close.',
  over: 'Not in order.',
  incomplete: 'Not complete yet.',
  'not judged': 'Done.',
}

/** A step that wants ticks, words and figures. */
export function SheetStep({ step }: { step: Step }) {
  const job = useJob()
  const unit = useUnit()
  const current = job.entries.find((e) => e.id === step.current)
  const { draft, touched, change, clear } = useDraft(`${job.id}.${step.key}`, () => startSheet(step, current?.inputs))
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [refused, setRefused] = useState('')
  const { inputs, typed, unreadable } = readSheet(step, draft)
  const wanted = lacking(step, inputs)
  const outdated = outdatedBecause(step, touched)
  const result = touched || outdated ? null : ((current?.result as Result | undefined) ?? null)
  const blocked = step.blocked_by.length > 0
  const enter = () => {
    setProblems({})
    setRefused('')
    append({
      id: newId(),
      jobId: job.id,
      to: 'entries',
      step: step.key,
      body: { step: step.key, kind: 'reading', inputs, typed, unit: 'mm' },
    })
      .then(clear)
      .catch((why) => {
        const here = Object.fromEntries((why.problems as Schemas['ProblemOut'][]).map((p) => [p.path, p.message]))
        setProblems(here)
        setRefused(why.message)
      })
  }
  const set = (key: string, value: unknown) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
  return (
    <JobSheet
      step={step}
      verdict={
        <VerdictColumn
          say={outdated ? sayOutdated(outdated, unit) : result && { title: TITLES[result.verdict], note: '', moves: [] }}
          result={result}
          lacking={
            wanted.length
              ? `Still wanted: ${wanted.slice(0, 3).join('; ')}${wanted.length > 3 ? `; and ${wanted.length - 3} more` : ''}.`
              : ''
          }
          general={refused}
          foot={
            <StepFoot
              step={step}
              touched={touched}
              enter={
                step.heat_plan && !touched
                  ? undefined
                  : {
                      label: wanted.length ? 'Enter as it stands' : 'Enter',
                      onPress: enter,
                      isDisabled: blocked || unreadable,
                    }
              }
              onStartOver={clear}
            />
          }
        />
      }
    >
      {step.heat_plan && <HeatRunPanel step={step} />}
      <Paper data-bench>
        {step.form.rows!.length > 0 && (
          <RowTable
            step={step}
            rows={(draft.choices.rows as Rows | undefined) ?? []}
            onChange={(rows) => set('rows', rows)}
            problems={problems}
          />
        )}
        {step.form.fields!.map((field) => (
          <OneField key={field.key} field={field} draft={draft} change={change} set={set} problems={problems} />
        ))}
      </Paper>
      <History entries={entriesOf(job, step.key)} />
    </JobSheet>
  )
}

interface OneFieldProps {
  field: Field
  draft: Draft
  change: (draft: Draft) => void
  set: (key: string, value: unknown) => void
  problems: Record<string, string>
}

const CONDITION_WORDS = { ok: 'OK', 'not ok': 'Not OK' }

function OneField({ field, draft, change, set, problems }: OneFieldProps) {
  const value = draft.choices[field.key]
  switch (field.kind) {
    case 'tick':
      return <Tick label={field.label} detail={field.detail} value={value === true} onChange={(v) => set(field.key, v)} />
    case 'condition':
      return (
        <>
          {field.picture === 'disc pack' && <PackPictures />}
          <Condition>
            <span>
              {field.label}
              {field.detail && <small>{field.detail}</small>}
            </span>
            <Choice
              hideLabel
              label={field.label}
              options={['ok', 'not ok'] as const}
              words={CONDITION_WORDS}
              value={(value as 'ok') ?? null}
              onChange={(v) => set(field.key, v)}
            />
          </Condition>
        </>
      )
    case 'choice':
      return (
        <Condition>
          <span>
            {field.label}
            {field.detail && <small>{field.detail}</small>}
          </span>
          <Choice
            hideLabel
            label={field.label}
            options={field.options}
            value={(value as string) ?? null}
            onChange={(v) => set(field.key, v)}
          />
        </Condition>
      )
    case 'length':
    case 'number':
      return (
        <Narrow>
          <LabelledCell
            cell={field.key}
            label={field.label}
            detail={field.detail}
            kind={field.kind}
            unit={field.kind === 'number' ? field.unit : undefined}
            draft={draft}
            change={change}
            problems={problems}
          />
        </Narrow>
      )
    case 'text':
    case 'date':
      return (
        <Narrow>
          <Words
            label={field.label}
            detail={field.detail}
            type={field.kind === 'date' ? 'date' : 'text'}
            value={(value as string) ?? ''}
            onChange={(v) => set(field.key, v)}
            problem={problems[field.key]}
            unit={field.required ? undefined : 'if any'}
          />
        </Narrow>
      )
  }
}

function RowTable({
  step,
  rows,
  onChange,
  problems,
}: {
  step: Step
  rows: Rows
  onChange: (rows: Rows) => void
  problems: Record<string, string>
}) {
  const columns = step.form.rows!
  return (
    <Table>
      <thead>
        <tr>
          {columns.map((c) => (
            <th key={c.key}>{c.label}</th>
          ))}
          <th aria-label="Take away" />
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name than their place
          <tr key={i}>
            {columns.map((c) => (
              <td key={c.key}>
                <TextField
                  aria-label={`${c.label}, ${step.form.row_name} ${i + 1}`}
                  value={row[c.key] ?? ''}
                  onChange={(value) => onChange(rows.map((r, at) => (at === i ? { ...r, [c.key]: value } : r)))}
                >
                  <Label hidden>{c.label}</Label>
                  <Input size={Math.max(7, ...rows.map((r) => r[c.key]?.length ?? 0))} />
                </TextField>
                {problems[`rows.${i}.${c.key}`] && <small role="alert">{problems[`rows.${i}.${c.key}`]}</small>}
              </td>
            ))}
            <td>
              <PlainButton
                aria-label={`Take ${step.form.row_name} ${i + 1} away`}
                onPress={() => onChange(rows.filter((_, at) => at !== i))}
              >
                ×
              </PlainButton>
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={columns.length + 1}>
            <PlainButton onPress={() => onChange([...rows, Object.fromEntries(columns.map((c) => [c.key, '']))])}>
              Add {article(step.form.row_name!)}
            </PlainButton>
          </td>
        </tr>
      </tfoot>
    </Table>
  )
}

const article = (name: string) => `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`

function startSheet(step: Step, entered: Record<string, unknown> | undefined): Draft {
  const draft: Draft = { cells: {}, choices: {} }
  if (step.form.rows!.length) draft.choices.rows = entered?.rows ?? step.form.suggested_rows
  for (const field of step.form.fields!) {
    const value = entered?.[field.key]
    if (value === undefined || value === null) continue
    if (field.kind === 'length' || field.kind === 'number') draft.cells[field.key] = { text: String(value), unit: 'mm' }
    else draft.choices[field.key] = value
  }
  return draft
}

function readSheet(step: Step, draft: Draft) {
  const reader = new DraftReader(draft)
  const inputs: Record<string, unknown> = {}
  if (step.form.rows!.length) inputs.rows = draft.choices.rows ?? []
  for (const field of step.form.fields!) {
    const value =
      field.kind === 'length'
        ? reader.length(field.key, field.key)
        : field.kind === 'number'
          ? reader.number(field.key, field.key)
          : (draft.choices[field.key] ?? null)
    if (value !== null && value !== '') inputs[field.key] = value
  }
  return { inputs, typed: reader.typed, unreadable: reader.unreadable }
}

function lacking(step: Step, inputs: Record<string, unknown>): string[] {
  const fields = step.form
    .fields!.filter((f) => f.required && (f.kind === 'tick' ? inputs[f.key] !== true : inputs[f.key] === undefined))
    .map((f) => f.label)
  const rows = (inputs.rows as Rows | undefined) ?? []
  const holes = rows.flatMap((row, i) =>
    step.form.rows!.filter((c) => c.required && !row[c.key]?.trim()).map((c) => `${c.label.toLowerCase()} in row ${i + 1}`),
  )
  return [...holes, ...(step.form.rows!.length && !rows.length ? [article(step.form.row_name!)] : []), ...fields]
}

const Paper = styled.div`
  padding: 10px 16px 16px;
  display: flex;
  flex-direction: column;
  gap: 8px;
`
const Narrow = styled.div`
  max-width: 460px;
`
const Condition = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  border-bottom: 0.75px solid var(--line);
  padding: 4px 0;
  line-height: 1.2;
  small { display: block; font-size: 14px; color: var(--ink-2); }
`
const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  th { text-align: left; font-weight: 500; font-size: 14px; padding: 2px 4px; }
  td { padding: 2px; vertical-align: top; }
  input { width: 100%; min-width: 0; font-size: 15px; min-height: var(--touch); border: 1.25px solid var(--ink); background: var(--leaf); color: var(--blue); padding: 0 8px; }
  input:focus { outline: 3px solid var(--blue); outline-offset: -1px; background: var(--blue-wash); }
`
