import type { Schemas } from '../../api/client'
import { sayToward } from '../../drawing/clock'
import { showLength } from '../../units/length'
import type { BenchClient, BenchProps } from '../bench'
import { clocksOf, type Draft, DraftFiller, DraftReader, type Entered, type Part, readClock } from '../draft'
import { Zone } from '../parts'
import { RingReadings } from '../ringReadings'

type Result = Schemas['ClockResult']

function read(draft: Draft) {
  const reader = new DraftReader(draft)
  const readings = readClock(reader, clocksOf(draft), 'at', 'readings')
  return reader.done(readings.length < 3 ? null : { readings }, 'Read at three places or more.')
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  filler.ring(part, 'readings', { signed: true })
  return filler.draft
}

/** Any readings round a turn: their mean and once-per-turn part. */
function ClockDrawing(props: BenchProps<Result>) {
  return (
    <Zone>
      <RingReadings {...props} name="Dial" signed />
    </Zone>
  )
}

export const clockBench: BenchClient<Result> = {
  name: 'clock',
  title: 'Round the clock',
  answers: 'Mean and once-per-turn part of any readings, and which one stands out',
  start: () => ({ cells: {}, choices: {} }),
  read,
  restore,
  say: (result, unit) => ({
    title: result.stands_out.length ? 'One reading stands out.' : 'The readings agree.',
    note: `Mean ${showLength(result.mean_mm, unit, 3)}, ${showLength(result.size_mm, unit, 3)} toward ${sayToward(result.peak_deg)}.`,
    moves: [],
  }),
  Drawing: ClockDrawing,
  keys: [['Enter', 'next reading, clockwise']],
}
