import type { Schemas } from '../../api/client'
import { sayToward } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, readClock, suggested } from '../draft'
import { LabelledCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'

type Result = Schemas['GapResult']

function start(_: Preset, suggest: Preset): Draft {
  const diameter = suggested(suggest.diameter_mm as number | undefined)
  return { cells: diameter ? { diameter } : {}, choices: {} }
}

function read(draft: Draft) {
  const reader = new DraftReader(draft)
  const readings = readClock(reader, clocksOf(draft), 'at', 'readings')
  const diameter = reader.length('diameter', 'diameter_mm')
  const bar = reader.length('bar', 'bar_mm')
  if (readings.length < 3) return reader.done(null, 'Measure the gap at three places or more.')
  if (diameter === null) return reader.done(null, 'On what diameter was it measured?')
  return reader.done({ readings, diameter_mm: diameter, ...(bar !== null && { bar_mm: bar }) })
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.cell('diameter', 'diameter_mm')
  filler.cell('bar', 'bar_mm')
  filler.ring(part, 'readings')
  return filler.draft
}

/** The gap at places round the clock, with the two hubs drawn open by what was read. */
function GapDrawing(props: BenchProps<Result>) {
  const { result, draft, change, problems } = props
  return (
    <>
      <Zone>
        <h3>
          Hubs, from the side<span>gap to scale with the hubs, angle exaggerated</span>
        </h3>
        <Hubs result={result} />
      </Zone>
      <Zone>
        <Row>
          <RingReadings {...props} name="Gap" note="hub to hub" />
          <div>
            <LabelledCell
              cell="diameter"
              label="Measured on diameter"
              part="set-up"
              draft={draft}
              change={change}
              problems={problems}
            />
            <br />
            <LabelledCell
              cell="bar"
              label="Spacer bar"
              part="aside"
              detail="only with bar and feelers"
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

const HUB = { height: 130, width: 90, gap: 56 }
const ANGLE_ROOM = 16

function Hubs({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const tilt = (mmPerM: number) =>
    result && result.angle_mm_per_m > 0.001 ? (mmPerM / Math.max(result.angle_mm_per_m, 2)) * ANGLE_ROOM : 0
  const lean = result ? tilt(result.angle_v_mm_per_m) : 0
  const { height: h, width: w, gap: g } = HUB
  const [a, b] = [-g / 2, g / 2]
  return (
    <svg
      viewBox="-370 -92 740 184"
      role="img"
      aria-label={result ? `Gap ${showLength(result.mean_mm, unit)} ${unit} on the axis` : 'Two hubs, nothing read yet'}
      width="100%"
    >
      {hatch.defs}
      <path d={`M-340 -16H${b + w + 70}M-340 16H${b + w + 70}`} stroke="none" />
      <path d={`M-350 0H350`} stroke="var(--ink)" strokeDasharray="18 4 3 4" />
      <path d={`M${b + w} -18H340V18H${b + w}Z`} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="1.25" />
      <path d={`M${b} ${-h / 2}H${b + w}V${h / 2}H${b}Z`} fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${a - w} -18H-340V18H${a - w}Z`} fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.25" />
      <path
        d={`M${a + lean} ${-h / 2}H${a - w}V${h / 2}H${a - lean}Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text x={b + w / 2} y="-40" textAnchor="middle" fontSize="14">
        stationary
      </text>
      <text x={a - w / 2} y="-40" textAnchor="middle" fontSize="14">
        movable
      </text>
      <path
        d={`M${a} ${h / 2 + 12}H${b}`}
        stroke="var(--ink)"
        strokeWidth=".75"
        markerStart={hatch.arrow}
        markerEnd={hatch.arrow}
      />
      {result && (
        <>
          <text
            x="0"
            y={h / 2 + 10}
            textAnchor="middle"
            fontSize="20"
            fontFamily="var(--read)"
            fontWeight="600"
            stroke="var(--paper)"
            strokeWidth="6"
            paintOrder="stroke"
          >
            {showLength(result.mean_mm, unit)}
          </text>
          <text x="230" y={-60} fontSize="15">
            spread {showLength(result.spread_mm, unit)}, wide at {sayToward(result.wide_at_deg)}
          </text>
        </>
      )}
    </svg>
  )
}

export const gapBench: BenchClient<Result> = {
  name: 'gap',
  title: 'Gap',
  answers: 'Gap on the axis, its spread and the angle it shows',
  start,
  read,
  restore,
  say: (result, unit) => ({
    ...plainSay(result),
    note: `${showLength(result.mean_mm, unit)} on the axis, spread ${showLength(result.spread_mm, unit)}, wide at ${sayToward(result.wide_at_deg)}.`,
  }),
  Drawing: GapDrawing,
  quickLimits: [
    { cell: 'nominal', label: 'Gap wanted', kind: 'length', unit: '' },
    { cell: 'plus', label: 'plus or minus', kind: 'length', unit: '' },
    { cell: 'spread', label: 'Largest spread', kind: 'length', unit: '' },
  ],
  quickPreset: ({ nominal, plus, spread }) => ({
    accept: {
      ...(nominal !== undefined && plus !== undefined && { mean: { min_mm: nominal - plus, max_mm: nominal + plus } }),
      ...(spread !== undefined && { spread: { max_mm: spread } }),
    },
  }),
  keys: [['Enter', 'next reading, clockwise']],
}
