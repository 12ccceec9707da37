import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { sayToward } from '../../drawing/clock'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, readClock } from '../draft'
import { LabelledCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { BlowFromAbove } from './BlowFromAbove'
import { OffCentre } from './OffCentre'

type Result = Schemas['RunoutResult']
type Second = Schemas['SecondRing']['on']

const KINDS = ['rim', 'face'] as const
const NONE = 'none'
const SECONDS: readonly (Second | typeof NONE)[] = [NONE, 'face', 'shaft', 'rim further along']
const SECOND_WORDS: Record<Second | typeof NONE, string> = {
  none: 'nothing else',
  face: 'its face',
  shaft: 'shaft beside it',
  'rim further along': 'rim further along',
}
const PLACES = 'second.clocks'

function start(preset: Preset): Draft {
  const wanted = (preset.must_have as Second[] | undefined)?.[0]
  const { kind } = preset
  return {
    cells: {},
    choices: {
      ...(kind ? { kind } : {}),
      ...(wanted && { second: wanted }),
    },
  }
}

const secondOf = (draft: Draft) => (draft.choices.second as Second | typeof NONE | undefined) ?? NONE
const kindOf = (draft: Draft) => (draft.choices.kind as 'rim' | 'face' | undefined) ?? 'rim'

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const readings = readClock(reader, clocksOf(draft), 'at', 'readings')
  const on = secondOf(draft)
  const ring = on === NONE ? [] : readClock(reader, clocksOf(draft, PLACES), 'second', 'second.readings')
  const apart = on === 'rim further along' ? reader.length('apart', 'second.distance_mm') : null
  if (readings.length < 3) return reader.done(null, 'Read at three places or more while the part turns.')
  if (ring.length > 0 && ring.length < 3)
    return reader.done(null, `Read ${SECOND_WORDS[on]} at three places or more as well.`)
  if (!('limit_mm' in preset)) return reader.done(null, 'Give the limit on the total reading.')
  return reader.done({
    readings,
    kind: kindOf(draft),
    ...(ring.length > 0 && { second: { on, readings: ring, ...(apart !== null && { distance_mm: apart }) } }),
  })
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.choice('kind', filler.at('kind'))
  filler.choice('second', filler.at('second.on'))
  filler.cell('apart', 'second.distance_mm')
  filler.ring(part, 'readings', { signed: true })
  if (filler.at('second')) filler.ring(part, 'second.readings', { prefix: 'second', key: PLACES, signed: true })
  return filler.draft
}

/** Readings round a turning part, and at a second place; the drawn rim is off centre by what was read. */
function RunoutDrawing(props: BenchProps<Result>) {
  const { draft, change, preset, result } = props
  const choose = (key: string, value: string) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
  const second = secondOf(draft)
  return (
    <>
      <Zone>
        <Row>
          <RingReadings {...props} name={kindOf(draft) === 'rim' ? 'Rim' : 'Face'} note="part turning" signed />
          {second !== NONE && (
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
            <Choice label="Dial on the" options={KINDS} value={kindOf(draft)} onChange={(kind) => choose('kind', kind)} />
          )}
          <Choice
            label="Read as well"
            options={SECONDS}
            words={SECOND_WORDS}
            value={second}
            onChange={(on) => choose('second', on)}
          />
          {second === 'rim further along' && (
            <LabelledCell
              cell="apart"
              label="The two rims are apart"
              detail="if measured: it tells how much it leans"
              draft={draft}
              change={change}
              problems={props.problems}
            />
          )}
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
  const oval = result.oval_mm === null ? '' : `, oval ${showLength(result.oval_mm, unit, 3)}`
  const second = result.second ? `; second place ${showLength(result.second.total_mm, unit, 3)}` : ''
  return {
    ...plainSay(result),
    title: isOver(result) ? `Runs out: high spot at ${sayToward(worseHigh(result))}.` : plainSay(result).title,
    note: `Total ${showLength(result.total_mm, unit, 3)}${oval}${second}.`,
  }
}

export const runoutBench: BenchClient<Result> = {
  name: 'runout',
  title: 'Run-out',
  answers: 'Total reading, high spot, what of it is oval, and whether shaft or hub is to blame',
  start,
  read,
  restore,
  say,
  Drawing: RunoutDrawing,
  quickLimits: [{ cell: 'limit', label: 'Limit on the total reading', kind: 'length', unit: '' }],
  quickPreset: ({ limit }) => (limit === undefined ? {} : { limit_mm: limit }),
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
