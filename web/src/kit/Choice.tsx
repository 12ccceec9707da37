import { Label, Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'

interface ChoiceProps<T extends string> {
  label: string
  options: readonly T[]
  value: T | null
  onChange: (value: T) => void
  words?: Record<T, string>
  hideLabel?: boolean
}

/** One of a few: a row of plates, the chosen one solid. */
export function Choice<T extends string>({ label, options, value, onChange, words, hideLabel }: ChoiceProps<T>) {
  return (
    <Group value={value} onChange={(v) => onChange(v as T)} aria-label={hideLabel ? label : undefined}>
      {!hideLabel && <Name>{label}</Name>}
      <Row>
        {options.map((option) => (
          <Plate key={option} value={option}>
            {words?.[option] ?? option}
          </Plate>
        ))}
      </Row>
    </Group>
  )
}

const Group = styled(RadioGroup)`
  display: flex;
  flex-direction: column;
  gap: 3px;
`
const Name = styled(Label)`
  font-weight: 500;
`
const Row = styled.div`
  display: inline-flex;
  flex-wrap: wrap;
  align-self: flex-start;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
`
const Plate = styled(Radio)`
  display: inline-flex;
  align-items: center;
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 0 13px;
  font-weight: 500;
  font-size: var(--fs-text);
  cursor: pointer;
  & + & { border-left: 0.75px solid var(--line); }
  &[data-selected] { background: var(--ink); color: var(--paper); font-weight: 600; }
  &[data-focus-visible] { outline: 3px solid var(--blue); outline-offset: 2px; z-index: 1; }
`
