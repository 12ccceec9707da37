import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { showOfCheck } from '../../kit/Allowance'
import { EntryCell } from '../../kit/EntryCell'
import { type LengthUnit, sayLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type LimitsProblem, plainSay } from '../bench'
import { asRead, DraftReader, fillFrom } from '../draft'
import { Zone } from '../parts'
import { byTable, type Field, type Given, type ResultOf, type Table } from '../table'

type Result = ResultOf<'fit'>
type Place = Schemas['MicrometerPlace']

const STATIONS = ['machine side', 'middle', 'shaft end'] as const // left to right, as drawn
const DIRECTIONS = ['12-6', '3-9'] as const
const X = [345, 475, 605] // where the stations stand in the drawing
const PARTS = ['shaft', 'bore'] as const
type Part = (typeof PARTS)[number]
const LACKING = 'Measure shaft and bore at one station or more; three stations in two directions tell taper and oval.'

const GRID = DIRECTIONS.flatMap((across, d) =>
  STATIONS.map((station, s) => ({ place: { station, across }, cell: `${d}${s}` })),
)

/** What a micrometer read of a part, with where it was read. */
function measured(part: Part, reader: DraftReader, path = '') {
  const found: { mm: number; place: Place }[] = []
  for (const { place, cell } of GRID) {
    const mm = reader.length(`${part}${cell}`, `${path}.${found.length}`)
    if (mm !== null) found.push({ mm, place })
  }
  return found
}

const diameters = (part: Part): Field<number[]> => ({
  read: (reader, path) => {
    const found = measured(part, reader, path).map(({ mm }) => mm)
    if (found.length === 0) reader.lack(LACKING)
    return found
  },
  restore: (filler, path, wanted) => {
    if (wanted !== 'all') return
    for (const i of (filler.at<number[]>(path) ?? []).keys()) {
      const at = filler.at<Place>(`${part}_at.${i}`)
      const cell = at ? GRID.find((g) => g.place.station === at.station && g.place.across === at.across)?.cell : GRID[i]?.cell
      filler.cell(`${part}${cell}`, `${path}.${i}`, (mm) => asRead(mm, 3))
    }
  },
})
const places = (part: Part): Field<Place[]> => ({
  read: (reader) => measured(part, new DraftReader(reader.draft)).map(({ place }) => place),
  restore: () => undefined,
})

const FIELDS = {
  shaft_mm: diameters('shaft'),
  bore_mm: diameters('bore'),
  shaft_at: places('shaft'),
  bore_at: places('bore'),
} satisfies Table<Given<'fit'>, 'fit'>

/** Shaft and bore in section, micrometer readings at three stations in two directions. */
function FitDrawing({ draft, change, problems, result }: BenchProps<'fit'>) {
  const hatch = useHatch()
  const unit = useUnit()
  const cells = (part: Part) => (
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
              onFigures={fillFrom(
                { draft, change, unit },
                DIRECTIONS.flatMap((_, by) => STATIONS.map((_at, at) => `${part}${by}${at}`)),
                `${part}${d}${s}`,
              )}
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
        <Drawing along paper={[0, 0, 740, 96]}>
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
              <text x={x} y="53" textAnchor="middle" fontSize="var(--fs-note)" className="halo">
                {STATIONS[i]}
              </text>
            </g>
          ))}
        </Drawing>
        {cells('shaft')}
      </Zone>
      <Zone>
        <h3>
          Bore<span>inside micrometer, the same stations</span>
        </h3>
        {result && (
          <Pairs>
            <li>tightest pair {sayGrip(result.interference_max_mm, unit)}</li>
            <li>loosest pair {sayGrip(result.interference_min_mm, unit)}</li>
            <li>
              spread: shaft {sayLength(result.shaft_spread_mm, unit, 3)}, bore {sayLength(result.bore_spread_mm, unit, 3)}
            </li>
          </Pairs>
        )}
        <Drawing along paper={[0, 0, 740, 120]}>
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
              <text x={x} y="65" textAnchor="middle" fontSize="var(--fs-note)" className="halo">
                {STATIONS[i]}
              </text>
            </g>
          ))}
        </Drawing>
        {cells('bore')}
      </Zone>
    </>
  )
}

/** A plus figure under its word: the sign is the core's alone. */
function sayGrip(interferenceMm: number, sheet: LengthUnit) {
  const { text, unit } = showOfCheck({ unit: 'mm', reads: 'fit' }, interferenceMm, sheet)
  return `${text} ${unit}`
}

function say(result: Result, unit: LengthUnit) {
  const title = {
    clearance: 'Slip fit.',
    transition: 'Size for size: it may grip.',
    interference: 'Shrink fit.',
  }[result.kind]
  const plain = plainSay(result)
  return {
    ...plain,
    title: result.verdict === 'over' ? 'Not the specified fit.' : title,
    note: `${sayGrip(result.interference_max_mm, unit)} at the tightest.`,
  }
}

/** The band of the fit as the core has it, interference as plus, out of plus figures under their words. */
function fitAsTyped(typed: Record<string, number>) {
  const clear = (mm: number | undefined) => (mm === undefined ? undefined : 0 - mm)
  const min_mm = clear(typed.most_clear) ?? typed.least_grip
  const max_mm = typed.most_grip ?? clear(typed.least_clear)
  return min_mm === undefined || max_mm === undefined ? null : { min_mm, max_mm }
}

const FITS = [
  ['least_clear', 'most_clear'],
  ['least_grip', 'most_grip'],
  ['most_clear', 'most_grip'],
]

/** Two ends make a fit, and no more than two. */
function fitProblem(typed: Record<string, number>): LimitsProblem | null {
  const cells = Object.keys(typed)
  if (cells.length === 0) return null
  const below = cells.filter((cell) => typed[cell]! < 0)
  if (below.length > 0) return { says: 'Clearance and interference are plus figures.', cells: below }
  const required = FITS.some((ends) => ends.length === cells.length && ends.every((end) => end in typed)) && fitAsTyped(typed)
  if (!required)
    return {
      says: 'Enter both ends of the fit: min. and max. clearance, or min. and max. interference, or the most of each.',
    }
  return required.min_mm < required.max_mm ? null : { says: 'The max. has to be more than the min.', cells }
}

export const fitBench: BenchClient<'fit'> = {
  name: 'fit',
  title: 'Fit',
  answers: 'Shaft against bore: how the hub will go on',
  ...byTable<'fit'>(FIELDS),
  say,
  Drawing: FitDrawing,
  quickLimits: [
    { cell: 'least_clear', label: 'Min. clearance', kind: 'length', unit: '' },
    { cell: 'most_clear', label: 'Max. clearance', kind: 'length', unit: '' },
    { cell: 'least_grip', label: 'Min. interference', kind: 'length', unit: '' },
    { cell: 'most_grip', label: 'Max. interference', kind: 'length', unit: '' },
  ],
  quickPreset: (typed) => {
    const required = fitProblem(typed) ? null : fitAsTyped(typed)
    return required ? { required } : {}
  },
  quickProblem: fitProblem,
  keys: [['Enter', 'next station']],
}

/** In the free corner of the drawing, or above it where there is none. */
const Pairs = styled.ul`
  list-style: none;
  padding: 8px 0 0 10px;
  line-height: 1.55;
  @media (min-width: 701px) { position: absolute; }
`

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
