import { Checkbox } from 'react-aria-components'
import styled from 'styled-components'

interface TickProps {
  label: string
  detail?: string
  value: boolean
  onChange: (value: boolean) => void
  isDisabled?: boolean
}

/** A box on the sheet to tick by hand. */
export function Tick({ label, detail, value, onChange, isDisabled }: TickProps) {
  return (
    <Box isSelected={value} onChange={onChange} isDisabled={isDisabled}>
      <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
        <rect
          x="2"
          y="2"
          width="22"
          height="22"
          fill={isDisabled ? 'none' : 'var(--leaf)'}
          stroke={isDisabled ? 'var(--hair)' : 'var(--ink)'}
          strokeWidth="2"
          strokeDasharray={isDisabled ? '4 3' : undefined}
        />
        {value && <path d="M6 13l5 6 9-13" fill="none" stroke="var(--blue)" strokeWidth="3.5" />}
      </svg>
      <span>
        {label}
        {detail && <small>{detail}</small>}
      </span>
    </Box>
  )
}

const Box = styled(Checkbox)`
  display: grid;
  grid-template-columns: 44px 1fr;
  align-items: center;
  min-height: max(48px, var(--touch));
  padding: 4px 8px 4px 0;
  cursor: pointer;
  line-height: 1.2;
  svg { justify-self: center; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
  &[data-focus-visible] { outline: 3px solid var(--blue); outline-offset: -2px; }
  &[data-disabled] { color: var(--ink-2); cursor: default; }
`
