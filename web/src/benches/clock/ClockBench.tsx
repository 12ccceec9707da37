import { sayToward } from '../../drawing/clock'
import { sayLength } from '../../units/length'
import type { BenchClient, BenchProps } from '../bench'
import { Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { byTable, type Given, ring, type Table } from '../table'

const FIELDS = { readings: ring({ signed: true, lacking: 'Read at three places or more.' }) } satisfies Table<
  Given<'clock'>,
  'clock'
>

/** Any readings round a turn: their mean and once-per-turn part. */
function ClockDrawing(props: BenchProps<'clock'>) {
  return (
    <Zone>
      <RingReadings {...props} name="Dial" signed />
    </Zone>
  )
}

export const clockBench: BenchClient<'clock'> = {
  name: 'clock',
  title: 'Round the clock',
  answers: 'Mean and once-per-turn part of any readings, and which one stands out',
  ...byTable<'clock'>(FIELDS),
  say: (result, unit) => ({
    title: result.stands_out.length ? 'One reading stands out.' : 'The readings agree.',
    note: `Mean ${sayLength(result.mean_mm, unit, 3)}, ${sayLength(result.size_mm, unit, 3)} toward ${sayToward(result.peak_deg)}.`,
    moves: [],
  }),
  Drawing: ClockDrawing,
  keys: [['Enter', 'next reading, clockwise']],
}
