import type { ReactNode } from 'react'
import { FieldError, Input, Label, Text, TextArea, TextField } from 'react-aria-components'
import styled from 'styled-components'

interface WordsProps {
  label: string
  value: string
  onChange: (value: string) => void
  detail?: string
  problem?: string
  unit?: ReactNode
  long?: boolean
  /** The label is only read out: what is around it says it to the eye. */
  hideLabel?: boolean
  type?: 'text' | 'password' | 'date'
  autoFocus?: boolean
  autoComplete?: string
  isDisabled?: boolean
}

/** One labelled place for words or a figure, with what is wrong right under it. */
export function Words({
  label,
  value,
  onChange,
  detail,
  problem,
  unit,
  long,
  hideLabel,
  type,
  autoFocus,
  autoComplete,
  isDisabled,
}: WordsProps) {
  return (
    <Place
      aria-label={hideLabel ? label : undefined}
      value={value}
      onChange={onChange}
      isInvalid={!!problem}
      validationBehavior="aria" // the browser's own would not let a form go again while its problem is shown
      type={type}
      autoFocus={autoFocus}
      autoComplete={autoComplete}
      isDisabled={isDisabled}
    >
      {!hideLabel && (
        <Name>
          {label}
          {unit && <small> {unit}</small>}
        </Name>
      )}
      {long ? <Area rows={3} /> : <Line />}
      {detail && <Note slot="description">{detail}</Note>}
      <Wrong>{problem}</Wrong>
    </Place>
  )
}

const Place = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`
const Name = styled(Label)`
  font-weight: 500;
  line-height: 1.2;
  small { color: var(--ink-2); font-weight: 400; font-size: var(--fs-small); }
`
const Line = styled(Input)`
  min-height: var(--touch);
  width: 100%;
  padding: 0 10px;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
  color: var(--blue);
  font-weight: 500;
  &[data-invalid] { border: 3px solid var(--temper-4); }
  &[data-focused] { outline: 3px solid var(--blue); outline-offset: -1px; background: var(--blue-wash); }
  &[data-disabled] { color: var(--ink-2); border-color: var(--hair); }
`
const Area = styled(TextArea)`
  min-height: 76px;
  padding: 8px 10px;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
  color: var(--blue);
  resize: vertical;
`
const Note = styled(Text)`
  font-size: var(--fs-small);
  color: var(--ink-2);
  line-height: 1.2;
`
const Wrong = styled(FieldError)`
  font-size: var(--fs-small);
  font-weight: 600;
  line-height: 1.2;
  &::before { content: "— "; }
`
