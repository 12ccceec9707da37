import { useState } from 'react'
import { Link } from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { sayDay } from '../drawing/overTime'
import { PlainButton } from '../kit/Button'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { DUE_WORDS, type Due, groupOf, sayDays, sayPutOff } from './due'
import { PutOff } from './PutOff'
import { StartUpkeep } from './StartUpkeep'

/** One thing that is due: when, on which line, what it follows from, and the one press that does it. */
export function DueRow({ due, today, onLine = false }: { due: Due; today: string; onLine?: boolean }) {
  const unit = useUnit()
  const mayPutOff = useMay('put off what is due')
  const [putsOff, setPutsOff] = useState(false)
  const isLate = groupOf(due, today) === 'Overdue'
  const { line_id, on } = due
  return (
    <Row data-late={isLate || undefined} data-here={onLine || undefined}>
      {!onLine && (
        <div className="day">
          <b>{sayDays(on, today)}</b>
          {on && <small>{sayDay(on)}</small>}
        </div>
      )}
      <div className="what">
        <b>
          {!onLine && (line_id ? <Link href={`/lines/${line_id}`}>{due.name}</Link> : due.name)}
          {!onLine && ': '}
          {onLine ? DUE_WORDS[due.kind] : DUE_WORDS[due.kind].toLowerCase()}
          {onLine && `: ${sayDays(on, today)}${on ? `, ${sayDay(on)}` : ''}`}
        </b>
        <small>{sayIn(due.why, unit)}</small>
        {due.was && <small>{sayPutOff(due)}</small>}
      </div>
      <div className="does">
        <Does due={due} />
        {mayPutOff && line_id && on && due.kind !== 'seen on the round' && (
          <PlainButton
            aria-label={`Put off: ${due.name}, ${DUE_WORDS[due.kind].toLowerCase()}`}
            onPress={() => setPutsOff(true)}
          >
            Put off
          </PlainButton>
        )}
      </div>
      {putsOff && line_id && on && <PutOff due={{ ...due, line_id, on }} onClose={() => setPutsOff(false)} />}
    </Row>
  )
}

/** What does it: the job that is open already, a round, a short job, a job of its own, the register of instruments. */
function Does({ due }: { due: Due }) {
  const navigate = useNavigate()
  const mayStart = useMay('start jobs')
  const [starts, setStarts] = useState(false)
  const { line_id, open_job, task, scope } = due
  const of = `${due.name}, ${DUE_WORDS[due.kind].toLowerCase()}`
  if (due.kind === 'calibration') return <PlainButton onPress={() => navigate('/instruments')}>Instruments</PlainButton>
  if (due.kind === 'round') return <PlainButton onPress={() => navigate(`/rounds?line=${line_id}`)}>To the round</PlainButton>
  if (open_job) {
    return <PlainButton onPress={() => navigate(`/jobs/${open_job.id}`)}>Job {open_job.number}, open</PlainButton>
  }
  if (!mayStart || !line_id) return null
  if (!task) {
    const to = `/lines/${line_id}?scope=${encodeURIComponent(scope ?? '')}`
    return <PlainButton onPress={() => navigate(to)}>Start a job</PlainButton>
  }
  return (
    <>
      <PlainButton aria-label={`Start a job: ${of}`} onPress={() => setStarts(true)}>
        Start a job
      </PlainButton>
      {starts && <StartUpkeep lineId={line_id} name={due.name} first={[task]} onClose={() => setStarts(false)} />}
    </>
  )
}

const Row = styled.li`
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: center;
  padding: 8px 16px;
  border-bottom: 0.75px solid var(--line);
  line-height: 1.25;
  &[data-late] { border-left: 8px solid var(--ink); padding-left: 8px; }
  &[data-here] { grid-template-columns: minmax(0, 1fr); padding-right: 0; .does { justify-content: flex-start; } }
  &[data-here]:not([data-late]) { padding-left: 0; }
  b { font-weight: 600; }
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); overflow-wrap: anywhere; }
  .what a { display: inline-flex; min-height: var(--touch); align-items: center; margin: -10px 0; }
  .does { display: flex; flex-wrap: wrap; gap: 8px; justify-content: flex-end; }
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); .does { justify-content: flex-start; } .day { display: flex; gap: 10px; align-items: baseline; } }
`
