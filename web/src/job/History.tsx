import { useState } from 'react'
import styled from 'styled-components'
import { type BenchClient, isOfToday, plainSay, type Result } from '../benches/bench'
import { shortClock } from '../drawing/clock'
import { Glyph } from '../kit/Allowance'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayWhen } from '../units/when'
import type { Entry } from './context'

/** Everything entered in this step, the current reading marked; nothing is ever taken away. */
export function History({ entries, bench }: { entries: Entry[]; bench?: BenchClient }) {
  const shown = entries.filter((e) => e.kind === 'reading' || e.kind === 'move' || e.kind === 'event')
  const readings = shown.filter((e) => e.kind === 'reading')
  if (!shown.length) return null
  return (
    <Past aria-label="Entered so far">
      <h3>Entered so far</h3>
      <ol>
        {[...shown].reverse().map((e) => (
          <Line key={e.id} entry={e} label={labelOf(e, readings)} bench={bench} />
        ))}
      </ol>
    </Past>
  )
}

function labelOf(entry: Entry, readings: Entry[]) {
  if (entry.kind === 'move') return 'Moved'
  if (entry.kind === 'event') return sayEvent(entry.inputs)
  if (readings.length === 1) return 'Read'
  if (entry === readings[0]) return 'As found'
  return entry === readings[readings.length - 1] ? 'Current' : `Reading ${readings.indexOf(entry) + 1}`
}

function sayEvent({ event, hub_c }: Entry['inputs']) {
  const words = String(event)
  return `${words[0]!.toUpperCase()}${words.slice(1)}${typeof hub_c === 'number' ? `: ${Math.round(hub_c)} °C` : ''}`
}

function Line({ entry, label, bench }: { entry: Entry; label: string; bench?: BenchClient }) {
  const unit = useUnit()
  const [open, setOpen] = useState(false)
  const result = entry.result as Result | null
  const says = result && bench ? (isOfToday(result) ? bench.say(result, unit, null) : plainSay(result)) : null
  return (
    <li>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <b>{label}</b>
        {result && <Glyph status={result.verdict} />}
        {result && <span>{result.verdict === 'not judged' ? 'done' : result.verdict}</span>}
        <span className="note">{says?.note}</span>
        <small>
          {entry.by}, {sayWhen(entry.at)}
        </small>
      </button>
      {open && (
        <p>
          {figures(entry, unit)}
          {Object.entries(entry.typed).map(([path, text]) => (
            <span key={path}> · typed “{text}”</span>
          ))}
        </p>
      )}
    </li>
  )
}

interface ClockFigure {
  clock: number
  value_mm?: number
  feeler_mm?: number
  on?: string
}

/** The figures of an entry in one line. */
function figures(entry: Entry, unit: 'mm' | 'in'): string {
  const inputs = entry.inputs as Record<string, unknown>
  const ring = (readings: ClockFigure[]) =>
    readings
      .map(
        (r) =>
          `${shortClock(r.clock)}: ${showLength(r.value_mm ?? r.feeler_mm ?? 0, unit, 3, r.value_mm !== undefined)}${r.on ? ` over ${r.on}` : ''}`,
      )
      .join(' · ')
  if (Array.isArray(inputs.dials))
    return (inputs.dials as { kind: string; readings: ClockFigure[] }[])
      .map((d) => `${d.kind} ${ring(d.readings)}`)
      .join(' | ')
  if (Array.isArray(inputs.readings)) return ring(inputs.readings as ClockFigure[])
  if (entry.kind === 'move')
    return [
      ...(inputs.feet as { name: string; shim_mm: number; slide_mm: number }[]).map(
        (f) => `${f.name}: shim ${showLength(f.shim_mm, unit, 2, true)}, slide ${showLength(f.slide_mm, unit, 2, true)}`,
      ),
      inputs.axial_mm ? `along the shaft ${showLength(Number(inputs.axial_mm), unit, 2, true)}` : '',
      String(inputs.note ?? ''),
    ]
      .filter(Boolean)
      .join(' · ')
  return Object.entries(inputs)
    .filter(([, v]) => typeof v === 'string' || typeof v === 'number' || Array.isArray(v))
    .map(
      ([k, v]) =>
        `${k.replace(/_mm$/, '').replaceAll('_', ' ')}: ${Array.isArray(v) && typeof v[0] === 'object' ? `${v.length}` : v}`,
    )
    .join(' · ')
}

const Past = styled.section`
  border-top: 2px solid var(--ink);
  padding: 8px 16px 16px;
  h3 { font-size: 16px; font-weight: 600; }
  li { border-bottom: 0.75px solid var(--line); }
  button { display: flex; gap: 8px; align-items: center; width: 100%; min-height: var(--touch); text-align: left; flex-wrap: wrap; }
  b { font-weight: 600; min-width: 72px; }
  .note { color: var(--ink-2); font-size: 15px; }
  small { margin-left: auto; color: var(--ink-2); font-size: 14px; }
  p { font-family: var(--read); font-size: 14px; padding: 0 0 8px; color: var(--blue); overflow-wrap: anywhere; }
`
