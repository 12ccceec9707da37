import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { dueOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { RailNav } from '../frame/RailNav'
import { Sheet } from '../frame/Sheet'
import { Choice } from '../kit/Choice'
import { CalendarSlip } from './CalendarSlip'
import { DueRow } from './DueRow'
import { DUE_WORDS, type Due, GROUPS, groupOf } from './due'

const SORTS = ['day', 'line', 'kind'] as const
const SHOWN_AT_ONCE = 80

/** What is due on the site, and when: derived from what was recorded and from the value cards. */
export function DueView() {
  const [sort, setSort] = useState<(typeof SORTS)[number]>('day')
  const [kind, setKind] = useState<Due['kind'] | null>(null)
  const { data, error } = useQuery(dueOptions(sort))
  const [most, setMost] = useState(SHOWN_AT_ONCE)
  if (!data) return error ? <Lost why={error} /> : null
  const { items, today } = data
  const kinds = [...new Set(items.map((item) => item.kind))].sort()
  const shown = items.filter((item) => kind === null || item.kind === kind)
  const late = items.filter((item) => groupOf(item, today) === 'Overdue').length
  const groups =
    sort === 'day'
      ? GROUPS.map((title) => ({ title, of: shown.filter((i) => groupOf(i, today) === title) }))
      : [{ title: '', of: shown }]
  let left = most
  return (
    <Sheet
      title="Due"
      note={`${items.length === 1 ? '1 thing' : `${items.length} things`}, ${late} overdue`}
      rail={
        <RailNav aria-label="Show">
          <button type="button" aria-pressed={kind === null} onClick={() => setKind(null)}>
            <span>Everything due</span>
            <b>{items.length}</b>
          </button>
          {kinds.map((one) => (
            <button key={one} type="button" aria-pressed={kind === one} onClick={() => setKind(one)}>
              <span>{DUE_WORDS[one]}</span>
              <b>{items.filter((item) => item.kind === one).length}</b>
            </button>
          ))}
          <Link href="/rounds">Round through the hall</Link>
          <Link href="/instruments">Instruments</Link>
          <Link href="/reasons">Reasons that repeat</Link>
          <Link href="/">To the floor</Link>
        </RailNav>
      }
    >
      <Tools>
        <Choice
          label="Sorted by"
          options={SORTS}
          words={{ day: 'day', line: 'line', kind: 'what' }}
          value={sort}
          onChange={setSort}
        />
        <CalendarSlip />
      </Tools>
      {items.length === 0 && (
        <Empty>
          Nothing is due. Intervals are on the value card of each line; what was never done in a recorded job has no day yet.
        </Empty>
      )}
      {groups.map(({ title, of }) => {
        const some = of.slice(0, Math.max(left, 0))
        left -= some.length
        return (
          some.length > 0 && (
            <section key={title} aria-label={title || 'Due'}>
              {title && (
                <Head data-late={title === 'Overdue' || undefined}>
                  {title} <span>{of.length}</span>
                </Head>
              )}
              <ul>
                {some.map((item) => (
                  <DueRow key={`${item.line_id ?? item.name} ${item.kind} ${item.on}`} due={item} today={today} />
                ))}
              </ul>
            </section>
          )
        )
      })}
      {data.left_out > 0 && <Empty>{data.left_out} more are due later: sort by line or by what to find them.</Empty>}
      {shown.length > most && (
        <More type="button" onClick={() => setMost(most + SHOWN_AT_ONCE)}>
          Show more: {shown.length - most} left
        </More>
      )}
    </Sheet>
  )
}

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px 24px;
  align-items: end;
  padding: 10px 16px;
  border-bottom: 1.25px solid var(--line);
`
const Head = styled.h2`
  min-height: 34px;
  padding: 0 16px;
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: var(--fs-body);
  font-weight: 600;
  border-bottom: 1.25px solid var(--ink);
  &[data-late] { border-left: 8px solid var(--ink); padding-left: 8px; }
  span { font: 500 var(--fs-small) var(--read); color: var(--ink-2); }
`
const Empty = styled.p`
  padding: 24px 16px;
  max-width: 60ch;
`
const More = styled.button`
  min-height: var(--touch);
  padding: 0 16px;
  text-decoration: underline;
`
