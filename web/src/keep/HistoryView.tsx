import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import { useParams } from 'react-router'
import styled from 'styled-components'
import { post, Refused, type Schemas } from '../api/client'
import { historyOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { TopLinks } from '../frame/TopLinks'
import { PlainButton } from '../kit/Button'
import { FileButton } from '../kit/FileButton'
import { saveAs } from '../kit/saveAs'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayProblem } from '../units/say'
import { sayWhen } from '../units/when'
import { AsLeft } from './AsLeft'
import { CompareJobs } from './CompareJobs'
import { PastJobs } from './PastJobs'
import { PastLooks } from './PastLooks'
import { SeriesPart } from './SeriesPart'

/** What a line has been through: how it was left, its readings over the years, each job in a row, two of them side by side. */
export function HistoryView() {
  const { lineId = '' } = useParams()
  const { data: history, error } = useQuery(historyOptions(lineId))
  const mayKeep = useMay('add and change lines')
  if (!history) return error ? <Lost why={error} /> : null
  const { jobs, aside, looks, series, as_left, today, name } = history
  return (
    <Sheet
      title={name}
      tab="History"
      note="What it has been through"
      tools={
        <TopLinks>
          <Link href={`/lines/${lineId}`}>The line</Link>
          <a href={`/api/history/${lineId}/csv`}>CSV</a>
        </TopLinks>
      }
    >
      <Page>
        {as_left && <AsLeft left={as_left} />}
        <section>
          <h2>Readings over the years</h2>
          {series.length === 0 && <p>Nothing was read here twice yet. Rounds and jobs fill this in.</p>}
          {series.map((one) => (
            <SeriesPart key={one.key} series={one} today={today} />
          ))}
          {mayKeep && <TakeIn lineId={lineId} />}
        </section>
        {looks.length > 0 && (
          <section>
            <h2>Rounds</h2>
            <PastLooks looks={looks} />
          </section>
        )}
        <section>
          <h2>Jobs</h2>
          <PastJobs jobs={jobs} />
          {aside.length > 0 && (
            <>
              <h3>Nothing here goes by these</h3>
              <ul className="aside">
                {aside.map((one) => (
                  <li key={one.id}>
                    <Link href={`/jobs/${one.id}/record`}>
                      Job {one.number}, {one.title}
                    </Link>{' '}
                    <b>{one.said}</b>, {sayWhen(one.closed)}
                  </li>
                ))}
              </ul>
            </>
          )}
        </section>
        {jobs.length > 1 && (
          <section>
            <h2>Two jobs side by side</h2>
            <CompareJobs jobs={jobs} />
          </section>
        )}
      </Page>
    </Sheet>
  )
}

const MOST_SAID = 5
const COLUMNS = {
  mm: 'at,wear_mm,temperature_c,vibration_mm_per_s,hours',
  in: 'at,wear_in,temperature_c,vibration_in_per_s,hours',
}

/** Earlier readings from a file, all of it or nothing. */
function TakeIn({ lineId }: { lineId: string }) {
  const client = useQueryClient()
  const unit = useUnit()
  const [said, setSaid] = useState('')
  const [problem, setProblem] = useState('')
  const [asksBack, setAsksBack] = useState<File | null>(null)
  const read = async (chosen: File, confirmed = false) => {
    setSaid('Reading it …')
    setProblem('')
    setAsksBack(null)
    try {
      const as = confirmed ? '?confirmed=true' : ''
      const { readings } = await post<Schemas['LooksTakenOut']>(`/api/rounds/${lineId}/file${as}`, chosen)
      await client.invalidateQueries()
      setSaid(
        readings === 0
          ? 'Every reading in it was here already.'
          : `${readings} ${readings === 1 ? 'reading was' : 'readings were'} taken in.`,
      )
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setSaid('')
      const goesBack = why.problems.filter((p) => p.code === 'goes back')
      if (goesBack.length === why.problems.length) setAsksBack(chosen)
      const placed = goesBack.length > 0 ? goesBack.map((p) => `${p.path}: ${sayProblem(p, unit)}`) : why.placed
      setProblem(`Nothing was taken in. ${placed.slice(0, MOST_SAID).join(' ')}`)
    }
  }
  return (
    <div className="take-in">
      <FileButton
        label="Take earlier readings in"
        file="File of readings"
        accept=".csv,text/csv"
        onFile={(file) => read(file)}
      />
      <PlainButton onPress={() => saveAs('readings.csv', `${COLUMNS[unit]}\n`, 'text/csv')}>
        Empty file to fill in
      </PlainButton>
      <p>A line a reading: its day, and of the figures what there is.</p>
      {said && <p role="status">{said}</p>}
      {problem && <p role="alert">{problem}</p>}
      {asksBack && <PlainButton onPress={() => read(asksBack, true)}>They are as read: take them in</PlainButton>}
    </div>
  )
}

const Page = styled.div`
  padding-bottom: 24px;
  > section { padding: 12px 16px 4px; border-bottom: 1.25px solid var(--line); }
  > section > h2 { font-size: var(--fs-sub); font-weight: 600; margin-bottom: 6px; }
  .aside li { padding: 8px 0; border-top: 1px solid var(--line); }
  .aside a { display: inline-block; min-height: 44px; align-content: center; }
  .take-in { display: flex; flex-wrap: wrap; align-items: center; gap: 6px 16px; padding: 8px 0 12px; font-size: var(--fs-small); color: var(--ink-2); }
  .take-in [role='alert'] { flex-basis: 100%; font-weight: 600; color: var(--ink); }
`
