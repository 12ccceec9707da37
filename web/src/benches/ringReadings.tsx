import { useRef } from 'react'
import { post, Refused } from '../api/client'
import { ClockRing } from '../drawing/ClockRing'
import { sayClock } from '../drawing/clock'
import { PlainButton } from '../kit/Button'
import { EntryCell } from '../kit/EntryCell'
import { useUnit } from '../units/preferences'
import type { BenchProps } from './bench'
import { clocksOf, DraftReader, readClock } from './draft'
import { Row } from './parts'

interface RingProps extends BenchProps {
  name: string
  note?: string
  signed?: boolean
  onFileProblem?: (words: string) => void
}

/** One ring of readings, with its places added and taken away, and its readings as CSV in and out. */
export function RingReadings(props: RingProps) {
  const { name, note, signed, draft, change, problems } = props
  const unit = useUnit()
  const clocks = clocksOf(draft)
  const choose = (next: number[]) => change({ ...draft, choices: { ...draft.choices, clocks: next } })
  return (
    <div>
      <ClockRing
        name={name}
        note={note}
        clocks={clocks}
        onAdd={(clock) => choose([...clocks, clock])}
        onRemove={(clock) => choose(clocks.filter((c) => c !== clock))}
        cell={(clock) => (
          <EntryCell
            label={`${name} at ${sayClock(clock)}, ${unit}`}
            typed={draft.cells[`at${clock}`]}
            onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`at${clock}`]: typed } })}
            problem={problems[`at${clock}`]}
            signed={signed}
          />
        )}
      />
      <CsvReadings {...props} />
    </div>
  )
}

/** Readings to a CSV file and from one; a file that is wrong changes nothing and says which line. */
function CsvReadings({ draft, change, onFileProblem }: RingProps) {
  const file = useRef<HTMLInputElement>(null)
  const say = (why: unknown) =>
    onFileProblem?.(why instanceof Refused ? why.problems.map((p) => `${p.path}: ${p.message}`).join(' ') : String(why))
  const readIn = async (chosen: File | undefined) => {
    if (!chosen) return
    try {
      const { readings } = await post<{ readings: { clock: number; value_mm: number }[] }>(
        '/api/benches/readings/read',
        chosen,
      )
      const cells = Object.fromEntries(
        readings.map((r) => [`at${r.clock}`, { text: String(r.value_mm), unit: 'mm' as const }]),
      )
      const kept = Object.entries(draft.cells).filter(([cell]) => !cell.startsWith('at'))
      change({
        cells: { ...Object.fromEntries(kept), ...cells },
        choices: { ...draft.choices, clocks: readings.map((r) => r.clock) },
      })
      onFileProblem?.('')
    } catch (why) {
      say(why)
    }
  }
  const writeOut = async () => {
    try {
      const readings = readClock(new DraftReader(draft), clocksOf(draft), 'at', 'readings')
      const text = await post<string>('/api/benches/readings/write', JSON.stringify({ readings }))
      const link = document.createElement('a')
      link.href = URL.createObjectURL(new Blob([text], { type: 'text/csv' }))
      link.download = 'readings.csv'
      link.click()
      URL.revokeObjectURL(link.href)
      onFileProblem?.('')
    } catch (why) {
      say(why)
    }
  }
  return (
    <Row>
      <PlainButton onPress={writeOut}>Readings out (CSV)</PlainButton>
      <PlainButton onPress={() => file.current?.click()}>Readings in (CSV)</PlainButton>
      <input
        ref={file}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="CSV file of readings"
        onChange={(event) => {
          readIn(event.target.files?.[0])
          event.target.value = ''
        }}
      />
    </Row>
  )
}
