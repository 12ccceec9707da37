import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Pick } from '../../kit/Pick'
import { showLength } from '../../units/length'
import type { BenchClient, BenchProps, Preset } from '../bench'
import { asRead, type Draft, DraftFiller, DraftReader, type Entered, type Part, suggested } from '../draft'
import { LabelledCell, Zone } from '../parts'
import { BlueMap, mapOf } from './BlueMap'
import { TaperMatch } from './TaperMatch'

type Result = Schemas['TaperResult']

const CONES = ['shaft', 'bore'] as const
type Size = 'large_mm' | 'small_mm' | 'length_mm'
const SIZES: readonly (readonly [Size, string])[] = [
  ['large_mm', 'large end'],
  ['small_mm', 'small end'],
  ['length_mm', 'over a length of'],
]
const WAYS = ['two diameters', '1 in', 'inches per foot', 'degrees'] as const
type Way = (typeof WAYS)[number]
const WAY_WORDS: Record<Way, string> = {
  'two diameters': 'two diameters',
  '1 in': '1 in n',
  'inches per foot': 'in per ft',
  degrees: 'degrees, both sides',
}
const wayOf = (draft: Draft, cone: string) => (draft.choices[`${cone}.way`] as Way | undefined) ?? 'two diameters'

function start(_: Preset, suggest: Preset): Draft {
  const cells: Draft['cells'] = {}
  const attempt = suggest.attempt as Schemas['Attempt'] | undefined
  const figures = {
    interference: suggest.interference_mm as number | undefined,
    hand_tight: suggest.hand_tight_standout_mm as number | undefined,
    'try.hub': attempt?.hub_c,
    'try.shaft': attempt?.shaft_c,
  }
  for (const [cell, value] of Object.entries(figures)) {
    const typed = suggested(value)
    if (typed) cells[cell] = typed
  }
  return { cells, choices: {} }
}

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const cones: Record<string, Record<string, unknown>> = { shaft: {}, bore: {} }
  let missing = ''
  for (const cone of CONES)
    for (const [size, label] of SIZES) {
      const way = wayOf(draft, cone)
      if (size === 'small_mm' && way !== 'two diameters') {
        const value = reader.number(`${cone}.stated`, `${cone}.stated.value`)
        if (value === null) missing ||= `${cone}, taper ${WAY_WORDS[way]}`
        else cones[cone]!.stated = { way, value }
        continue
      }
      const mm = reader.length(`${cone}.${size}`, `${cone}.${size}`)
      if (mm === null) missing ||= `${cone}, ${label}`
      else cones[cone]![size] = mm
    }
  const interference = 'interference_mm' in preset ? undefined : reader.length('interference', 'interference_mm')
  if (interference === null) missing ||= 'interference wanted'
  const hand = reader.length('hand_tight', 'hand_tight_standout_mm')
  const fitted = reader.length('fitted', 'fitted_standout_mm')
  const contact = mapOf(draft)
  const attempt = readAttempt(reader)
  return reader.done(
    missing
      ? null
      : {
          ...cones,
          ...(interference !== undefined && { interference_mm: interference }),
          ...(hand !== null && { hand_tight_standout_mm: hand }),
          ...(fitted !== null && { fitted_standout_mm: fitted }),
          ...(contact && { contact }),
          ...(attempt && { attempt }),
        },
    missing && `Still to measure: ${missing}.`,
  )
}

/** A try counts when both temperatures are there; how far it went up is told by the stand-outs too. */
function readAttempt(reader: DraftReader) {
  const hub = reader.temperature('try.hub', 'attempt.hub_c')
  const shaft = reader.temperature('try.shaft', 'attempt.shaft_c')
  const advance = reader.length('try.advance', 'attempt.advance_mm')
  if (hub === null || shaft === null) return null
  return { hub_c: hub, shaft_c: shaft, ...(advance !== null && { advance_mm: advance }) }
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  for (const cone of CONES)
    for (const [size] of SIZES)
      filler.cell(`${cone}.${size}`, `${cone}.${size}`, size === 'length_mm' ? String : (mm) => asRead(mm, 3))
  for (const cone of CONES) {
    filler.choice(`${cone}.way`, filler.at(`${cone}.stated.way`))
    filler.cell(`${cone}.stated`, `${cone}.stated.value`)
  }
  filler.cell('interference', 'interference_mm', (mm) => asRead(mm, 3))
  if (part === 'all') {
    filler.cell('hand_tight', 'hand_tight_standout_mm', asRead)
    filler.cell('fitted', 'fitted_standout_mm', asRead)
    filler.choice('contact', filler.at('contact'))
    filler.cell('try.hub', 'attempt.hub_c')
    filler.cell('try.shaft', 'attempt.shaft_c')
    filler.cell('try.advance', 'attempt.advance_mm', asRead)
  }
  return filler.draft
}

/** Both cones against each other, the blue on the unrolled fit, and how far the hub went up. */
function TaperDrawing({ draft, change, preset, problems, result }: BenchProps<Result>) {
  const common = { draft, change, problems, width: 96 }
  return (
    <>
      <Zone>
        <h3>
          Taper match<span>one side, gap drawn wider than it is</span>
        </h3>
        <TaperMatch result={result} />
        <Cells>
          {CONES.map((cone) => (
            <div key={cone}>
              <b>{cone === 'shaft' ? 'Shaft' : 'Bore'}</b>
              <Pick
                label={`Taper of the ${cone} as`}
                options={WAYS.map((way) => WAY_WORDS[way])}
                value={WAY_WORDS[wayOf(draft, cone)]}
                onChange={(words) =>
                  change({
                    ...draft,
                    choices: { ...draft.choices, [`${cone}.way`]: WAYS.find((way) => WAY_WORDS[way] === words) },
                  })
                }
              />
              {SIZES.map(([size, label]) =>
                size === 'small_mm' && wayOf(draft, cone) !== 'two diameters' ? (
                  <LabelledCell
                    key="stated"
                    cell={`${cone}.stated`}
                    label={`${cone}, taper`}
                    kind="number"
                    unit={WAY_WORDS[wayOf(draft, cone)]}
                    {...common}
                  />
                ) : (
                  <LabelledCell key={size} cell={`${cone}.${size}`} label={`${cone}, ${label}`} {...common} />
                ),
              )}
              {result && <small>{sayTaper(cone === 'shaft' ? result.said_shaft : result.said_bore)}</small>}
            </div>
          ))}
          <div>
            <b>Draw-up</b>
            {!('interference_mm' in preset) && <LabelledCell cell="interference" label="Interference wanted" {...common} />}
            <LabelledCell cell="hand_tight" label="Shaft stands out, hand tight" part="aside" {...common} />
            <LabelledCell cell="fitted" label="Shaft stands out, fitted" part="aside" {...common} />
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
          <LabelledCell cell="try.hub" label="Hub was" kind="temperature" unit="°C" part="aside" {...common} />
          <LabelledCell cell="try.shaft" label="Shaft was" kind="temperature" unit="°C" part="aside" {...common} />
          <LabelledCell cell="try.advance" label="Went up by, if not measured above" part="aside" {...common} />
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
          ? 'The tapers do not bear as wanted.'
          : up
  return {
    title,
    note: `Shaft 1 in ${result.one_in_shaft.toFixed(2)}, bore 1 in ${result.one_in_bore.toFixed(2)}; touches ${
      result.touches_first === 'evenly' ? 'evenly' : `at the ${result.touches_first} first`
    }.`,
    moves: [
      ...(mark === null ? [] : [`Mark: the shaft stands out ${showLength(mark, unit)} when home`]),
      ...(result.interference_reached_mm === null
        ? []
        : [`Interference reached ${showLength(result.interference_reached_mm, unit, 3)}`]),
      ...(result.next_hub_c === null ? [] : [`Next try: hub at ${Math.round(result.next_hub_c)} °C`]),
    ],
  }
}

export const taperBench: BenchClient<Result> = {
  name: 'taper',
  title: 'Taper',
  answers: 'Taper match, blue contact, draw-up, and the next temperature after a miss',
  start,
  read,
  restore,
  say,
  Drawing: TaperDrawing,
  quickLimits: [
    { cell: 'mismatch', label: 'Mismatch allowed over the fit', kind: 'length', unit: '' },
    { cell: 'contact', label: 'Contact wanted', kind: 'number', unit: '%' },
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
