import { sayToward } from '../../drawing/clock'
import { Choice } from '../../kit/Choice'
import { sayLength } from '../../units/length'
import { type BenchClient, type BenchProps, namesOf, plainSay } from '../bench'
import { type Draft, oneOf } from '../draft'
import { FieldCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { byTable, cell, type Given, type ResultOf, ring, type Table, when } from '../table'
import { HubsAndSpacer, TwoHubs } from './GapViews'

type Result = ResultOf<'gap'>

const WHERE_WORDS = ['between two hubs', 'both ends of a spacer'] as const
const WHERE = oneOf('where', WHERE_WORDS, WHERE_WORDS[0])
const ENDS = ['driver end', 'driven end']
const OTHER = { prefix: 'other', placesKey: 'other.clocks' } as const

/** The names of a spacer's ends where both are measured, by the job or as chosen here. */
function endsOf(draft: Draft, preset: Given<'gap'>): string[] | null {
  return preset.ends ?? (WHERE.of(draft) === WHERE_WORDS[1] ? ENDS : null)
}

const atEnd = (which: 0 | 1) => (draft: Draft, preset: Given<'gap'>) => {
  const ends = endsOf(draft, preset)
  return `Measure the gap at three places or more${ends ? `, ${ends[which]}` : ''}.`
}
const hasEnds = (draft: Draft, preset: Given<'gap'>) => endsOf(draft, preset) !== null

const FIELDS = {
  readings: ring({ lacking: atEnd(0) }),
  other_end: when(hasEnds, ring({ prefix: OTHER.prefix, key: OTHER.placesKey, lacking: atEnd(1) })),
  ends: {
    read: (reader, _, preset) => endsOf(reader.draft, preset) ?? undefined,
    restore: (filler) => {
      if (filler.at<unknown[]>('other_end')?.length) filler.choice(WHERE.key, WHERE_WORDS[1])
    },
  },
  diameter_mm: cell({
    cell: 'diameter',
    label: 'Measured on diameter',
    part: 'set-up',
    detail: 'for the angle',
    optional: true,
    hint: (hints) => hints.diameter_mm,
  }),
  bar_mm: cell({
    cell: 'bar',
    label: 'Spacer bar',
    detail: 'only with bar and feelers',
    part: 'aside',
    optional: true,
    stays: true,
  }),
} satisfies Table<Given<'gap'>, 'gap'>

/** The gap at places round the clock, with the hubs drawn open by what was read. */
function GapDrawing(props: BenchProps<'gap'>) {
  const { result, draft, change, preset } = props
  const ends = endsOf(draft, preset)
  return (
    <>
      <Zone>
        <h3>
          {ends ? 'Hubs and spacer' : 'Hubs'}, from the side<span>gap to scale with the hubs, angle exaggerated</span>
        </h3>
        {ends ? <HubsAndSpacer result={result} ends={ends} /> : <TwoHubs result={result} names={namesOf(props.spec)} />}
      </Zone>
      <Zone>
        <Row>
          <RingReadings {...props} name={ends ? capital(ends[0]!) : 'Gap'} note={ends ? 'hub to spacer' : 'hub to hub'} />
          {ends && <RingReadings {...props} {...OTHER} name={capital(ends[1]!)} note="hub to spacer" />}
          <div>
            <FieldCell of={FIELDS.diameter_mm} {...props} />
            <br />
            <FieldCell of={FIELDS.bar_mm} {...props} />
            {!props.spec && (
              <>
                <br />
                <Choice
                  label="Measured"
                  options={WHERE_WORDS}
                  value={WHERE.of(draft)}
                  onChange={(where) => change(WHERE.put(draft, where))}
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
    `mean gap ${sayLength(found.mean_mm, unit)}, spread ${sayLength(found.spread_mm, unit)}, widest at ${sayToward(found.wide_at_deg)}.`
  return result.other_end ? `${capital(say(result))} The other end: ${say(result.other_end)}` : capital(say(result))
}

export const gapBench: BenchClient<'gap'> = {
  name: 'gap',
  title: 'Gap',
  answers: 'Gap on the axis, its spread and the angle it shows',
  ...byTable<'gap'>(FIELDS),
  say: (result, unit) => ({ ...plainSay(result), note: note(result, unit) }),
  Drawing: GapDrawing,
  quickLimits: [
    { cell: 'nominal', label: 'Specified gap', kind: 'length', unit: '' },
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
