import type { Schemas } from '../../api/client'
import { clockPoint, sayClock } from '../../drawing/clock'
import { exaggeration } from '../../drawing/exaggeration'
import { useHatch } from '../../drawing/Hatch'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, readClock } from '../draft'
import { Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'

type Result = Schemas['RunoutResult']

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const readings = readClock(reader, clocksOf(draft), 'at', 'readings')
  if (readings.length < 3) return reader.done(null, 'Read at three places or more while the part turns.')
  if (!('limit_mm' in preset)) return reader.done(null, 'Give the limit on the total reading.')
  return reader.done({ readings, kind: (draft.choices.kind as string | undefined) ?? 'rim' })
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.choice('kind', filler.at('kind'))
  filler.ring(part, 'readings', { signed: true })
  return filler.draft
}

/** Readings round a turning part; the drawn rim is off centre by what was read. */
function RunoutDrawing(props: BenchProps<Result>) {
  const { draft, change, result } = props
  return (
    <Zone>
      <Row>
        <RingReadings {...props} name="Dial" note="part turning" signed />
        <OffCentre result={result} />
        <Choice
          label="Dial on the"
          options={['rim', 'face'] as const}
          value={(draft.choices.kind as 'rim' | 'face') ?? 'rim'}
          onChange={(kind) => change({ ...draft, choices: { ...draft.choices, kind } })}
        />
      </Row>
    </Zone>
  )
}

const RIM = 90

function OffCentre({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const times = result ? exaggeration(result.eccentricity_mm, 1, 26) : 100
  const off = result ? clockPoint(result.high_spot_deg, result.eccentricity_mm * times) : { x: 0, y: 0 }
  const high = result ? clockPoint(result.high_spot_deg, RIM + 26) : null
  return (
    <svg
      viewBox="-140 -130 280 260"
      width="280"
      height="260"
      role="img"
      aria-label={result ? `High spot at ${sayClock(result.high_spot_deg)}` : 'Nothing read yet'}
    >
      {hatch.defs}
      <circle r={RIM} fill="none" stroke="var(--line)" strokeDasharray="5 4" strokeWidth="1.25" />
      <circle cx={off.x} cy={off.y} r={RIM} fill="none" stroke="var(--ink)" strokeWidth="2" />
      <circle cx={off.x} cy={off.y} r="3" fill="var(--ink)" />
      <path d="M-20 0H20M0-20V20" stroke="var(--ink)" strokeWidth=".75" />
      {result && high && (
        <>
          <path
            d={`M${off.x} ${off.y}L${high.x * 0.88} ${high.y * 0.88}`}
            stroke="var(--ink)"
            strokeWidth="3"
            markerEnd={hatch.move}
          />
          <text x={high.x} y={high.y + 5} textAnchor="middle" fontSize="15" fontWeight="600">
            high
          </text>
          <text x="0" y="124" textAnchor="middle" fontSize="14">
            off centre {showLength(result.eccentricity_mm, unit, 3)}, drawn × {times}
          </text>
        </>
      )}
    </svg>
  )
}

export const runoutBench: BenchClient<Result> = {
  name: 'runout',
  title: 'Run-out',
  answers: 'Total reading, high spot, and what of it is oval',
  start: () => ({ cells: {}, choices: {} }),
  read,
  restore,
  say: (result, unit) => ({
    ...plainSay(result),
    note: `Total ${showLength(result.total_mm, unit, 3)}, high spot at ${sayClock(result.high_spot_deg)}${result.oval_mm === null ? '' : `, oval ${showLength(result.oval_mm, unit, 3)}`}.`,
  }),
  Drawing: RunoutDrawing,
  quickLimits: [{ cell: 'limit', label: 'Limit on the total reading', kind: 'length', unit: '' }],
  quickPreset: ({ limit }) => (limit === undefined ? {} : { limit_mm: limit }),
  keys: [
    ['Enter', 'next reading, clockwise'],
    ['−', 'flip sign'],
  ],
}
