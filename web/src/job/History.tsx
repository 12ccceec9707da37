import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { figuresOptions } from '../api/queries'
import { isOfToday, plainSay } from '../benches/bench'
import { benchOf } from '../benches/benches'
import { Glyph, sayStatus } from '../kit/Allowance'
import { PlainButton } from '../kit/Button'
import { useUnit } from '../units/preferences'
import { sayIn, type Words } from '../units/say'
import { sayWhen } from '../units/when'
import { type Entry, entriesOf, type ReadingEntry, type Step, useJob } from './context'
import { OneText } from './OneText'

/**
 * Everything entered in this step; nothing is ever taken away. Struck through: a slip, and what a later entry made stale, with
 * what that was.
 */
export function History({ step }: { step: Step }) {
  const entries = entriesOf(useJob(), step.key)
  const shown = entries.filter((e) => e.kind === 'reading' || e.kind === 'move' || e.kind === 'event')
  if (!shown.length) return null
  return (
    <Past aria-label="Entered so far">
      <h3>Entered so far</h3>
      <ol>
        {[...shown].reverse().map((e) => (
          <Line
            key={e.id}
            entry={e}
            stale={e.id === step.current && step.stale_because.template ? step.stale_because : null}
          />
        ))}
      </ol>
    </Past>
  )
}

function labelOf(entry: Entry) {
  const label = `${entry.label[0]?.toUpperCase()}${entry.label.slice(1)}`
  const hub_c = entry.kind === 'event' ? entry.inputs.hub_c : null
  return hub_c === null || hub_c === undefined ? label : `${label}: ${Math.round(hub_c)} °C`
}

function useNote(entry: ReadingEntry): string {
  const { spec } = useJob()
  const unit = useUnit()
  const bench = benchOf(entry.bench)
  if (!bench || entry.bench === 'sheet') return ''
  return (isOfToday(entry.result) ? bench.say(entry.result, unit, spec) : plainSay(entry.result)).note
}

function Line({ entry, stale }: { entry: Entry; stale: Words | null }) {
  const job = useJob()
  const unit = useUnit()
  const [open, setOpen] = useState(false)
  const [isSlip, setSlip] = useState(false)
  const takenOut = job.entries.find((e) => e.kind === 'slip' && e.inputs.entry === entry.id)
  return (
    <li data-slip={entry.slip || undefined} data-stale={stale ? '' : undefined}>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <b>{labelOf(entry)}</b>
        {entry.kind === 'reading' && !entry.slip && <Verdict entry={entry} />}
        {stale && <em>{sayIn(stale, unit)}</em>}
        {takenOut && (
          <span className="note">
            taken out by {takenOut.by}
            {takenOut.kind === 'slip' && takenOut.inputs.text && `: ${takenOut.inputs.text}`}
          </span>
        )}
        <small>
          {entry.by}, {sayWhen(entry.at)}
        </small>
      </button>
      {open && <Figures entry={entry} />}
      {open && entry.id === job.may_be_slip && !job.closed && (
        <PlainButton onPress={() => setSlip(true)}>That was a slip</PlainButton>
      )}
      {isSlip && <SlipSlip entry={entry} onClose={() => setSlip(false)} />}
    </li>
  )
}

/** Takes the last entry out: what counted before it counts again, and as found stays what was found. */
function SlipSlip({ entry, onClose }: { entry: Entry; onClose: () => void }) {
  return (
    <OneText
      isOptional
      title="That was a slip"
      told="It stays in the record, struck through, and counts for nothing. What was there before counts again."
      label="What went wrong"
      button="Take it out"
      body={(text) => ({ step: entry.step, kind: 'slip', inputs: { entry: entry.id, text } })}
      onClose={onClose}
    />
  )
}

function Verdict({ entry }: { entry: ReadingEntry }) {
  const note = useNote(entry)
  const { verdict } = entry.result
  return (
    <>
      <Glyph status={verdict} />
      <span>{verdict === 'not judged' ? 'done' : sayStatus({ status: verdict })}</span>
      <span className="note">{note}</span>
    </>
  )
}

/** Its figures in words, as the record has them. */
function Figures({ entry }: { entry: Entry }) {
  const unit = useUnit()
  const { data, error } = useQuery(figuresOptions(useJob().id, entry.id))
  if (error) return <p>Its figures come from the server, which cannot be reached now.</p>
  return (
    <p>
      {data?.map(({ label, value, typed }) => `${label} ${sayIn(value, unit)}${typed && ` (typed “${typed}”)`}`).join(' · ')}
    </p>
  )
}

const Past = styled.section`
  border-top: 2px solid var(--ink);
  padding: 8px 16px 16px;
  h3 { font-size: var(--fs-body); font-weight: 600; }
  li { border-bottom: 0.75px solid var(--line); }
  button { display: flex; gap: 8px; align-items: center; width: 100%; min-height: var(--touch); text-align: left; flex-wrap: wrap; }
  b { font-weight: 600; min-width: 72px; }
  [data-slip] b, [data-stale] :is(b, b ~ span) { text-decoration: line-through; color: var(--ink-2); }
  [data-stale] svg { opacity: 0.5; }
  em { font-style: normal; font-size: var(--fs-text); font-weight: 500; }
  .note { color: var(--ink-2); font-size: var(--fs-text); }
  small { margin-left: auto; color: var(--ink-2); font-size: var(--fs-small); }
  p { font-family: var(--read); font-size: var(--fs-small); padding: 0 0 8px; color: var(--blue); overflow-wrap: anywhere; }
`
