import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { figuresOptions } from '../api/queries'
import { isOfToday, plainSay } from '../benches/bench'
import { benchOf } from '../benches/benches'
import { Glyph, sayStatus } from '../kit/Allowance'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'
import { type Entry, type ReadingEntry, useJob } from './context'

/** Everything entered in this step, the current reading marked; nothing is ever taken away. */
export function History({ entries }: { entries: Entry[] }) {
  const shown = entries.filter((e) => e.kind === 'reading' || e.kind === 'move' || e.kind === 'event')
  if (!shown.length) return null
  return (
    <Past aria-label="Entered so far">
      <h3>Entered so far</h3>
      <ol>
        {[...shown].reverse().map((e) => (
          <Line key={e.id} entry={e} />
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
  const unit = useUnit()
  const bench = benchOf(entry.bench)
  if (!bench || entry.bench === 'sheet') return ''
  return (isOfToday(entry.result) ? bench.say(entry.result, unit, null) : plainSay(entry.result)).note
}

function Line({ entry }: { entry: Entry }) {
  const [open, setOpen] = useState(false)
  return (
    <li>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <b>{labelOf(entry)}</b>
        {entry.kind === 'reading' && <Verdict entry={entry} />}
        <small>
          {entry.by}, {sayWhen(entry.at)}
        </small>
      </button>
      {open && <Figures entry={entry} />}
    </li>
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
  .note { color: var(--ink-2); font-size: var(--fs-text); }
  small { margin-left: auto; color: var(--ink-2); font-size: var(--fs-small); }
  p { font-family: var(--read); font-size: var(--fs-small); padding: 0 0 8px; color: var(--blue); overflow-wrap: anywhere; }
`
