import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { sayToward } from '../../drawing/clock'
import { Choice } from '../../kit/Choice'
import { sayLength } from '../../units/length'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { oneOf } from '../draft'
import { FieldCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { byTable, cell, chosen, type Given, limit, type ResultOf, ring, type Table } from '../table'
import { BlowFromAbove } from './BlowFromAbove'
import { OffCentre } from './OffCentre'

type Result = ResultOf<'runout'>
type Second = Schemas['SecondRing']['on']

const KINDS = ['rim', 'face'] as const
const KIND = oneOf('kind', KINDS, 'rim')
const SECONDS = ['none', 'face', 'shaft', 'rim further along'] as const
const SECOND = oneOf('second', SECONDS, 'none')
const SECOND_WORDS: Record<(typeof SECONDS)[number], string> = {
  none: 'nothing else',
  face: 'its face',
  shaft: 'shaft beside it',
  'rim further along': 'rim further along',
}
const PLACES = 'second.clocks'

const APART = cell({
  cell: 'apart',
  label: 'The two rims are apart',
  detail: 'if measured: it tells how much it leans',
  optional: true,
  stays: true,
})
const SECOND_READINGS = ring({
  prefix: 'second',
  key: PLACES,
  signed: true,
  lacking: (draft) => `Read ${SECOND_WORDS[SECOND.of(draft)]} at three places or more as well.`,
  optional: true,
})

const FIELDS = {
  readings: ring({ signed: true, lacking: 'Read at three places or more while the part turns.' }),
  kind: { ...chosen(KIND), start: (_, preset) => ({ choices: preset.kind ? { [KIND.key]: preset.kind } : {} }) },
  second: {
    read: (reader, path, preset) => {
      const on = SECOND.of(reader.draft)
      const readings = on === 'none' ? undefined : SECOND_READINGS.read(reader, `${path}.readings`, preset)
      if (on === 'none' || !readings) return undefined
      const apart = on === 'rim further along' ? APART.read(reader, `${path}.distance_mm`, preset) : undefined
      return { on, readings, ...(apart !== undefined && { distance_mm: apart }) }
    },
    restore: (filler, path, part) => {
      filler.choice(SECOND.key, filler.at(`${path}.on`))
      APART.restore(filler, `${path}.distance_mm`, part)
      SECOND_READINGS.restore(filler, `${path}.readings`, part)
    },
    start: (_, preset) => {
      const wanted = preset.must_have?.[0]
      return { choices: wanted ? { [SECOND.key]: wanted } : {} }
    },
  },
  limit_mm: limit('Enter the run-out limit (TIR).'),
} satisfies Table<Given<'runout'>, 'runout'>

/** Readings round a turning part, and at a second place; the drawn rim is off centre by what was read. */
function RunoutDrawing(props: BenchProps<'runout'>) {
  const { draft, change, preset, result } = props
  const [kind, second] = [KIND.of(draft), SECOND.of(draft)]
  return (
    <>
      <Zone>
        <Row>
          <RingReadings {...props} name={kind === 'rim' ? 'Rim' : 'Face'} note="part turning" signed />
          {second !== 'none' && (
            <RingReadings {...props} name={NAMES[second]} note="part turning" prefix="second" placesKey={PLACES} signed />
          )}
        </Row>
      </Zone>
      <Zone>
        <Row>
          <OffCentre result={result} />
          {preset.stage === 'half tight' && result && <BlowFromAbove highDeg={worseHigh(result)} isOver={isOver(result)} />}
        </Row>
      </Zone>
      <Zone>
        <Options>
          {!('kind' in preset) && (
            <Choice label="Dial on the" options={KINDS} value={kind} onChange={(now) => change(KIND.put(draft, now))} />
          )}
          <Choice
            label="Read as well"
            options={SECONDS}
            words={SECOND_WORDS}
            value={second}
            onChange={(on) => change(SECOND.put(draft, on))}
          />
          {second === 'rim further along' && <FieldCell of={APART} {...props} />}
        </Options>
      </Zone>
    </>
  )
}

const NAMES: Record<Second, string> = { face: 'Face of it', shaft: 'Shaft', 'rim further along': 'Further along' }

const isOver = (result: Result) => result.verdict === 'over'

/** The high spot of the ring that is over; of the first one where none or that one is. */
function worseHigh(result: Result): number {
  const first = result.checks.find((c) => c.status === 'over')
  const isSecond = first !== undefined && first !== result.checks[0] && result.second !== null
  return isSecond ? result.second!.high_spot_deg : result.high_spot_deg
}

function say(result: Result, unit: 'mm' | 'in') {
  const oval = result.oval_mm === null ? '' : `, oval ${sayLength(result.oval_mm, unit, 3)}`
  const second = result.second ? `; second place ${sayLength(result.second.total_mm, unit, 3)}` : ''
  return {
    ...plainSay(result),
    title: isOver(result) ? `Runs out: high spot at ${sayToward(worseHigh(result))}.` : plainSay(result).title,
    note: `TIR ${sayLength(result.total_mm, unit, 3)}${oval}${second}.`,
  }
}

export const runoutBench: BenchClient<'runout'> = {
  name: 'runout',
  title: 'Run-out',
  answers: 'TIR, high spot, how much of it is oval, and whether shaft or hub is to blame',
  ...byTable<'runout'>(FIELDS),
  say,
  Drawing: RunoutDrawing,
  quickLimits: [{ cell: 'limit', label: 'Run-out limit, TIR', kind: 'length', unit: '' }],
  quickPreset: ({ limit }) => ({ limit_mm: limit ?? null }),
  keys: [
    ['Enter', 'next reading, clockwise'],
    ['−', 'flip sign'],
  ],
}

const Options = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 28px;
  align-items: end;
`
