import { useNavigate } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { ShaftLine } from '../drawing/ShaftLine'
import { STATE_WORDS } from '../job/states'
import { Bar, Glyph, sayShare, sayStatus } from '../kit/Allowance'
import { MainButton, PlainButton } from '../kit/Button'
import { sinceNow, useServerNow } from '../kit/serverClock'
import { showTime } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'

type Line = Schemas['FloorLine']

/** A line on the floor: drawing, name, where its job stands, one action. */
export function FloorRow({ line, number, isFirst }: { line: Line; number: number; isFirst: boolean }) {
  const navigate = useNavigate()
  const { job, spec } = line
  const go = () => navigate(job ? `/jobs/${job.id}` : `/lines/${line.id}`)
  const key = number < 10 ? `, key ${number}` : ''
  const Action = job && isFirst ? MainButton : PlainButton
  return (
    <Row>
      <ShaftLine spec={spec} />
      <div>
        <a
          href={`/lines/${line.id}`}
          onClick={(event) => {
            event.preventDefault()
            navigate(`/lines/${line.id}`)
          }}
        >
          <b>{line.name}</b>
          <small>
            {spec.coupling.family}
            {job ? `, job ${job.number}` : ''}
          </small>
          {line.asked > 0 && (
            <small>
              <strong>Values asked of the lead: {line.asked}</strong>
            </small>
          )}
        </a>
      </div>
      {job ? <JobState job={job} /> : <Idle line={line} />}
      <Action onPress={go} aria-label={`${job ? 'Carry on with' : 'Open'} ${line.name}${key}`}>
        {job ? 'Carry on' : 'Open'}
      </Action>
    </Row>
  )
}

function JobState({ job }: { job: NonNullable<Line['job']> }) {
  const unit = useUnit()
  const { at, stages } = job
  if (at === null) {
    return (
      <>
        <div>
          <b>Job {job.number} cannot be shown</b>
          <small>What it holds cannot be read here. Its lines are kept; whoever looks after the server sees why.</small>
        </div>
        <div />
      </>
    )
  }
  const done = stages.indexOf(at.stage)
  const words = {
    ...STATE_WORDS,
    waiting: job.to_accept.includes(at.step_title) ? 'the lead is asked to accept it' : STATE_WORDS.waiting,
    open: '',
    'to sign': `${at.signs === 'lead' ? 'lead’s' : 'millwright’s or lead’s'} signature`,
    blocked: sayIn(at.headline, unit),
    done: 'ready to close',
  }[at.state]
  return (
    <>
      <div>
        <b>{at.step_title}</b>
        <small>{words || at.stage}</small>
        <svg width="172" height="16" viewBox="0 0 172 16" role="img" aria-label={`stage ${done + 1} of ${stages.length}`}>
          <path d="M8 8H158" stroke="var(--ink)" strokeWidth="1.25" />
          {stages.map((stage, i) => (
            <circle
              key={stage}
              cx={8 + i * 25}
              cy="8"
              r={i === done ? 5.5 : 4.4}
              fill={i < done ? 'var(--ink)' : i === done ? 'var(--leaf)' : 'var(--paper)'}
              stroke={i === done ? 'var(--blue)' : 'var(--ink)'}
              strokeWidth={i === done ? 3.2 : 1.25}
            />
          ))}
        </svg>
      </div>
      <div>
        {job.read_in && <small>Read in from a file: a lead takes it over first.</small>}
        {job.hot_hub && <HotHub hub={job.hot_hub} now={job.now} />}
        {job.held.map(({ what, by }) => (
          <small key={what}>
            {what} held by: <strong>{by}</strong>
          </small>
        ))}
        {!job.hot_hub && at.used !== null && at.verdict && (
          <>
            <small>{at.of}</small>
            <Bar used={at.used} width={190} />
            <span className="foot">
              <Glyph status={at.verdict} proven={at.proven} /> <b>{sayStatus({ status: at.verdict, proven: at.proven })}</b>{' '}
              {sayShare(at.used)} limit
            </span>
          </>
        )}
      </div>
    </>
  )
}

const UNTIL = {
  'hub grips': ['until it may grip', 'it may have gripped'],
  'carry ends': ['left to carry it', 'past what it may be carried'],
  'hub is hot': ['until the hub is hot', 'past ready time'],
  'hub is cold': ['until the hub is cold', 'the hub should be cold'],
} as const

/** A hub is hot somewhere: how long until what is waited for, so that the lead sees when the next step can start. */
function HotHub({ hub, now }: { hub: Schemas['HotHub']; now: string }) {
  const left = sinceNow(hub.at, useServerNow(now))
  return (
    <Timer role="timer" aria-label={`Until the ${hub.until}`}>
      {showTime(Math.abs(left))} <small>{UNTIL[hub.until][left > 0 ? 0 : 1]}</small>
    </Timer>
  )
}

function Idle({ line }: { line: Line }) {
  const closed = line.last_closed
    ? new Date(line.last_closed).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
    : null
  return (
    <>
      <div>
        <b>No open job</b>
        <small>{closed ? `last record closed ${closed}` : 'no record here yet'}</small>
      </div>
      <div />
    </>
  )
}

const Timer = styled.div`
  font: 600 var(--fs-figure)/1 var(--read);
  small { font: 400 var(--fs-small) var(--text); }
`
const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(180px, 292px) minmax(140px, 1fr) minmax(180px, 240px) 196px 100px;
  gap: 12px;
  align-items: center;
  min-height: 82px;
  padding: 4px 12px 4px 10px;
  border-bottom: 0.75px solid var(--line);
  > svg { width: 100%; display: block; }
  a { display: inline-block; min-height: var(--touch); min-width: var(--touch); text-decoration: none; }
  a:hover b { text-decoration: underline; }
  a b { font-size: var(--fs-sub); font-weight: 600; }
  b { font-weight: 500; font-size: var(--fs-body); line-height: 1.15; display: block; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); line-height: 1.2; }
  .foot { display: flex; gap: 6px; align-items: center; font-size: var(--fs-small); }
  .foot b { font-size: var(--fs-text); font-weight: 600; }
  .bar { display: block; margin: 2px 0; }
  button { padding: 0 8px; font-size: var(--fs-body); min-height: max(48px, var(--touch)); }
  @media (max-width: 1100px) { grid-template-columns: minmax(150px, 200px) minmax(120px, 1fr) minmax(150px, 200px) 150px 92px; .bar { width: 150px; } }
  @media (max-width: 860px) { grid-template-columns: 1fr 100px; > svg, > div:nth-of-type(n + 2) { grid-column: 1 / -1; } }
`
