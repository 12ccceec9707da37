import { type DragEvent, useLayoutEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import { post, Refused } from '../api/client'
import { ClockRing } from '../drawing/ClockRing'
import { sayClock } from '../drawing/clock'
import { WordButton } from '../kit/Button'
import { EntryCell } from '../kit/EntryCell'
import { FileButton } from '../kit/FileButton'
import { saveAs } from '../kit/saveAs'
import { useUnit } from '../units/preferences'
import { AnotherPlace } from './AnotherPlace'
import type { BenchProps } from './bench'
import { clocksOf, DraftReader, fillFrom, readClock } from './draft'

interface RingProps extends Pick<BenchProps, 'draft' | 'change' | 'problems'> {
  name: string
  note?: string
  signed?: boolean
  /** How the cells of this ring and the list of its places are called on the draft, where a bench has several rings. */
  prefix?: string
  placesKey?: string
}

/** One ring of readings, with its places added and taken away, and its readings as CSV in and out. */
export function RingReadings(props: RingProps) {
  const { name, note, signed, draft, change, problems, prefix = 'at', placesKey = 'clocks' } = props
  const unit = useUnit()
  const clocks = clocksOf(draft, placesKey)
  const choose = (next: number[]) => change({ ...draft, choices: { ...draft.choices, [placesKey]: next } })
  const file = useCsvFile(props)
  const labelAt = (clock: number) => `${name} at ${sayClock(clock)}, ${unit}`
  const ring = useRef<HTMLDivElement>(null)
  const [added, setAdded] = useState<number | null>(null)
  const add = (clock: number) => {
    choose([...clocks, clock])
    setAdded(clock)
  }
  // A place is added to be read: its cell has the hand, and not the button that made way for it.
  useLayoutEffect(() => {
    const cell =
      added === null ? null : ring.current?.querySelector<HTMLInputElement>(`input[aria-label="${labelAt(added)}"]`)
    if (!cell) return
    cell.focus()
    setAdded(null)
  })
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: who drops nothing chooses the file by its button
    <div ref={ring} onDragOver={(event) => event.preventDefault()} onDrop={file.onDrop}>
      <ClockRing
        name={name}
        note={note}
        clocks={clocks}
        onAdd={add}
        onRemove={(clock) => choose(clocks.filter((c) => c !== clock))}
        cell={(clock) => (
          <EntryCell
            label={labelAt(clock)}
            typed={draft.cells[prefix + clock]}
            onType={(typed) => change({ ...draft, cells: { ...draft.cells, [prefix + clock]: typed } })}
            problem={problems[prefix + clock]}
            signed={signed}
            onFigures={fillFrom(
              { draft, change, unit },
              clocks.map((each) => prefix + each),
              prefix + clock,
            )}
          />
        )}
      />
      <AnotherPlace name={name} clocks={clocks} onAdd={add} />
      <CsvReadings {...props} file={file} />
    </div>
  )
}

const MOST_ON_A_RING = 36 // more cells than this cover each other

/** Readings from a CSV file, chosen or dropped; one that is wrong changes nothing and says which line. */
function useCsvFile({ draft, change, prefix = 'at', placesKey = 'clocks' }: RingProps) {
  const [problem, setProblem] = useState('')
  const say = (why: unknown) => setProblem(why instanceof Refused ? why.placed.join(' ') : String(why))
  const readIn = async (chosen: File | undefined) => {
    if (!chosen) return
    try {
      const { readings } = await post<{ readings: { clock: number; value_mm: number }[] }>(
        '/api/benches/readings/read',
        chosen,
      )
      if (readings.length > MOST_ON_A_RING) {
        setProblem(`This file has ${readings.length} readings; a ring takes ${MOST_ON_A_RING}.`)
        return
      }
      const cells = Object.fromEntries(
        readings.map((r) => [prefix + r.clock, { text: String(r.value_mm), unit: 'mm' as const }]),
      )
      const kept = Object.entries(draft.cells).filter(([cell]) => !cell.startsWith(prefix))
      change({
        cells: { ...Object.fromEntries(kept), ...cells },
        choices: { ...draft.choices, [placesKey]: readings.map((r) => r.clock) },
      })
      setProblem('')
    } catch (why) {
      say(why)
    }
  }
  const onDrop = (event: DragEvent) => {
    event.preventDefault()
    readIn(event.dataTransfer.files[0])
  }
  return { problem, setProblem, say, readIn, onDrop }
}

interface CsvProps extends RingProps {
  file: ReturnType<typeof useCsvFile>
}

/** Readings to a CSV file and from one. */
function CsvReadings({ name, draft, prefix = 'at', placesKey = 'clocks', file }: CsvProps) {
  const { problem, setProblem, say, readIn } = file
  const writeOut = async () => {
    try {
      const readings = readClock(new DraftReader(draft), clocksOf(draft, placesKey), prefix, 'readings')
      const text = await post<string>('/api/benches/readings/write', JSON.stringify({ readings }))
      saveAs('readings.csv', text, 'text/csv')
      setProblem('')
    } catch (why) {
      say(why)
    }
  }
  return (
    <Csv>
      <WordButton aria-label={`${name}: CSV out`} onPress={writeOut}>
        CSV out
      </WordButton>
      <FileButton
        as={WordButton}
        label="CSV in"
        says={`${name}: CSV in`}
        file={`${name}: CSV file of readings`}
        accept=".csv,text/csv"
        onFile={readIn}
      />
      {problem && <p role="alert">{problem}</p>}
    </Csv>
  )
}

const Csv = styled.div`
  display: flex;
  flex-wrap: wrap;
  max-width: 252px;
  font-size: var(--fs-small);
  p { font-size: var(--fs-small); font-weight: 600; line-height: 1.2; }
`
