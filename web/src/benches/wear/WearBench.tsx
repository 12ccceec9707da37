import styled from 'styled-components'
import { TrendChart } from '../../drawing/TrendChart'
import { PlainButton } from '../../kit/Button'
import { EntryCell } from '../../kit/EntryCell'
import { Words } from '../../kit/Field'
import { Tick } from '../../kit/Tick'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { type Draft, slot } from '../draft'
import { FieldCell, Row, Zone } from '../parts'
import { byTable, cell, type Field, type Given, type ResultOf, type Table } from '../table'

type Input = Given<'wear'>
type Reading = NonNullable<Input['readings']>[number]

const FEWEST_ROWS = 4
const DAY = 10 // characters of a day without a time
const DAYS = slot<string[]>('days', [])
const FRESH = slot<number[]>('fresh', [])
const rowsOf = (draft: Draft) => Math.max(FEWEST_ROWS, DAYS.of(draft).length)
const isoToday = () => new Date().toLocaleDateString('sv-SE')

/** Each row that has its day and its figure. */
const READINGS: Field<Reading[], 'wear'> = {
  read: (reader, path) => {
    const days = DAYS.of(reader.draft)
    const found: Reading[] = []
    for (let i = 0; i < rowsOf(reader.draft); i++) {
      const value = reader.length(`v${i}`, `${path}.${found.length}.value`)
      if (value !== null && days[i]) {
        reader.cellAt[`${path}.${found.length}.at`] = `v${i}`
        found.push({ at: days[i]!, value })
      }
    }
    return found.length > 0 ? found : reader.lack('Enter a reading and its day.')
  },
  restore: (filler, path) => {
    const kept = filler.at<Reading[]>(path) ?? []
    filler.choice(
      DAYS.key,
      kept.map((one) => one.at.slice(0, DAY)),
    )
    for (const i of kept.keys()) filler.cell(`v${i}`, `${path}.${i}.value`)
  },
}
/** Something new from this row on: a new set, a machine that was moved. */
const BREAKS: Field<NonNullable<Input['breaks']>, 'wear'> = {
  read: (reader) =>
    FRESH.of(reader.draft).flatMap((i) => {
      const at = DAYS.of(reader.draft)[i]
      return at ? [{ at: `${at}T00:00:00`, why: 'new from here' }] : []
    }),
  restore: (filler, path) => {
    const days = (filler.at<Reading[]>('readings') ?? []).map((one) => one.at.slice(0, DAY))
    const breaks = filler.at<{ at: string }[]>(path) ?? []
    filler.choice(
      FRESH.key,
      breaks.map((one) => days.indexOf(one.at.slice(0, DAY))).filter((i) => i >= 0),
    )
  },
}
const given = <V,>(value: () => V): Field<V, 'wear'> => ({ read: value, restore: () => undefined })

const FIELDS = {
  readings: READINGS,
  breaks: BREAKS,
  plus_minus: cell<'wear'>({
    cell: 'half',
    label: 'One reading is good to ±',
    detail: '0.1 mm if empty',
    part: 'set-up',
    optional: true,
  }),
  limit: cell<'wear'>({ cell: 'limit', label: 'Limit, at most', part: 'set-up', optional: true }),
  limit_source: { read: () => undefined, restore: () => undefined } satisfies Field<string, 'wear'>,
  unit: given(() => 'mm' as const),
  today: given(isoToday),
} satisfies Table<Input, 'wear'>

/** Readings with their days, the line through them, and when it is at the limit. */
function WearDrawing(props: BenchProps<'wear'>) {
  const { draft, change, problems, result } = props
  const unit = useUnit()
  const [days, fresh] = [DAYS.of(draft), FRESH.of(draft)]
  const rows = rowsOf(draft)
  const setDay = (i: number, day: string) =>
    change(
      DAYS.put(
        draft,
        Array.from({ length: Math.max(rows, i + 1) }, (_, j) => (j === i ? day : (days[j] ?? ''))),
      ),
    )
  return (
    <>
      <Zone>
        <h3>
          Wear over time<span>only what runs now is fitted</span>
        </h3>
        {result ? (
          <TrendChart
            trend={result}
            title="Wear over time"
            unit="mm"
            limit={result.checks[0]?.max ?? null}
            today={isoToday()}
            breaks={fresh.flatMap((i) => (days[i] ? [{ at: days[i]!, why: 'new from here' }] : []))}
            aside={result.set_aside.flatMap((i) => result.drawn[i]?.at ?? [])}
          />
        ) : (
          <p>Days and readings first: then they are drawn here.</p>
        )}
      </Zone>
      <Zone>
        <Rows>
          {Array.from({ length: rows }, (_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place on the sheet
            <li key={i}>
              <Words hideLabel label={`Day ${i + 1}`} type="date" value={days[i] ?? ''} onChange={(day) => setDay(i, day)} />
              <EntryCell
                label={`Reading ${i + 1}, ${unit}`}
                typed={draft.cells[`v${i}`]}
                onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`v${i}`]: typed } })}
                problem={problems[`v${i}`]}
                width={110}
              />
              <Tick
                label="new from here"
                value={fresh.includes(i)}
                onChange={(on) => change(FRESH.put(draft, on ? [...fresh, i] : fresh.filter((j) => j !== i)))}
              />
            </li>
          ))}
        </Rows>
        <Row>
          <PlainButton
            onPress={() => change(DAYS.put(draft, [...Array.from({ length: rows }, (_, j) => days[j] ?? ''), '']))}
          >
            One more reading
          </PlainButton>
          <FieldCell of={FIELDS.plus_minus} {...props} />
          <FieldCell of={FIELDS.limit} {...props} />
        </Row>
      </Zone>
    </>
  )
}

const TITLES: Partial<Record<ResultOf<'wear'>['verdict'], string>> = {
  inside: 'Below its limit.',
  close: 'Near its limit.',
  over: 'At its limit: act on it.',
  'not judged': 'Fitted. No limit to judge by.',
}

export const wearBench: BenchClient<'wear'> = {
  name: 'wear',
  title: 'Wear over time',
  answers: 'When what wears or drifts is at its limit',
  ...byTable<'wear'>(FIELDS),
  say: (result) => ({ ...plainSay(result), title: TITLES[result.verdict] ?? 'Calculated.' }),
  Drawing: WearDrawing,
}

const Rows = styled.ol`
  display: grid;
  gap: 4px;
  padding-bottom: 12px;
  li { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; }
  li > :first-child { width: 170px; }
`
