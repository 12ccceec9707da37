import type { CSSProperties } from 'react'
import type { Schemas } from '../../api/client'
import { ClockRing } from '../../drawing/ClockRing'
import { sayClock } from '../../drawing/clock'
import { Drawing } from '../../drawing/Drawing'
import { exaggeration } from '../../drawing/exaggeration'
import { useHatch } from '../../drawing/Hatch'
import { EntryCell } from '../../kit/EntryCell'
import { sayLength, showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, namesOf, plainSay } from '../bench'
import { asRead, clocksOf, oneOf } from '../draft'
import { FieldCell, Row, Zone } from '../parts'
import { byTable, cell, type Given, type ResultOf, type Table } from '../table'

type Result = ResultOf<'straightedge'>
type Feeler = Schemas['FeelerReading']
type Hub = Feeler['on']

const HUBS = ['stationary', 'movable'] as const
const hubAt = (clock: number) => oneOf<Hub, Hub>(`on${clock}`, HUBS, 'movable')
const diameter = (hub: Hub) =>
  cell<'straightedge'>({
    cell: hub,
    label: `${hub === 'movable' ? 'Movable' : 'Stationary'} hub diameter`,
    part: 'set-up',
    lacking: 'Measure both hub diameters.',
    hint: (hints) => hints[`${hub}_hub_mm`],
  })

const FIELDS = {
  readings: {
    read: (reader, path) => {
      const found: Feeler[] = []
      for (const clock of clocksOf(reader.draft)) {
        const feeler = reader.length(`at${clock}`, `${path}.${found.length}.feeler_mm`)
        if (feeler !== null) found.push({ clock, feeler_mm: feeler, on: hubAt(clock).of(reader.draft) })
      }
      if (found.length < 2) reader.lack('Two places a quarter turn apart, or more.')
      return found
    },
    restore: (filler, path, part) => {
      const readings = filler.at<Feeler[]>(path) ?? []
      filler.choice(
        'clocks',
        readings.map((r) => r.clock),
      )
      if (part === 'all')
        for (const [i, { clock, on }] of readings.entries()) {
          filler.cell(`at${clock}`, `${path}.${i}.feeler_mm`, asRead)
          filler.choice(hubAt(clock).key, on)
        }
    },
  },
  stationary_hub_mm: diameter('stationary'),
  movable_hub_mm: diameter('movable'),
} satisfies Table<Given<'straightedge'>, 'straightedge'>

/** Feelers under a straightedge: at each place the figure, and over which hub the feeler slides. */
function StraightedgeDrawing({ result, ...cells }: BenchProps<'straightedge'>) {
  const unit = useUnit()
  const { draft, change, problems } = cells
  const names = namesOf(cells.spec)
  const called = (hub: Hub) => names[hub].toLowerCase()
  return (
    <>
      <Zone>
        <h3>
          Both hubs seen along the shaft<span>do not turn the shafts</span>
        </h3>
        <TwoHubs result={result} moved={called('movable')} />
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
                  hub={hubAt(clock).of(draft)}
                  called={called}
                  onChange={(hub) => change(hubAt(clock).put(draft, hub))}
                />
              </div>
            )}
          />
          <div>
            <p style={{ maxWidth: 260 }}>Feeler goes under the edge on the lower hub. Tap the name to switch hubs.</p>
            <br />
            <FieldCell of={{ ...FIELDS.stationary_hub_mm, label: `Hub diameter, ${called('stationary')}` }} {...cells} />
            <br />
            <FieldCell of={{ ...FIELDS.movable_hub_mm, label: `Hub diameter, ${called('movable')}` }} {...cells} />
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
  minHeight: 'var(--touch)',
  width: 84,
  fontSize: 'var(--fs-note)',
  textDecoration: 'underline',
  background: 'var(--paper)',
}

interface OverHubProps {
  clock: number
  hub: Hub
  called: (hub: Hub) => string
  onChange: (hub: Hub) => void
}

function OverHub({ clock, hub, called, onChange }: OverHubProps) {
  return (
    <button
      type="button"
      style={OVER_HUB}
      aria-label={`over ${called(hub)} hub at ${sayClock(clock)}, change`}
      onClick={() => onChange(hub === 'movable' ? 'stationary' : 'movable')}
    >
      over {called(hub)}
    </button>
  )
}

function TwoHubs({ result, moved }: { result: Result | null; moved: string }) {
  const hatch = useHatch()
  const unit = useUnit()
  const times = result ? exaggeration(result.offset_mm, 1, 30) : 100
  const x = result ? result.offset_h_mm * times : 0
  const y = result ? -result.offset_v_mm * times : 0
  return (
    <Drawing
      paper={[-370, -84, 740, 168]}
      says={result ? `Offset ${showLength(result.offset_mm, unit)} ${unit}` : 'Nothing read yet'}
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
      <text x="-110" y="5" textAnchor="end" fontSize="var(--fs-small)">
        9 o’clock
      </text>
      <text x="110" y="5" fontSize="var(--fs-small)">
        3 o’clock
      </text>
      {result && (
        <text x="364" y="-56" textAnchor="end" fontSize="var(--fs-text)">
          {moved} hub {showLength(Math.abs(result.offset_v_mm), unit)} {result.offset_v_mm >= 0 ? 'high' : 'low'},{' '}
          {showLength(Math.abs(result.offset_h_mm), unit)} toward {result.offset_h_mm >= 0 ? 3 : 9}; drawn × {times}
        </text>
      )}
    </Drawing>
  )
}

export const straightedgeBench: BenchClient<'straightedge'> = {
  name: 'straightedge',
  title: 'Straightedge',
  answers: 'Offset from feelers under a straightedge',
  ...byTable<'straightedge'>(FIELDS),
  say: (result, unit) => ({ ...plainSay(result), note: `Offset ${sayLength(result.offset_mm, unit)} in all.` }),
  Drawing: StraightedgeDrawing,
  quickLimits: [{ cell: 'offset', label: 'Offset limit', kind: 'length', unit: '' }],
  quickPreset: ({ offset }) => (offset === undefined ? {} : { limit: { offset_mm: offset } }),
  keys: [['Enter', 'next place']],
}
