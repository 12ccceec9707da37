import { type KeyboardEvent, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { type Draft, oneOf } from '../benches/draft'
import { useDraft } from '../benches/useDraft'
import { MainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { Pick } from '../kit/Pick'
import { useUnit } from '../units/preferences'
import { SOURCES } from './EditValue'
import { type Figure, readFigureDraft, showFigureDraft, typedForRecord, unitOnCard, wrongWith } from './figure'

type Value = Schemas['Value']
type Kind = Schemas['ValueKindOut']

const SOURCE = oneOf<(typeof SOURCES)[number], (typeof SOURCES)[number]>('source', SOURCES, SOURCES[0])
const EMPTY: Draft = { cells: {}, choices: {} }

interface CardTableProps {
  /** Where its half-typed figures are kept. */
  place: string
  kinds: readonly Kind[]
  /** All of them at once; what was refused, and why, by its key. */
  onSave: (values: Record<string, Value>) => Promise<Record<string, string>>
}

/** Missing values, typed down a column: the document, its issue and page once for all of them. */
export function CardTable({ place, kinds, onSave }: CardTableProps) {
  const unit = useUnit()
  const { draft, change } = useDraft(place, () => EMPTY)
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [left, setLeft] = useState('')
  const word = (key: string) => String(draft.choices[key] ?? '')
  const choose = (key: string, value: string) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
  const means = (kind: Kind) => word(`means.${kind.key}`)
  const unitOf = (kind: Kind) => kind.unit_by_means[means(kind)] ?? kind.unit
  const figureOf = (kind: Kind): Figure => ({ stands: kind.words_only ? 0 : null, typed: draft.cells[kind.key] ?? null })
  const isBegun = (kind: Kind) => (kind.words_only ? !!means(kind) : !!draft.cells[kind.key]?.text.trim())
  const begun = kinds.filter(isBegun)
  const save = async () => {
    const wrong: Record<string, string> = {}
    if (!word('document').trim()) wrong.document = 'Enter the document.'
    if (begun.length === 0) wrong.document = 'Enter a value first.'
    const source = { kind: SOURCE.of(draft), document: word('document').trim(), issue: word('issue'), page: word('page') }
    const ready: Record<string, Value> = {}
    for (const kind of begun) {
      const value = readFigureDraft(figureOf(kind), unitOf(kind))
      const problem = wrongWith(kind, figureOf(kind), means(kind), unit)
      if (value === null || problem) wrong[kind.key] = problem ?? ''
      else if (!wrong.document)
        ready[kind.key] = {
          value,
          means: means(kind).trim(),
          none_because: '',
          typed: typedForRecord(figureOf(kind), unitOf(kind)),
          up_to: [],
          of_material: [],
          source,
        }
    }
    const refused = Object.keys(ready).length > 0 ? await onSave(ready) : {}
    setProblems({ ...wrong, ...refused })
    const left = begun.filter((kind) => kind.key in wrong || kind.key in refused).length
    setLeft(left > 0 ? `${left === 1 ? '1 value is' : `${left} values are`} not saved yet: look at what is marked.` : '')
    const isSaved = (key: string) => key in ready && !(key in refused)
    if (Object.keys(ready).some(isSaved))
      change({ ...draft, cells: Object.fromEntries(Object.entries(draft.cells).filter(([key]) => !isSaved(key))) })
  }
  return (
    <Typed onKeyDown={goDown}>
      <div className="source">
        <Pick label="Comes from" options={SOURCES} value={SOURCE.of(draft)} onChange={(kind) => choose('source', kind)} />
        <Words
          label="Document"
          value={word('document')}
          onChange={(v) => choose('document', v)}
          problem={problems.document}
        />
        <Words label="Issue" value={word('issue')} onChange={(v) => choose('issue', v)} />
        <Words label="Page" value={word('page')} onChange={(v) => choose('page', v)} />
      </div>
      {kinds.map((kind) => (
        <div className="line" key={kind.key}>
          {kind.words_only && !kind.written ? (
            <b>{kind.title}</b>
          ) : (
            <Words
              label={kind.title}
              unit={kind.written ? '' : unitOnCard(unitOf(kind), unit)}
              detail={`Not entered. See ${kind.look_in}.`}
              value={kind.written ? means(kind) : showFigureDraft(figureOf(kind), unitOf(kind), unit)}
              onChange={(text) =>
                kind.written
                  ? choose(`means.${kind.key}`, text)
                  : change({ ...draft, cells: { ...draft.cells, [kind.key]: { text, unit } } })
              }
              problem={problems[kind.key]}
            />
          )}
          {kind.means.length > 0 && (
            <Choice
              label={kind.ask}
              options={kind.means}
              value={means(kind) || null}
              onChange={(v) => choose(`means.${kind.key}`, v)}
            />
          )}
        </div>
      ))}
      {left && <p role="alert">{left}</p>}
      <MainButton onPress={save}>{begun.length > 1 ? `Save ${begun.length} values` : 'Save value'}</MainButton>
    </Typed>
  )
}

/** Enter goes down the column. */
function goDown(event: KeyboardEvent<HTMLElement>) {
  if (event.key !== 'Enter' || !(event.target instanceof HTMLInputElement) || event.target.type !== 'text') return
  event.preventDefault()
  const cells = [
    ...event.currentTarget.querySelectorAll<HTMLElement>('input[type=text], input:not([type]), button:last-of-type'),
  ]
  cells[cells.indexOf(event.target) + 1]?.focus()
}

const Typed = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0 12px;
  .source { display: grid; grid-template-columns: minmax(150px, 1fr) 2fr 1fr 1fr; gap: 10px; align-items: start; }
  .line { display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: flex-start; border-left: 3px solid var(--ink); padding-left: 8px; }
  .line > :first-child { flex: 0 1 380px; }
  && small { display: inline; }
  > button { align-self: flex-start; }
  @media (max-width: 700px) { .source { grid-template-columns: 1fr 1fr; } }
`
