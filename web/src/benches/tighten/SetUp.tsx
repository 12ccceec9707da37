import styled from 'styled-components'
import { Choice } from '../../kit/Choice'
import type { CellsProps } from '../bench'
import { type Draft, oneOf } from '../draft'
import { FieldCell } from '../parts'
import { cell, type Given } from '../table'
import { CLICKS } from './clicks'

const PATTERNS = ['star', 'circle', 'alternate'] as const
export const PATTERN = oneOf('pattern', PATTERNS, 'star')
const PATTERN_WORDS = { star: 'crosswise', circle: 'round and round', alternate: 'odd, then even' }
export const ENDS = ['with the last pass', 'when a full round moves nothing'] as const
export const END = oneOf('until', ENDS, ENDS[0])
const PASSES = ['half, then full', '50, 75, 100 %', 'half, full, full', 'straight to torque', 'half turns'] as const
export const SCHEMES: Record<(typeof PASSES)[number], NonNullable<Given<'tighten'>['passes']>> = {
  'half, then full': [0.5, 1],
  '50, 75, 100 %': [0.5, 0.75, 1],
  'half, full, full': [0.5, 1, 1],
  'straight to torque': [1],
  'half turns': 'half turns',
}
export const SCHEME = oneOf('scheme', PASSES, '50, 75, 100 %')
const HOW_MANY = 'How many bolts, and to what torque?'
export const BOLTS = cell<'tighten'>({ cell: 'bolts', label: 'Bolts', kind: 'number', lacking: HOW_MANY })
export const TORQUE = cell<'tighten'>({
  cell: 'torque',
  label: 'Full torque',
  kind: 'torque',
  unit: 'N·m',
  lacking: HOW_MANY,
})

export const SECOND_BOLTS = cell<'tighten'>({ cell: 'bolts2', label: 'Second circle, bolts', kind: 'number', unit: '' })
export const SECOND_TORQUE = cell<'tighten'>({ cell: 'torque2', label: 'Its torque', kind: 'torque', unit: 'N·m' })
export const isHalfTurns = (draft: Draft) => SCHEME.of(draft) === 'half turns'

/** How a quick bench is to pull: bolts, torque, order and passes. In a job the line says it. */
export function SetUp(cells: CellsProps) {
  const { draft } = cells
  const anew = (next: Draft) => cells.change(CLICKS.put(next, []))
  return (
    <SetUpGrid>
      <FieldCell of={{ ...BOLTS, unit: '' }} {...cells} />
      <FieldCell of={TORQUE} {...cells} />
      {isHalfTurns(draft) && <FieldCell of={SECOND_BOLTS} {...cells} />}
      {isHalfTurns(draft) && <FieldCell of={SECOND_TORQUE} {...cells} />}
      <Choice
        label="Order"
        options={PATTERNS}
        words={PATTERN_WORDS}
        value={PATTERN.of(draft)}
        onChange={(p) => anew(PATTERN.put(draft, p))}
      />
      {!isHalfTurns(draft) && (
        <Choice label="Done" options={ENDS} value={END.of(draft)} onChange={(u) => anew(END.put(draft, u))} />
      )}
      <Choice label="Passes" options={PASSES} value={SCHEME.of(draft)} onChange={(s) => anew(SCHEME.put(draft, s))} />
    </SetUpGrid>
  )
}

const SetUpGrid = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: end;
`
