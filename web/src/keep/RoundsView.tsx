import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, bring } from '../api/client'
import { notSent, ofKind, useOutbox } from '../api/outbox'
import { roundOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { Tray } from '../frame/Tray'
import { PlainButton } from '../kit/Button'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { OneStop } from './OneStop'
import { isSeen, moved, nextStop, type Stop } from './round'

/** A walk through the hall: the lines in walking order, each with what is read while it runs. */
export function RoundsView() {
  const { data: round, error } = useQuery(roundOptions)
  const [at, goTo] = useSearchParams()
  const outbox = useOutbox()
  const mayOrder = useMay('add and change lines')
  const unit = useUnit()
  const [order, setOrder] = useState<string[] | null>(null)
  if (!round) return error ? <Lost why={error} /> : null
  const { lines: stops, today } = round
  const seen = (stop: Stop) => isSeen(stop, outbox)
  const done = stops.filter(seen).length
  const chosen = stops.find((stop) => stop.id === at.get('line')) ?? nextStop(stops, '', seen) ?? stops[0]
  const open = (stop: Stop) => goTo({ line: stop.id }, { replace: true })
  const waiting = ofKind(notSent(outbox), 'look').length
  return (
    <Sheet
      title="Round"
      note={`${done} of ${stops.length} looked at today`}
      rail={
        <Walk aria-label="The walk">
          {order ? (
            <Order stops={stops} order={order} change={setOrder} done={() => setOrder(null)} />
          ) : (
            <>
              <ol>
                {stops.map((stop, i) => (
                  <li key={stop.id}>
                    <button type="button" aria-current={stop === chosen || undefined} onClick={() => open(stop)}>
                      <i>{i + 1}</i>
                      <span>
                        {stop.name}
                        <small>{sayStop(stop, seen(stop), today)}</small>
                      </span>
                      {seen(stop) && (
                        <svg width="18" height="18" viewBox="0 0 18 18" role="img" aria-label="looked at">
                          <path d="M2 9l5 6 9-13" fill="none" stroke="var(--blue)" strokeWidth="3" />
                        </svg>
                      )}
                    </button>
                  </li>
                ))}
              </ol>
              <div className="tools">
                {mayOrder && (
                  <PlainButton onPress={() => setOrder(stops.map((stop) => stop.id))}>Change the order</PlainButton>
                )}
                <a href={`/api/rounds/sheet.pdf?unit=${unit}`}>Round sheet to print</a>
                <Link href="/due">To what is due</Link>
              </div>
            </>
          )}
        </Walk>
      }
      strip={
        <>
          {waiting > 0 && <strong role="status">Not sent yet: {waiting}. Kept on this device.</strong>}
          <Tray />
        </>
      }
    >
      {chosen ? (
        <OneStop
          key={chosen.id}
          stop={chosen}
          number={stops.indexOf(chosen) + 1}
          today={today}
          isSeen={seen(chosen)}
          onSaved={() => {
            const next = nextStop(stops, chosen.id, seen)
            if (next) open(next)
          }}
        />
      ) : (
        <p>No line on this site yet.</p>
      )}
    </Sheet>
  )
}

function sayStop(stop: Stop, isSeenToday: boolean, today: string): string {
  if (isSeenToday) return 'looked at today'
  if (stop.open_job) return `in work, job ${stop.open_job}`
  if (stop.due && stop.due < today) return 'overdue'
  return stop.due === today ? 'due today' : ''
}

interface OrderProps {
  stops: readonly Stop[]
  order: string[]
  change: (order: string[]) => void
  done: () => void
}

/** The lines put into the order they are walked in. */
function Order({ stops, order, change, done }: OrderProps) {
  const client = useQueryClient()
  const unit = useUnit()
  const [problem, setProblem] = useState('')
  const save = async () => {
    try {
      await bring(api.PUT('/api/rounds/walk', { body: { lines: order } }))
      await client.invalidateQueries({ queryKey: roundOptions.queryKey })
      done()
    } catch (why) {
      setProblem(sayRefusal(why, unit))
    }
  }
  return (
    <>
      <div className="tools">
        <PlainButton onPress={save}>Save the order</PlainButton>
        <PlainButton onPress={done}>Discard</PlainButton>
        {problem && <p role="alert">{problem}</p>}
      </div>
      <ol>
        {order.map((id, i) => {
          const name = stops.find((stop) => stop.id === id)?.name ?? ''
          return (
            <li key={id} className="order">
              <span>{name}</span>
              <PlainButton aria-label={`${name} earlier`} isDisabled={i === 0} onPress={() => change(moved(order, id, -1))}>
                ↑
              </PlainButton>
              <PlainButton
                aria-label={`${name} later`}
                isDisabled={i === order.length - 1}
                onPress={() => change(moved(order, id, 1))}
              >
                ↓
              </PlainButton>
            </li>
          )
        })}
      </ol>
    </>
  )
}

const Walk = styled.nav`
  li button { display: flex; width: 100%; min-height: max(48px, var(--touch)); align-items: center; gap: 8px; padding: 4px 12px; text-align: left; border-bottom: 0.75px solid var(--line); font-weight: 500; line-height: 1.1; }
  li button > span { flex: 1; min-width: 0; }
  li button[aria-current] { background: var(--ink); color: var(--paper); small { color: inherit; } path { stroke: currentColor; } }
  i { font: 500 var(--fs-small) var(--read); font-style: normal; min-width: 20px; }
  small { display: block; font-weight: 400; font-size: var(--fs-note); color: var(--ink-2); }
  svg { flex: none; }
  .order { display: flex; align-items: center; gap: 4px; padding: 4px 6px 4px 12px; border-bottom: 0.75px solid var(--line); line-height: 1.1; }
  .order > span { flex: 1; min-width: 0; font-weight: 500; }
  .order > button { flex: none; padding: 0; }
  .tools { padding: 12px; display: flex; flex-direction: column; gap: 8px; }
  .tools a { display: flex; align-items: center; min-height: var(--touch); }
  @media (max-width: 860px) {
    ol { display: flex; overflow-x: auto; }
    ol li { flex: none; width: 190px; border-right: 0.75px solid var(--line); }
    ol:has(.order) { display: block; li { width: 100%; } }
    .tools { flex-direction: row; align-items: center; overflow-x: auto; padding: 6px 12px; gap: 16px; > * { flex: none; } }
  }
`
