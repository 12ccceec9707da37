import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { useHatch } from '../../drawing/Hatch'
import { EntryCell } from '../../kit/EntryCell'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { asRead, type Draft, DraftFiller, DraftReader, type Entered, type Part } from '../draft'
import { Zone } from '../parts'

type Result = Schemas['FitResult']
type Place = Schemas['MicrometerPlace']

const STATIONS = ['machine side', 'middle', 'shaft end'] as const // left to right, as drawn
const DIRECTIONS = ['12-6', '3-9'] as const
const X = [345, 475, 605] // where the stations stand in the drawing

const PARTS = ['shaft', 'bore'] as const

function read(draft: Draft) {
  const reader = new DraftReader(draft)
  const found = { shaft_mm: [] as number[], bore_mm: [] as number[], shaft_at: [] as Place[], bore_at: [] as Place[] }
  for (const part of PARTS)
    for (const [d, across] of DIRECTIONS.entries())
      for (const [s, station] of STATIONS.entries()) {
        const list = found[`${part}_mm`]
        const mm = reader.length(`${part}${d}${s}`, `${part}_mm.${list.length}`)
        if (mm === null) continue
        list.push(mm)
        found[`${part}_at`].push({ station, across })
      }
  const enough = found.shaft_mm.length > 0 && found.bore_mm.length > 0
  return reader.done(
    enough ? found : null,
    'Measure shaft and bore at one station or more; three stations in two directions tell taper and oval.',
  )
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  if (part === 'all')
    for (const name of PARTS)
      for (const i of (filler.at<number[]>(`${name}_mm`) ?? []).keys()) {
        const at = filler.at<Place>(`${name}_at.${i}`)
        const d = at ? DIRECTIONS.indexOf(at.across) : Math.floor(i / STATIONS.length)
        const s = at ? STATIONS.indexOf(at.station) : i % STATIONS.length
        filler.cell(`${name}${d}${s}`, `${name}_mm.${i}`, (mm) => asRead(mm, 3))
      }
  return filler.draft
}

/** Shaft and bore in section, micrometer readings at three stations in two directions. */
function FitDrawing({ draft, change, problems, result }: BenchProps<Result>) {
  const hatch = useHatch()
  const unit = useUnit()
  const cells = (part: (typeof PARTS)[number]) => (
    <Grid role="group" aria-label={part}>
      {DIRECTIONS.map((direction, d) => (
        <div key={direction}>
          <b>across {direction}</b>
          {STATIONS.map((station, s) => (
            <EntryCell
              key={station}
              width={104}
              label={`${part} at ${station}, across ${direction}, ${unit}`}
              typed={draft.cells[`${part}${d}${s}`]}
              onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`${part}${d}${s}`]: typed } })}
              problem={problems[`${part}${d}${s}`]}
            />
          ))}
        </div>
      ))}
    </Grid>
  )
  return (
    <>
      <Zone>
        <h3>
          Shaft<span>outside micrometer, at three stations, both directions</span>
        </h3>
        <svg viewBox="0 0 740 96" width="100%" aria-hidden="true">
          {hatch.defs}
          <path d="M10 12H660L670 20V76L660 84H10Z" fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
          <path d="M280 12H672" stroke="var(--paper)" strokeWidth="9" />
          <path d="M280 17H664" stroke="var(--ink)" strokeWidth="1.25" strokeDasharray="6 4" />
          <path d="M4 48H736" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
          {X.map((x, i) => (
            <g key={x}>
              <path
                d={`M${x} 12V84`}
                stroke="var(--ink)"
                strokeWidth=".75"
                markerStart={hatch.arrow}
                markerEnd={hatch.arrow}
              />
              <text x={x} y="53" textAnchor="middle" fontSize="13" stroke="var(--paper)" strokeWidth="5" paintOrder="stroke">
                {STATIONS[i]}
              </text>
            </g>
          ))}
        </svg>
        {cells('shaft')}
      </Zone>
      <Zone>
        <h3>
          Bore<span>inside micrometer, the same stations</span>
        </h3>
        <svg viewBox="0 0 740 120" width="100%" aria-hidden="true">
          <path d="M280 4H670V30H280ZM280 90H670V116H280Z" fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
          <path d="M280 30V90M670 30V90" stroke="var(--ink)" strokeWidth="2" />
          <path d="M262 60H690" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
          {X.map((x, i) => (
            <g key={x}>
              <path
                d={`M${x} 30V90`}
                stroke="var(--ink)"
                strokeWidth=".75"
                markerStart={hatch.arrow}
                markerEnd={hatch.arrow}
              />
              <text x={x} y="65" textAnchor="middle" fontSize="13" stroke="var(--paper)" strokeWidth="5" paintOrder="stroke">
                {STATIONS[i]}
              </text>
            </g>
          ))}
          {result && (
            <>
              <text x="10" y="34" fontSize="15">
                tightest pair {showLength(result.interference_max_mm, unit, 3, true)}
              </text>
              <text x="10" y="58" fontSize="15">
                loosest pair {showLength(result.interference_min_mm, unit, 3, true)}
              </text>
              <text x="10" y="82" fontSize="15">
                spread: shaft {showLength(result.shaft_spread_mm, unit, 3)}, bore {showLength(result.bore_spread_mm, unit, 3)}
              </text>
            </>
          )}
        </svg>
        {cells('bore')}
      </Zone>
    </>
  )
}

function say(result: Result, unit: 'mm' | 'in') {
  const title = {
    clearance: 'The hub slips on.',
    transition: 'It slips and grips.',
    interference: 'The hub does not slip on.',
  }[result.kind]
  const plain = plainSay(result)
  const where = result.interference_max_mm > 0 ? 'interference' : 'clearance'
  return {
    ...plain,
    title: result.verdict === 'over' ? 'Not the fit that is wanted.' : title,
    note: `${showLength(Math.abs(result.interference_max_mm), unit, 3)} ${where} at the tightest.`,
  }
}

export const fitBench: BenchClient<Result> = {
  name: 'fit',
  title: 'Fit',
  answers: 'Shaft against bore: how the hub will go on',
  start: (_: Preset) => ({ cells: {}, choices: {} }),
  read,
  restore,
  say,
  Drawing: FitDrawing,
  quickLimits: [
    { cell: 'low', label: 'Loosest wanted (clearance is minus)', kind: 'length', unit: '' },
    { cell: 'high', label: 'Tightest wanted', kind: 'length', unit: '' },
  ],
  quickPreset: ({ low, high }) =>
    low === undefined || high === undefined ? {} : { required: { min_mm: low, max_mm: high } },
  keys: [['Enter', 'next station']],
}

const Grid = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin-top: 6px;
  /* The cells stand under the stations of the drawing, whatever width it is given. */
  > div { display: grid; grid-template-columns: 38% repeat(3, 17.57%); align-items: center; }
  > div > * { justify-self: center; }
  > div > b { justify-self: end; padding-right: 12px; }
  b { font-weight: 500; }
`
