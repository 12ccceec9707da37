import { createContext, type ReactNode, useContext } from 'react'
import styled from 'styled-components'
import { Num } from '../kit/Allowance'
import { type CellPart, EntryCell } from '../kit/EntryCell'
import { type CellKind, readLengthMm, showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import type { CellsProps } from './bench'
import type { Draft } from './draft'
import type { CellSpec } from './table'

interface LabelledCellProps extends CellsProps {
  cell: string
  label: string
  kind?: CellKind
  unit?: string
  width?: number
  detail?: ReactNode
  part?: CellPart
}

/** What the line or the value card gives, by its cell: it is shown as it is computed with, and nothing is typed over it. */
export const GivenCells = createContext<Draft['cells']>({})

const GIVEN_PLACES = 3

/** A cell with its name beside it; where its figure is given, that figure. */
export function LabelledCell({
  cell,
  label,
  kind = 'length',
  unit,
  width = 96,
  detail,
  part,
  draft,
  change,
  problems,
}: LabelledCellProps) {
  const sheet = useUnit()
  const said = unit ?? sheet
  const given = useContext(GivenCells)[cell]
  if (given) {
    const mm = kind === 'length' ? readLengthMm(given) : null
    return (
      <Labelled data-given={cell}>
        <span>
          {label} <small>{said}</small>
          <em>from this line</em>
        </span>
        <Num>{mm === null ? given.text : showLength(mm, sheet, GIVEN_PLACES)}</Num>
      </Labelled>
    )
  }
  return (
    <Labelled>
      <span>
        {label} <small>{said}</small>
        {detail && <em>{detail}</em>}
      </span>
      <EntryCell
        label={said ? `${label}, ${said}` : label}
        typed={draft.cells[cell]}
        onType={(typed) => change({ ...draft, cells: { ...draft.cells, [cell]: typed } })}
        problem={problems[cell]}
        kind={kind}
        width={width}
        part={part}
      />
    </Labelled>
  )
}

interface FieldCellProps extends CellsProps {
  of: Omit<CellSpec, 'hint'>
  width?: number
}

/** The cell of a field of a bench's table. */
export function FieldCell({ of: { cell, label, kind, unit, detail, part }, ...props }: FieldCellProps) {
  return <LabelledCell cell={cell} label={label} kind={kind} unit={unit} detail={detail} part={part} {...props} />
}

const Labelled = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-width: 0;
  > span:first-child { min-width: 0; }
  > :last-child { flex: none; }
  span { font-weight: 500; line-height: 1.15; }
  small { color: var(--ink-2); font-weight: 400; }
  em { display: block; font-style: normal; font-weight: 400; font-size: var(--fs-small); color: var(--ink-2); }
`
/** Zones of a bench, parted by scribed lines. */
export const Zone = styled.section`
  padding: 10px 16px 14px;
  border-bottom: 1.25px solid var(--line);
  &:last-child { border-bottom: 0; }
  h3 { font-size: var(--fs-body); font-weight: 600; margin-bottom: 6px; }
  h3 span { font-weight: 400; font-size: var(--fs-small); color: var(--ink-2); margin-left: 8px; }
`
export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px 20px;
  align-items: center;
`
/** What is done at a drawing: the main thing wide, the others beside it. */
export const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 8px 0;
  > button:first-child { flex: 1 1 220px; }
  &[data-two] > button:nth-child(2) { flex: 1; min-height: 52px; }
`
