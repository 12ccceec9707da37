import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from 'react-aria-components'
import styled from 'styled-components'
import { Chevron } from './Chevron'

interface PickProps {
  label: string
  options: readonly string[]
  value: string
  onChange: (value: string) => void
}

/** One of many, from a list. */
export function Pick({ label, options, value, onChange }: PickProps) {
  return (
    <Place selectedKey={value} onSelectionChange={(key) => onChange(String(key))}>
      <Label>{label}</Label>
      <Open>
        <SelectValue>{value || 'choose'}</SelectValue>
        <Chevron />
      </Open>
      <Over>
        <ListBox>
          {options.map((option) => (
            <Item key={option} id={option} textValue={option || 'none'}>
              {option || '—'}
            </Item>
          ))}
        </ListBox>
      </Over>
    </Place>
  )
}

const Place = styled(Select)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  > :first-child { font-weight: 500; }
`
const Open = styled(Button)`
  min-height: var(--touch);
  padding: 0 10px;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
  color: var(--blue);
  font-weight: 500;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  text-align: left;
  width: 100%;
`
const Over = styled(Popover)`
  background: var(--leaf);
  border: 2px solid var(--ink);
  min-width: var(--trigger-width);
  overflow: auto;
`
const Item = styled(ListBoxItem)`
  min-height: var(--touch);
  padding: 10px 12px;
  cursor: pointer;
  outline: none;
  &[data-focused] { background: var(--blue-wash); }
  &[data-selected] { font-weight: 600; }
`
