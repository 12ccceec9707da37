import type { Schemas } from '../../api/client'
import { sayToward } from '../../drawing/clock'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, readClock, suggested } from '../draft'
import { LabelledCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { HubsAndSpacer, TwoHubs } from './GapViews'

type Result = Schemas['GapResult']

const WHERE = ['between two hubs', 'both ends of a spacer'] as const
const ENDS = ['driver end', 'driven end'] as const
const OTHER = { prefix: 'other', placesKey: 'other.clocks' } as const

function start(_: Preset, suggest: Preset): Draft {
  const diameter = suggested(suggest.diameter_mm as number | undefined)
  return { cells: diameter ? { diameter } : {}, choices: {} }
}

/** The names of a spacer's ends where both are measured, by the job or as chosen here. */
function endsOf(draft: Draft, preset: Preset): readonly string[] | null {
  if ('ends' in preset) return preset.ends as string[]
  return draft.choices.where === WHERE[1] ? ENDS : null
}

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const ends = endsOf(draft, preset)
  const readings = readClock(reader, clocksOf(draft), 'at', 'readings')
  const other = ends ? readClock(reader, clocksOf(draft, OTHER.placesKey), OTHER.prefix, 'other_end') : []
  const diameter = reader.length('diameter', 'diameter_mm')
  const bar = reader.length('bar', 'bar_mm')
  if (readings.length < 3) return reader.done(null, `Measure the gap at three places or more${ends ? `, ${ends[0]}` : ''}.`)
  if (ends && other.length < 3) return reader.done(null, `Measure the gap at three places or more, ${ends[1]}.`)
  if (diameter === null) return reader.done(null, 'On what diameter was it measured?')
  return reader.done({
    readings,
    diameter_mm: diameter,
    ...(bar !== null && { bar_mm: bar }),
    ...(ends && { other_end: other }),
    ...(ends && !('ends' in preset) && { ends }),
  })
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.cell('diameter', 'diameter_mm')
  filler.cell('bar', 'bar_mm')
  filler.ring(part, 'readings')
  if ((filler.at<unknown[]>('other_end') ?? []).length > 0) {
    filler.ring(part, 'other_end', { prefix: OTHER.prefix, key: OTHER.placesKey })
    filler.choice('where', WHERE[1])
  }
  return filler.draft
}

/** The gap at places round the clock, with the hubs drawn open by what was read. */
function GapDrawing(props: BenchProps<Result>) {
  const { result, draft, change, preset, problems } = props
  const ends = endsOf(draft, preset)
  return (
    <>
      <Zone>
        <h3>
          {ends ? 'Hubs and spacer' : 'Hubs'}, from the side<span>gap to scale with the hubs, angle exaggerated</span>
        </h3>
        {ends ? <HubsAndSpacer result={result} ends={ends} /> : <TwoHubs result={result} />}
      </Zone>
      <Zone>
        <Row>
          <RingReadings {...props} name={ends ? capital(ends[0]!) : 'Gap'} note={ends ? 'hub to spacer' : 'hub to hub'} />
          {ends && <RingReadings {...props} {...OTHER} name={capital(ends[1]!)} note="hub to spacer" />}
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
            {!props.spec && (
              <>
                <br />
                <Choice
                  label="Measured"
                  options={WHERE}
                  value={(draft.choices.where as (typeof WHERE)[number]) ?? WHERE[0]}
                  onChange={(where) => change({ ...draft, choices: { ...draft.choices, where } })}
                />
              </>
            )}
          </div>
        </Row>
      </Zone>
    </>
  )
}

const capital = (name: string) => name[0]!.toUpperCase() + name.slice(1)

/** One sentence for each end. */
function note(result: Result, unit: 'mm' | 'in') {
  const say = (found: Pick<Result, 'mean_mm' | 'spread_mm' | 'wide_at_deg'>) =>
    `${showLength(found.mean_mm, unit)} on the axis, spread ${showLength(found.spread_mm, unit)}, wide at ${sayToward(found.wide_at_deg)}.`
  return result.other_end ? `${say(result)} The other end: ${say(result.other_end)}` : say(result)
}

export const gapBench: BenchClient<Result> = {
  name: 'gap',
  title: 'Gap',
  answers: 'Gap on the axis, its spread and the angle it shows',
  start,
  read,
  restore,
  say: (result, unit) => ({ ...plainSay(result), note: note(result, unit) }),
  Drawing: GapDrawing,
  quickLimits: [
    { cell: 'nominal', label: 'Gap wanted', kind: 'length', unit: '' },
    { cell: 'plus', label: 'plus or minus', kind: 'length', unit: '' },
    { cell: 'spread', label: 'Largest spread', kind: 'length', unit: '' },
    { cell: 'differ', label: 'Two ends may differ', kind: 'length', unit: '' },
  ],
  quickPreset: ({ nominal, plus, spread, differ }) => ({
    accept: {
      ...(nominal !== undefined && plus !== undefined && { mean: { min_mm: nominal - plus, max_mm: nominal + plus } }),
      ...(spread !== undefined && { spread: { max_mm: spread } }),
      ...(differ !== undefined && { differ: { max_mm: differ } }),
    },
  }),
  keys: [['Enter', 'next reading, clockwise']],
}
