import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { historyOptions, lineDueOptions, lineOptions } from '../api/queries'
import { sayReached } from '../drawing/TrendChart'
import { PlainButton } from '../kit/Button'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { DueRow } from './DueRow'
import { StartUpkeep } from './StartUpkeep'

/** What whoever scans the label on the guard wants first: as it was left, what is due, a job for it. */
export function DueHere({ lineId, name, open }: { lineId: string; name: string; open: boolean }) {
  const unit = useUnit()
  const due = useQuery(lineDueOptions(lineId)).data
  const history = useQuery(historyOptions(lineId)).data
  const tasks = useQuery(lineOptions(lineId)).data?.tasks ?? []
  const mayStart = useMay('start jobs')
  const [starts, setStarts] = useState(false)
  const left = history?.as_left
  const trends = history?.series.filter((one) => one.limit !== null && one.trend.reached?.earliest) ?? []
  return (
    <Part>
      <h2>Due</h2>
      {due?.items.length === 0 && <p>Nothing is due here.</p>}
      <ul>
        {due?.items.map((item) => (
          <DueRow key={`${item.kind} ${item.on}`} due={item} today={due.today} onLine />
        ))}
      </ul>
      {mayStart && !open && tasks.length > 0 && (
        <div>
          <PlainButton onPress={() => setStarts(true)}>Do what is due</PlainButton>
        </div>
      )}
      {starts && (
        <StartUpkeep
          lineId={lineId}
          name={name}
          first={tasks.filter((task) => due?.items.some((item) => item.task === task && (item.on ?? '') <= due.today))}
          onClose={() => setStarts(false)}
        />
      )}
      {left && (
        <>
          <h2>Last as left</h2>
          <ul className="left">
            {left.figures.map((one) => (
              <li key={one.what}>
                <span>{one.what}</span>
                <b>{sayIn(one.left, unit)}</b>
              </li>
            ))}
          </ul>
          <p>
            <Link href={`/jobs/${left.job}/record`}>Job {left.number}</Link>
          </p>
        </>
      )}
      {trends.map((one) => (
        <p key={one.key}>
          {one.title}: limit reached {sayReached(one.trend)}
        </p>
      ))}
      <p>
        <a href={`/api/labels/${lineId}.svg`} target="_blank" rel="noreferrer">
          Label for the guard
        </a>{' '}
        <a href={`/api/labels/sheet.pdf?line=${lineId}`}>as PDF</a>
      </p>
    </Part>
  )
}

const Part = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  .left li { display: flex; justify-content: space-between; gap: 10px; }
  .left b { font: 600 var(--fs-text) var(--read); white-space: nowrap; }
  a { display: inline-flex; align-items: center; min-height: var(--touch); min-width: var(--touch); }
`
