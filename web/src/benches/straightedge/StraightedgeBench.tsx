import type { CSSProperties } from 'react'
import type { Schemas } from '../../api/client'
import { ClockRing } from '../../drawing/ClockRing'
import { sayClock } from '../../drawing/clock'
import { exaggeration } from '../../drawing/exaggeration'
import { useHatch } from '../../drawing/Hatch'
import { EntryCell } from '../../kit/EntryCell'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { asRead, clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, suggested } from '../draft'
import { LabelledCell, Row, Zone } from '../parts'

type Result = Schemas['StraightedgeResult']
type Hub = 'stationary' | 'movable'

function start(_: Preset, suggest: Preset): Draft {
  const cells: Draft['cells'] = {}
  for (const hub of ['stationary', 'movable'] as const) {
    const diameter = suggested(suggest[`${hub}_hub_mm`] as number | undefined)
    if (diameter) cells[hub] = diameter
  }
  return { cells, choices: {} }
}

const hubAt = (draft: Draft, clock: number) => (draft.choices[`on${clock}`] as Hub | undefined) ?? 'movable'

function read(draft: Draft) {
  const reader = new DraftReader(draft)
  const readings: { clock: number; feeler_mm: number; on: Hub }[] = []
  for (const clock of clocksOf(draft)) {
    const feeler = reader.length(`at${clock}`, `readings.${readings.length}.feeler_mm`)
    if (feeler !== null) readings.push({ clock, feeler_mm: feeler, on: hubAt(draft, clock) })
  }
  const stationary = reader.length('stationary', 'stationary_hub_mm')
  const movable = reader.length('movable', 'movable_hub_mm')
  if (readings.length < 2) return reader.done(null, 'Two places a quarter turn apart, or more.')
  if (stationary === null || movable === null) return reader.done(null, 'Measure both hub diameters.')
  return reader.done({ readings, stationary_hub_mm: stationary, movable_hub_mm: movable })
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.cell('stationary', 'stationary_hub_mm')
  filler.cell('movable', 'movable_hub_mm')
  const readings = filler.at<{ clock: number; on: Hub }[]>('readings') ?? []
  filler.choice(
    'clocks',
    readings.map((r) => r.clock),
  )
  if (part === 'all')
    for (const [i, { clock, on }] of readings.entries()) {
      filler.cell(`at${clock}`, `readings.${i}.feeler_mm`, asRead)
      filler.choice(`on${clock}`, on)
    }
  return filler.draft
}

/** Feelers under a straightedge: at each place the figure, and over which hub the feeler slides. */
function StraightedgeDrawing({ draft, change, problems, result }: BenchProps<Result>) {
  const unit = useUnit()
  return (
    <>
      <Zone>
        <h3>
          Both hubs seen along the shaft<span>do not turn the shafts</span>
        </h3>
        <TwoHubs result={result} />
      </Zone>
      <Zone>
        <Row>
          <ClockRing
            wordsUnder
            name="Feeler"
            note="under the edge"
            clocks={clocksOf(draft)}
            cell={(clock) => (
              <div style={{ position: 'relative' }}>
                <EntryCell
                  label={`Feeler at ${sayClock(clock)}, ${unit}`}
                  typed={draft.cells[`at${clock}`]}
                  onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`at${clock}`]: typed } })}
                  problem={problems[`at${clock}`]}
                />
                <OverHub
                  clock={clock}
                  hub={hubAt(draft, clock)}
                  onChange={(hub) => change({ ...draft, choices: { ...draft.choices, [`on${clock}`]: hub } })}
                />
              </div>
            )}
          />
          <div>
            <p style={{ maxWidth: 260 }}>
              The feeler slides in over the hub that is lower there. Tap the word under the figure to change the hub.
            </p>
            <br />
            <LabelledCell
              cell="stationary"
              label="Stationary hub diameter"
              part="set-up"
              draft={draft}
              change={change}
              problems={problems}
            />
            <br />
            <LabelledCell
              cell="movable"
              label="Movable hub diameter"
              part="set-up"
              draft={draft}
              change={change}
              problems={problems}
            />
          </div>
        </Row>
      </Zone>
    </>
  )
}

const OVER_HUB: CSSProperties = {
  position: 'absolute',
  top: '100%',
  left: 0,
  minHeight: 44,
  width: 84,
  fontSize: 13,
  textDecoration: 'underline',
  background: 'var(--paper)',
}

function OverHub({ clock, hub, onChange }: { clock: number; hub: Hub; onChange: (hub: Hub) => void }) {
  return (
    <button
      type="button"
      style={OVER_HUB}
      aria-label={`over ${hub} hub at ${sayClock(clock)}, change`}
      onClick={() => onChange(hub === 'movable' ? 'stationary' : 'movable')}
    >
      over {hub}
    </button>
  )
}

function TwoHubs({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const times = result ? exaggeration(result.offset_mm, 1, 30) : 100
  const x = result ? result.offset_h_mm * times : 0
  const y = result ? -result.offset_v_mm * times : 0
  return (
    <svg
      viewBox="-370 -84 740 168"
      width="100%"
      role="img"
      aria-label={result ? `Offset ${showLength(result.offset_mm, unit)} ${unit}` : 'Nothing read yet'}
    >
      {hatch.defs}
      <circle r="62" fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <circle
        cx={x}
        cy={y}
        r="62"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeDasharray={result ? undefined : '5 4'}
      />
      <path d="M-80 0H80M0-78V78" stroke="var(--ink)" strokeWidth=".75" strokeDasharray="14 3 3 3" />
      <path d={`M${x - 8} ${y}H${x + 8}M${x} ${y - 8}V${y + 8}`} stroke="var(--ink)" strokeWidth="2" />
      <text x="-110" y="5" textAnchor="end" fontSize="14">
        9 o’clock
      </text>
      <text x="110" y="5" fontSize="14">
        3 o’clock
      </text>
      {result && (
        <text x="364" y="-56" textAnchor="end" fontSize="15">
          movable hub {showLength(Math.abs(result.offset_v_mm), unit)} {result.offset_v_mm >= 0 ? 'high' : 'low'},{' '}
          {showLength(Math.abs(result.offset_h_mm), unit)} toward {result.offset_h_mm >= 0 ? 3 : 9}; drawn × {times}
        </text>
      )}
    </svg>
  )
}

export const straightedgeBench: BenchClient<Result> = {
  name: 'straightedge',
  title: 'Straightedge',
  answers: 'Offset from feelers under a straightedge',
  start,
  read,
  restore,
  say: (result, unit) => ({ ...plainSay(result), note: `Offset ${showLength(result.offset_mm, unit)} in all.` }),
  Drawing: StraightedgeDrawing,
  quickLimits: [{ cell: 'offset', label: 'Offset limit', kind: 'length', unit: '' }],
  quickPreset: ({ offset }) => (offset === undefined ? {} : { limit: { offset_mm: offset } }),
  keys: [['Enter', 'next place']],
}
