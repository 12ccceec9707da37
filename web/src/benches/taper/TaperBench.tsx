import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Pick } from '../../kit/Pick'
import { showLength } from '../../units/length'
import type { BenchClient, BenchProps } from '../bench'
import { type Draft, oneOf } from '../draft'
import { FieldCell, LabelledCell, Zone } from '../parts'
import { byTable, cell, chosen, type Field, type Given, group, type ResultOf, type Table, when } from '../table'
import { BlueMap, MAP } from './BlueMap'
import { TaperMatch } from './TaperMatch'

type Result = ResultOf<'taper'>
type Cone = Schemas['Cone']

const WAYS = ['two diameters', '1 in', 'inches per foot', 'degrees'] as const
type Way = (typeof WAYS)[number]
const WAY_WORDS: Record<Way, string> = {
  'two diameters': 'two diameters',
  '1 in': '1 in n',
  'inches per foot': 'in per ft',
  degrees: 'degrees, both sides',
}

/** One cone: its large end, then its small end or how the taper is stated, and over what length. */
function cone(name: 'shaft' | 'bore') {
  const way = oneOf<Way, Way>(`${name}.way`, WAYS, 'two diameters')
  const hasTwo = (draft: Draft) => way.of(draft) === 'two diameters'
  const figure = (cellName: string, label: string, places?: number) =>
    cell<'taper'>({
      cell: `${name}.${cellName}`,
      label: `${name}, ${label}`,
      lacking: `Still to measure: ${name}, ${label}.`,
      stays: true,
      ...(places !== undefined && { places }),
    })
  const [large, small, over] = [
    figure('large_mm', 'large end', 3),
    figure('small_mm', 'small end', 3),
    figure('length_mm', 'over a length of'),
  ]
  const stated: Field<NonNullable<Cone['stated']>, 'taper'> = {
    read: (reader, path) => {
      const as = way.of(reader.draft)
      if (as === 'two diameters') return undefined
      const value = reader.number(`${name}.stated`, `${path}.value`)
      return value === null ? reader.lack(`Still to measure: ${name}, taper ${WAY_WORDS[as]}.`) : { way: as, value }
    },
    restore: (filler, path) => {
      filler.choice(way.key, filler.at(`${path}.way`))
      filler.cell(`${name}.stated`, `${path}.value`)
    },
  }
  const field = group<Cone, 'taper'>({ large_mm: large, small_mm: when(hasTwo, small), stated, length_mm: over })
  return { name, way, hasTwo, large, small, over, field }
}

const CONES = [cone('shaft'), cone('bore')] as const
const INTERFERENCE = cell<'taper'>({
  cell: 'interference',
  label: 'Interference required',
  lacking: 'Enter the interference required.',
  stays: true,
  places: 3,
})
const HAND_TIGHT = cell<'taper'>({
  cell: 'hand_tight',
  label: 'Shaft stand-out, hand tight',
  part: 'aside',
  optional: true,
  places: 2,
  hint: (hints) => hints.hand_tight_standout_mm,
})
const FITTED = cell<'taper'>({ cell: 'fitted', label: 'Shaft stand-out, fitted', part: 'aside', optional: true, places: 2 })
const TRY_HUB = cell<'taper'>({
  cell: 'try.hub',
  label: 'Hub was',
  kind: 'temperature',
  unit: '°C',
  part: 'aside',
  hint: (hints) => hints.hub_c,
})
const TRY_SHAFT = cell<'taper'>({
  cell: 'try.shaft',
  label: 'Shaft was',
  kind: 'temperature',
  unit: '°C',
  part: 'aside',
  hint: (hints) => hints.shaft_c,
})
const TRY_ADVANCE = cell<'taper'>({
  cell: 'try.advance',
  label: 'Went up by, if not measured above',
  part: 'aside',
  optional: true,
  places: 2,
})

const FIELDS = {
  shaft: CONES[0].field,
  bore: CONES[1].field,
  interference_mm: INTERFERENCE,
  hand_tight_standout_mm: HAND_TIGHT,
  fitted_standout_mm: FITTED,
  contact: chosen(MAP, false),
  attempt: group<Schemas['Attempt'], 'taper'>(
    { hub_c: TRY_HUB, shaft_c: TRY_SHAFT, advance_mm: TRY_ADVANCE },
    { optional: true },
  ),
} satisfies Table<Given<'taper'>, 'taper'>

/** Both cones against each other, the blue on the unrolled fit, and how far the hub went up. */
function TaperDrawing({ draft, change, preset, problems, result }: BenchProps<'taper'>) {
  const common = { draft, change, problems, width: 96 }
  return (
    <>
      <Zone>
        <h3>
          Taper match<span>one side, gap drawn wider than it is</span>
        </h3>
        <TaperMatch result={result} />
        <Cells>
          {CONES.map(({ name, way, hasTwo, large, small, over }) => (
            <div key={name}>
              <b>{name === 'shaft' ? 'Shaft' : 'Bore'}</b>
              <Pick
                label={`Taper of the ${name} as`}
                options={WAYS.map((as) => WAY_WORDS[as])}
                value={WAY_WORDS[way.of(draft)]}
                onChange={(words) => change(way.put(draft, WAYS.find((as) => WAY_WORDS[as] === words) ?? WAYS[0]))}
              />
              <FieldCell of={large} {...common} />
              {hasTwo(draft) ? (
                <FieldCell of={small} {...common} />
              ) : (
                <LabelledCell
                  cell={`${name}.stated`}
                  label={`${name}, taper`}
                  kind="number"
                  unit={WAY_WORDS[way.of(draft)]}
                  {...common}
                />
              )}
              <FieldCell of={over} {...common} />
              {result && <small>{sayTaper(name === 'shaft' ? result.said_shaft : result.said_bore)}</small>}
            </div>
          ))}
          <div>
            <b>Draw-up</b>
            {!('interference_mm' in preset) && <FieldCell of={INTERFERENCE} {...common} />}
            <FieldCell of={HAND_TIGHT} {...common} />
            <FieldCell of={FITTED} {...common} />
          </div>
        </Cells>
      </Zone>
      <Zone>
        <h3>
          Blue<span>the fit unrolled, seen from the hub; tap or drag: full, part, bare</span>
        </h3>
        <BlueMap draft={draft} change={change} share={result?.contact_share ?? null} />
      </Zone>
      <Zone>
        <h3>
          A try that missed<span>hub and shaft both cool before the next one</span>
        </h3>
        <Row>
          <FieldCell of={TRY_HUB} {...common} />
          <FieldCell of={TRY_SHAFT} {...common} />
          <FieldCell of={TRY_ADVANCE} {...common} />
        </Row>
      </Zone>
    </>
  )
}

/** A taper in every way people state it. */
function sayTaper(said: Record<string, number>) {
  return `1 in ${said['1 in']!.toFixed(3)} · ${said['inches per foot']!.toFixed(4)} in per ft · ${said.degrees!.toFixed(4)}°`
}

function say(result: Result, unit: 'mm' | 'in') {
  const up = `Draw up ${showLength(result.advance_mm, unit)} from hand tight.`
  const mark = result.mark_standout_mm
  const reached = result.advance_reached_mm
  const title =
    reached !== null
      ? result.checks.some((c) => c.code === 'draw_up' && c.status === 'over')
        ? `Missed: ${showLength(reached, unit)} instead of ${showLength(result.advance_mm, unit)}.`
        : 'On its mark.'
      : result.verdict === 'incomplete'
        ? 'Not complete yet.'
        : result.verdict === 'over'
          ? 'Taper contact out of tolerance.'
          : up
  return {
    title,
    note: `Shaft 1 in ${result.one_in_shaft.toFixed(2)}, bore 1 in ${result.one_in_bore.toFixed(2)}; touches ${
      result.touches_first === 'evenly' ? 'evenly' : `at the ${result.touches_first} first`
    }.`,
    moves: [
      ...(mark === null ? [] : [`Mark: shaft stand-out ${showLength(mark, unit)} when seated`]),
      ...(result.interference_reached_mm === null
        ? []
        : [`Interference reached ${showLength(result.interference_reached_mm, unit, 3)}`]),
      ...(result.next_hub_c === null ? [] : [`Next try: hub at ${Math.round(result.next_hub_c)} °C`]),
    ],
  }
}

export const taperBench: BenchClient<'taper'> = {
  name: 'taper',
  title: 'Taper',
  answers: 'Taper match, blue contact, draw-up, and the next temperature after a miss',
  ...byTable<'taper'>(FIELDS),
  say,
  Drawing: TaperDrawing,
  quickLimits: [
    { cell: 'mismatch', label: 'Mismatch allowed over the fit', kind: 'length', unit: '' },
    { cell: 'contact', label: 'Contact, min.', kind: 'number', unit: '%' },
  ],
  quickPreset: ({ mismatch, contact }) => ({
    ...(mismatch !== undefined && { mismatch_max_mm: mismatch }),
    ...(contact !== undefined && { contact_min: contact / 100, contact_source: 'limit as entered' }),
  }),
  keys: [
    ['Enter', 'next figure'],
    ['1 2 3', 'full, part, bare'],
  ],
}

const Cells = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 8px 28px;
  margin-top: 6px;
  > div { display: flex; flex-direction: column; gap: 6px; }
  b { font-weight: 600; }
`
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
`
