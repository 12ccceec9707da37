import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { catalogueOptions } from '../api/queries'
import { Num } from '../kit/Allowance'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { forRecord, readLengthMm, readNumber } from '../units/length'
import { useUnit } from '../units/preferences'

type Value = Schemas['Value']
type Kind = Schemas['ValueKindOut']

const HUBS = ['both hubs', 'driver', 'driven'] as const
type Hubs = (typeof HUBS)[number]
const SOURCES = ["maker's manual", 'drawing', 'site rule', 'measured', 'sample'] as const

interface ValueLinesProps {
  keys: readonly string[]
  card: Record<string, Value>
  /** Lines that are filled only where a paper gives them: folded away until then. */
  mayHave?: readonly string[]
  /** Lines the live step waits for. */
  needed?: readonly string[]
  /** Lines for which a hub may have its own figure. */
  perHub?: readonly string[]
  onSave: (key: string, value: Value) => Promise<void> | void
  canEdit?: boolean
}

/** The value card: a line for each figure with its source; a missing one says which paper to look in. */
export function ValueLines({ keys, mayHave = [], card, needed = [], perHub = [], onSave, canEdit = true }: ValueLinesProps) {
  const kinds = (useQuery(catalogueOptions).data?.kinds ?? []).flatMap((kind) => linesOf(kind, card))
  const [editing, setEditing] = useState<string | null>(null)
  const [further, setFurther] = useState(false)
  const base = (kind: Kind) => kind.key.split('@')[0]!
  const isShown = (kind: Kind) => keys.includes(kind.key) || (kind.key in card && [...keys, ...mayHave].includes(base(kind)))
  const folded = kinds.filter((kind) => mayHave.includes(kind.key) && !isShown(kind))
  return (
    <Lines>
      {[...kinds.filter(isShown), ...(further ? folded : [])].map((kind) => {
        const value = card[kind.key]
        return (
          <li key={kind.key} data-missing={value || folded.includes(kind) ? undefined : ''}>
            <div>
              <span>
                <b>{kind.title}</b>
                <small>
                  {value ? saySource(value) : `${folded.includes(kind) ? 'If given' : 'Missing. Look'} in ${kind.look_in}.`}
                </small>
              </span>
              <span>
                {value && (
                  <>
                    <Num>{value.value}</Num> {kind.unit}
                    {value.means && value.means !== kind.unit && `, ${value.means}`}
                    {!!value.up_to?.length && ' above that'}
                    {value.up_to?.map((step) => (
                      <small key={step.rpm}>
                        up to {step.rpm} rpm <Num>{step.value}</Num>
                      </small>
                    ))}
                  </>
                )}
                {!value && needed.includes(kind.key) && <strong>this step waits for it</strong>}
              </span>
              {canEdit && (
                <PlainButton
                  onPress={() => setEditing(editing === kind.key ? null : kind.key)}
                  aria-label={`${value ? 'Change' : 'Enter'} ${kind.title}`}
                >
                  {value ? 'Change' : 'Enter'}
                </PlainButton>
              )}
            </div>
            {editing === kind.key && (
              <EditValue
                kind={kind}
                value={value}
                mayDiffer={perHub.includes(kind.key)}
                onSave={async (next, hub) => {
                  await onSave(hub === 'both hubs' ? kind.key : `${kind.key}@${hub}`, next)
                  setEditing(null)
                }}
              />
            )}
          </li>
        )
      })}
      {canEdit && folded.length > 0 && (
        <li>
          <PlainButton onPress={() => setFurther(!further)} aria-expanded={further}>
            {further ? 'Fold the further lines away' : `Further lines, where a paper gives them: ${folded.length}`}
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

/** A source in one line. */
export function saySource({ source }: Value): string {
  return [`${source.kind}: ${source.document}`, source.issue && `issue ${source.issue}`, source.page && `page ${source.page}`]
    .filter(Boolean)
    .join(', ')
}

function EditValue({
  kind,
  value,
  mayDiffer,
  onSave,
}: {
  kind: Kind
  value: Value | undefined
  mayDiffer: boolean
  onSave: (value: Value, hub: Hubs) => Promise<void>
}) {
  const [hub, setHub] = useState<Hubs>('both hubs')
  const [steps, setSteps] = useState((value?.up_to ?? []).map((s) => ({ rpm: String(s.rpm), text: String(s.value) })))
  const unit = useUnit()
  const [text, setText] = useState(value ? String(value.value) : '')
  const [means, setMeans] = useState(value?.means ?? '')
  const [source, setSource] = useState<Schemas['Source']>(
    value?.source ?? { kind: "maker's manual", document: '', issue: '', page: '' },
  )
  const [problem, setProblem] = useState('')
  const isLength = kind.unit === 'mm'
  const typed = { text, unit: value && text === String(value.value) ? ('mm' as const) : unit }
  const figure = isLength ? readLengthMm(typed) : readNumber(text)
  const save = () => {
    if (figure === null) return setProblem('This wants a number.')
    if (kind.means.length && !means) return setProblem(`${kind.ask}: ${kind.means.join(' or ')}?`)
    if (!source.document.trim()) return setProblem('Name the paper it comes from.')
    const upTo = readSteps(steps, isLength ? unit : null)
    if (!upTo) return setProblem('Each speed wants an rpm and a figure.')
    return onSave({ value: figure, means, typed: isLength ? (forRecord(typed) ?? '') : '', up_to: upTo, source }, hub).catch(
      (why) => setProblem(why.message),
    )
  }
  return (
    <Edit>
      <Words
        label={kind.title}
        unit={isLength ? unit : kind.unit}
        value={text}
        onChange={setText}
        autoFocus
        problem={problem}
      />
      {kind.by_speed && <BySpeed steps={steps} setSteps={setSteps} unit={isLength ? unit : kind.unit} />}
      {mayDiffer && <Choice label="Holds for" options={HUBS} value={hub} onChange={setHub} />}
      {kind.means.length > 0 && <Choice label={kind.ask} options={kind.means} value={means || null} onChange={setMeans} />}
      <Choice
        label="Comes from"
        options={SOURCES}
        value={source.kind as (typeof SOURCES)[number]}
        onChange={(k) => setSource({ ...source, kind: k })}
      />
      <div className="three">
        <Words label="Document" value={source.document} onChange={(document) => setSource({ ...source, document })} />
        <Words label="Issue" value={source.issue ?? ''} onChange={(issue) => setSource({ ...source, issue })} />
        <Words label="Page" value={source.page ?? ''} onChange={(page) => setSource({ ...source, page })} />
      </div>
      <PlainButton onPress={save}>Put it on the card</PlainButton>
    </Edit>
  )
}

interface TypedStep {
  rpm: string
  text: string
}

/** Limits that hold up to a speed; rows left empty are left out. Null where one cannot be read. */
function readSteps(steps: TypedStep[], unit: 'mm' | 'in' | null) {
  const filled = steps.filter((s) => s.rpm.trim() || s.text.trim())
  const read = filled.map((s) => ({
    rpm: readNumber(s.rpm),
    value: unit ? readLengthMm({ text: s.text, unit }) : readNumber(s.text),
  }))
  return read.every((s) => s.rpm !== null && s.value !== null) ? (read as Schemas['UpTo'][]) : null
}

function BySpeed({ steps, setSteps, unit }: { steps: TypedStep[]; setSteps: (steps: TypedStep[]) => void; unit: string }) {
  const put = (i: number, change: Partial<TypedStep>) => setSteps(steps.map((s, at) => (at === i ? { ...s, ...change } : s)))
  return (
    <>
      {steps.map((step, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name than their place
        <div className="two" key={i}>
          <Words label="Up to" unit="rpm" value={step.rpm} onChange={(rpm) => put(i, { rpm })} />
          <Words label="it is" unit={unit} value={step.text} onChange={(text) => put(i, { text })} />
        </div>
      ))}
      <PlainButton onPress={() => setSteps([...steps, { rpm: '', text: '' }])}>Another figure up to a speed</PlainButton>
    </>
  )
}

const Lines = styled.ul`
  li { border-bottom: 0.75px solid var(--line); }
  li > div:first-child { display: grid; grid-template-columns: 1fr auto auto; gap: 12px; align-items: center; padding: 4px 0; line-height: 1.2; }
  b { font-weight: 500; }
  strong { font-weight: 600; }
  small { display: block; font-size: 14px; color: var(--ink-2); }
  li[data-missing] > div { border-left: 3px solid var(--ink); padding-left: 8px; }
`
const Edit = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0 14px 12px;
  .two { display: grid; grid-template-columns: 1fr 1fr; gap: 10px; max-width: 360px; }
  .three { display: grid; grid-template-columns: 2fr 1fr 1fr; gap: 10px; }
  > button { align-self: flex-start; }
`
