import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { usableOptions } from '../api/queries'
import type { Draft } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { EntryCell } from '../kit/EntryCell'
import { Words } from '../kit/Field'
import { Tick } from '../kit/Tick'
import { PackPictures } from './PackPictures'
import { type Field, marksAt, NONE_HERE, type SheetForm, waitsFor, whyKey, wordsAt } from './sheet'

interface OneFieldProps {
  form: SheetForm
  field: Field
  draft: Draft
  change: (draft: Draft) => void
  set: (key: string, value: unknown, more?: Record<string, unknown>) => void
  problems: Record<string, string>
}

const CONDITIONS = ['ok', 'not ok']
const CONDITION_WORDS: Record<string, string> = { ok: 'OK', 'not ok': 'Not OK', [NONE_HERE]: 'None here' }

/** One thing a sheet asks. */
export function OneField({ form, field, draft, change, set, problems }: OneFieldProps) {
  switch (field.kind) {
    case 'tick':
      return <TickOrNone form={form} field={field} draft={draft} set={set} problem={problems[field.key]} />
    case 'marks':
      return <Marks field={field} value={marksAt(field.key).of(draft)} set={set} problem={problems[field.key]} />
    case 'condition':
      return <Condition form={form} field={field} draft={draft} change={change} set={set} problems={problems} />
    case 'choice':
      return (
        <Asked>
          <Named field={field} />
          <Choice
            hideLabel
            label={field.label}
            options={field.options}
            value={wordsAt(field.key).of(draft)}
            onChange={(v) => set(field.key, v)}
          />
        </Asked>
      )
    case 'length':
    case 'number':
    case 'count':
      return field.beside ? null : (
        <Narrow>
          <LabelledCell
            cell={field.key}
            label={field.label}
            detail={[field.detail, field.expected !== null && field.expected_of].filter(Boolean).join('; ')}
            kind={field.kind === 'length' ? 'length' : 'number'}
            unit={field.kind === 'length' ? undefined : sayUnit(field)}
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
            value={wordsAt(field.key).of(draft) ?? ''}
            onChange={(v) => set(field.key, v)}
            problem={problems[field.key]}
            unit={field.required ? undefined : 'if any'}
          />
          {field.of_register && <FromTheRegister form={form} field={field} draft={draft} set={set} />}
        </Narrow>
      )
  }
}

/** Whose number it is may be taken from the register, with the day its calibration ends. */
function FromTheRegister({ form, field, draft, set }: Pick<OneFieldProps, 'form' | 'field' | 'draft' | 'set'>) {
  const { data = [] } = useQuery(usableOptions)
  const until = `${field.key}_until`
  const asksUntil = form.fields.some((one) => one.key === until)
  const offered = data.filter((one) => one.kind === field.of_register)
  if (offered.length === 0) return null
  return (
    <Offered role="group" aria-label="From the register">
      <small>from the register</small>
      {offered.map((one) => (
        <PlainButton
          key={one.name}
          aria-pressed={wordsAt(field.key).of(draft) === one.name}
          onPress={() => set(field.key, one.name, asksUntil ? { [until]: one.calibrated_until ?? '' } : {})}
        >
          {one.name}
        </PlainButton>
      ))}
    </Offered>
  )
}

const Named = ({ field }: { field: Field }) => (
  <span>
    {field.label}
    {field.detail && <small>{field.detail}</small>}
  </span>
)

/** In order or not, or none here; how many there are stands in the same row. */
function Condition({ form, field, draft, change, set, problems }: OneFieldProps) {
  const value = wordsAt(field.key).of(draft)
  const counted = form.fields.find((f) => f.beside === field.key)
  const choose = (v: string) =>
    set(field.key, v, field.none_of ? { [whyKey(field)]: v === NONE_HERE ? field.none_of : '' } : {})
  return (
    <>
      {field.picture === 'disc pack' && <PackPictures />}
      <Asked>
        <Named field={field} />
        <Answers>
          {counted && (
            <Counted>
              <EntryCell
                label={counted.label}
                typed={draft.cells[counted.key]}
                onType={(typed) => change({ ...draft, cells: { ...draft.cells, [counted.key]: typed } })}
                problem={problems[counted.key]}
                kind="number"
                width={64}
              />
              <small>{sayUnit(counted) || 'counted'}</small>
            </Counted>
          )}
          <Choice
            hideLabel
            label={field.label}
            options={field.none_of ? [...CONDITIONS, NONE_HERE] : CONDITIONS}
            words={CONDITION_WORDS}
            value={value}
            onChange={choose}
          />
        </Answers>
      </Asked>
      {value === NONE_HERE && <WhyNone field={field} draft={draft} set={set} />}
    </>
  )
}

function WhyNone({ field, draft, set }: Pick<OneFieldProps, 'field' | 'draft' | 'set'>) {
  return (
    <Narrow>
      <Words
        label={`${field.label}: why none`}
        hideLabel
        value={wordsAt(whyKey(field)).of(draft) ?? ''}
        onChange={(v) => set(whyKey(field), v)}
      />
    </Narrow>
  )
}

/** What a count has to come to stands where a figure has its unit. */
const sayUnit = (field: Field) =>
  field.kind === 'count' ? (field.expected === null ? '' : `of ${field.expected}`) : field.unit

interface TickOrNoneProps extends Pick<OneFieldProps, 'form' | 'field' | 'draft' | 'set'> {
  problem: string | undefined
}

/** A tick; where it may not apply, the other answer beside it, with a few words. */
function TickOrNone({ form, field, draft, set, problem }: TickOrNoneProps) {
  const value = draft.choices[field.key]
  const waits = waitsFor(form, field, draft.choices)
  const none = value === NONE_HERE
  return (
    <div>
      <TickRow>
        <Tick
          label={field.label}
          detail={field.detail}
          value={value === true}
          onChange={(v) => set(field.key, v)}
          isDisabled={!!waits && value !== true}
        />
        {field.none_of && (
          <PlainButton
            aria-pressed={none}
            aria-label={`None here: ${field.label}`}
            isDisabled={!!waits && !none}
            onPress={() => {
              set(field.key, none ? false : NONE_HERE, { [whyKey(field)]: none ? '' : field.none_of })
            }}
          >
            None here
          </PlainButton>
        )}
      </TickRow>
      {none && <WhyNone field={field} draft={draft} set={set} />}
      {problem && <Wrong role="alert">{problem}</Wrong>}
    </div>
  )
}

interface MarksProps {
  field: Field
  value: readonly string[]
  set: OneFieldProps['set']
  problem: string | undefined
}

/** Marks as they are read, place by place; they have to agree. */
function Marks({ field, value, set, problem }: MarksProps) {
  const put = (at: number, mark: string) =>
    set(
      field.key,
      field.options.map((_, i) => (i === at ? mark : (value[i] ?? ''))),
    )
  return (
    <Marked>
      <legend>
        {field.label}
        {field.detail && <small>{field.detail}</small>}
      </legend>
      <Places>
        {field.options.map((place, i) => (
          <Words
            key={place}
            label={place}
            value={value[i] ?? ''}
            onChange={(v) => put(i, v)}
            problem={i === 0 ? problem : undefined}
          />
        ))}
      </Places>
    </Marked>
  )
}

const Offered = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
`
const Narrow = styled.div`
  max-width: 460px;
  /* Beside its cell: below it, it would lie over the next line. */
  @media (min-width: 760px) { [slot='errorMessage'] { top: 50%; left: calc(100% + 8px); transform: translateY(-50%); } }
`
const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  border-bottom: 0.75px solid var(--line);
  padding: 4px 0;
  line-height: 1.2;
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
`
const Answers = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
`
const Counted = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  small { min-width: 52px; }
`
const TickRow = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  button[aria-pressed='true'] { background: var(--ink); color: var(--paper); }
`
const Marked = styled.fieldset`
  border: 0;
  border-bottom: 0.75px solid var(--line);
  padding: 4px 0 8px;
  margin: 0;
  legend { padding: 0; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
`
const Places = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: 8px;
  padding: 4px 0;
`
const Wrong = styled.p`
  font-size: var(--fs-small);
  font-weight: 600;
  padding-left: 44px;
`
