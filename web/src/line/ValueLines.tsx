import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { catalogueOptions } from '../api/queries'
import { Num } from '../kit/Allowance'
import { PlainButton } from '../kit/Button'
import type { LengthUnit } from '../units/length'
import { useUnit } from '../units/preferences'
import { CardTable } from './CardTable'
import { EditValue } from './EditValue'
import { showOnCard, unitOnCard } from './figure'

type Value = Schemas['Value']
type Kind = Schemas['ValueKindOut']

interface ValueLinesProps {
  /** Where half-typed values are kept; without it missing ones are entered one by one. */
  place?: string
  keys: readonly string[]
  card: Record<string, Value>
  /** Lines that are filled only where a paper gives them: folded away until then. */
  mayHave?: readonly string[]
  /** Lines the live step waits for. */
  needed?: readonly string[]
  /** Lines for which a hub may have its own figure. */
  perHub?: readonly string[]
  /** What is wrong with a figure, by its key. */
  problems?: Readonly<Record<string, string>>
  onSave: (key: string, value: Value, reason: string) => Promise<void> | void
  /** Several missing values at once, where there is a place for them. */
  onSaveAll?: (values: Record<string, Value>) => Promise<Record<string, string>>
  canEdit?: boolean
  /** Who may change what stands: the lead, with a reason; others ask for it, with theirs. Freely on a card that is made anew. */
  changes?: 'freely' | 'with a reason' | 'asked of the lead'
  /** What is saved, where the card is one that is being typed. */
  standing?: Record<string, Value>
  /** What stood on a line before, and who changed it. */
  changed?: (key: string) => { was: Value; how: string } | undefined
}

/** The value card: a line for each figure with its source; a missing one says which paper to look in. */
export function ValueLines({
  place,
  keys,
  mayHave = [],
  card,
  needed = [],
  perHub = [],
  problems = {},
  onSave,
  onSaveAll,
  canEdit = true,
  changes = 'freely',
  standing,
  changed,
}: ValueLinesProps) {
  const sheet = useUnit()
  const lines = useRef<HTMLUListElement>(null)
  const kinds = (useQuery(catalogueOptions).data?.kinds ?? []).flatMap((kind) => linesOf(kind, card))
  const [editing, setEditing] = useState<string | null>(null)
  const opened = useRef(editing)
  opened.current = editing
  const [further, setFurther] = useState(false)
  const [inColumn, setInColumn] = useState(false)
  const word = changes === 'asked of the lead' ? 'Ask to change' : 'Change'
  const base = (kind: Kind) => kind.key.split('@')[0]!
  const isShown = (kind: Kind) => keys.includes(kind.key) || (kind.key in card && [...keys, ...mayHave].includes(base(kind)))
  const folded = kinds.filter((kind) => mayHave.includes(kind.key) && !isShown(kind))
  const missing = canEdit && place && onSaveAll ? kinds.filter((kind) => isShown(kind) && !(kind.key in card)) : []
  const isColumn = inColumn && missing.length > 0
  const listed = isColumn ? kinds.filter((kind) => isShown(kind) && kind.key in card) : kinds.filter(isShown)
  return (
    <Lines ref={lines}>
      {(missing.length > 1 || isColumn) && (
        <li>
          <PlainButton onPress={() => setInColumn(!isColumn)} aria-expanded={isColumn}>
            {isColumn ? 'One by one' : `Enter ${missing.length} values from one document`}
          </PlainButton>
          {isColumn && place && onSaveAll && <CardTable place={place} kinds={missing} onSave={onSaveAll} />}
        </li>
      )}
      {[...listed, ...(further ? folded : [])].map((kind) => {
        const value = card[kind.key]
        const unitOf = (of?: Value) => kind.unit_by_means[of?.means ?? ''] ?? kind.unit
        const figureUnit = unitOf(value)
        const show = (figure: number) => showOnCard(figure, figureUnit, sheet).replace('-', '−')
        const change = changed?.(kind.key)
        return (
          <li
            key={kind.key}
            data-line={kind.key}
            data-missing={value || folded.includes(kind) ? undefined : ''}
            data-amiss={problems[kind.key] && ''}
          >
            <div>
              <span>
                <b>{kind.title}</b>
                <small>
                  {value
                    ? saySource(value)
                    : `${folded.includes(kind) ? 'If given, in' : 'Not entered. See'} ${kind.look_in}.`}
                </small>
                {change && (
                  <small>
                    Was{' '}
                    {kind.words_only && !change.was.none_because
                      ? change.was.means
                      : sayFigures(change.was, unitOf(change.was), sheet)}
                    , {change.how}
                  </small>
                )}
              </span>
              <span>
                {value?.none_because && `none given: ${value.none_because}`}
                {value && !value.none_because && (
                  <>
                    {!kind.words_only && (
                      <>
                        <Num>{show(value.value)}</Num> {unitOnCard(figureUnit, sheet)}
                        {value.means && value.means !== figureUnit && ', '}
                      </>
                    )}
                    {value.means !== figureUnit && value.means}
                    {!!value.up_to?.length && ' above that'}
                    {value.up_to?.map((step) => (
                      <small key={step.rpm}>
                        up to {step.rpm} rpm <Num>{show(step.value)}</Num> {unitOnCard(figureUnit, sheet)}
                      </small>
                    ))}
                    {value.of_material?.map((one) => (
                      <small key={one.material}>
                        {one.material} <Num>{show(one.value)}</Num> {unitOnCard(figureUnit, sheet)}
                      </small>
                    ))}
                  </>
                )}
                {!value && needed.includes(kind.key) && <strong>this step waits for it</strong>}
              </span>
              {canEdit && (
                <PlainButton
                  onPress={() => setEditing(editing === kind.key ? null : kind.key)}
                  aria-label={`${value ? word : 'Enter'} ${kind.title}`}
                >
                  {value ? word : 'Enter'}
                </PlainButton>
              )}
            </div>
            {problems[kind.key] && <p>{problems[kind.key]}</p>}
            {editing === kind.key && (
              <EditValue
                kind={kind}
                value={value}
                mayDiffer={perHub.includes(kind.key)}
                withReason={(standing ?? card)[kind.key] !== undefined && changes !== 'freely'}
                onSave={async (next, hub, reason) => {
                  await onSave(hub === 'both hubs' ? kind.key : `${kind.key}@${hub}`, next, reason)
                  if (opened.current !== kind.key) return // the hand is on another line by now
                  setEditing(null)
                  // The field that had the focus is gone: the hand goes on from its line, and Escape still closes the slip.
                  lines.current?.querySelector<HTMLElement>(`[data-line="${kind.key}"] button`)?.focus()
                }}
              />
            )}
          </li>
        )
      })}
      {canEdit && folded.length > 0 && (
        <li>
          <PlainButton onPress={() => setFurther(!further)} aria-expanded={further}>
            {further ? 'Show fewer' : `More values: ${folded.length}`}
          </PlainButton>
        </li>
      )}
    </Lines>
  )
}

/** A line of the card, and the same line for a hub that has its own figure. */
function linesOf(kind: Kind, card: Record<string, Value>): Kind[] {
  const own = ['driver', 'driven']
    .filter((side) => `${kind.key}@${side}` in card)
    .map((side) => ({ ...kind, key: `${kind.key}@${side}`, title: `${kind.title}, ${side} hub` }))
  return [kind, ...own]
}

/** A value in one line, with what holds up to a speed or for a material. */
function sayFigures(value: Value, figureUnit: string, sheet: LengthUnit): string {
  if (value.none_because) return `none given: ${value.none_because}`
  const say = (figure: number) => `${showOnCard(figure, figureUnit, sheet)} ${unitOnCard(figureUnit, sheet)}`.trim()
  const steps = (value.up_to ?? []).map((step) => `up to ${step.rpm} rpm ${say(step.value)}`)
  const materials = (value.of_material ?? []).map((one) => `${one.material} ${say(one.value)}`)
  return [say(value.value), ...steps, ...materials].join('; ')
}

/** A source in one line. */
function saySource({ source }: Value): string {
  return [`${source.kind}: ${source.document}`, source.issue && `issue ${source.issue}`, source.page && `page ${source.page}`]
    .filter(Boolean)
    .join(', ')
}

const Lines = styled.ul`
  li { border-bottom: 0.75px solid var(--line); }
  li > div:first-child { display: grid; grid-template-columns: 1fr auto auto; gap: 12px; align-items: center; padding: 4px 0; line-height: 1.2; }
  b { font-weight: 500; }
  strong { font-weight: 600; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
  li > p { font-weight: 600; padding: 0 0 8px 8px; }
  li[data-amiss] { border-left: 3px solid var(--ink); padding-left: 8px; }
  li[data-missing] > div { border-left: 3px solid var(--ink); padding-left: 8px; }
`
