import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { Input, Link, SearchField } from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { post, Refused, type Schemas } from '../api/client'
import { dueCountOptions, floorOptions, sessionOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { RailNav } from '../frame/RailNav'
import { Sheet } from '../frame/Sheet'
import { Tray } from '../frame/Tray'
import { PlainButton } from '../kit/Button'
import { FileButton } from '../kit/FileButton'
import { useKeys } from '../kit/useKeys'
import { useMay } from '../session/may'
import { FloorRow } from './FloorRow'

type Line = Schemas['FloorLine']

const SHOWS = {
  all: { title: 'All lines', holds: () => true },
  open: { title: 'Open jobs', holds: (line: Line) => line.job !== null },
  sign: { title: 'Waiting to be signed', holds: (line: Line) => !!line.job?.to_sign.length },
  out: { title: 'Out of tolerance', holds: (line: Line) => line.job?.at?.verdict === 'over' },
  hot: { title: 'Hot hubs', holds: (line: Line) => !!line.job?.hot_hub },
  asked: { title: 'Questions to the lead', holds: (line: Line) => !!line.job?.questions },
} as const
type Show = keyof typeof SHOWS
const SHOWN_AT_ONCE = 60 // rows of a group; a site may have thousands

/** The floor: every line of the site as a small shaft drawing with its state in words and its open job. */
export function Floor() {
  const { data: lines, error } = useQuery({ ...floorOptions, refetchInterval: 15_000 })
  const late = useQuery(dueCountOptions).data?.late ?? 0
  const site = useQuery(sessionOptions).data?.site.name ?? ''
  const [mayAdd, mayReadIn] = [useMay('add and change lines'), useMay('read in jobs')]
  const [show, setShow] = useState<Show>('all')
  const [find, setFind] = useState('')
  const search = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  const found = useMemo(
    () => (lines ?? []).filter((line) => SHOWS[show].holds(line) && matches(line, find)),
    [lines, show, find],
  )
  const open = found.filter((line) => line.job)
  const idle = found.filter((line) => !line.job)
  const order = [...open, ...idle]
  const goTo = (line: Line) => navigate(line.job ? `/jobs/${line.job.id}` : `/lines/${line.id}`)
  useKeys({
    '/': () => search.current?.focus(),
    n: () => navigate('/lines/new'),
    b: () => navigate('/benches'),
    d: () => navigate('/due'),
    r: () => navigate('/rounds'),
    ...Object.fromEntries(order.slice(0, 9).map((line, i) => [String(i + 1), () => goTo(line)])),
  })
  if (!lines) return error ? <Lost why={error} /> : null
  const jobs = lines.filter((line) => line.job).length
  return (
    <Sheet
      title={site}
      note={`${lines.length} lines, ${jobs === 1 ? '1 open job' : `${jobs} open jobs`}`}
      tools={
        <Find aria-label="Find a line, coupling or job" value={find} onChange={setFind}>
          <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
            <circle cx="8" cy="8" r="6" fill="none" stroke="var(--ink)" strokeWidth="2" />
            <path d="M12.5 12.5L18.5 18.5" stroke="var(--ink)" strokeWidth="2.4" />
          </svg>
          <Input ref={search} placeholder="Find a line, coupling or job" />
        </Find>
      }
      rail={
        <Rail aria-label="Show">
          {(Object.keys(SHOWS) as Show[]).map((key) => (
            <button key={key} type="button" aria-pressed={show === key} onClick={() => setShow(key)}>
              <span>{SHOWS[key].title}</span>
              <b>{lines.filter(SHOWS[key].holds).length}</b>
            </button>
          ))}
          <Link href="/due">
            <span>Due</span>
            <b>{late > 0 ? `${late} late` : ''}</b>
          </Link>
          <Link href="/rounds">Round</Link>
          <Link href="/benches">Quick benches</Link>
          <Link href="/catalogue">Catalogue</Link>
          {mayAdd && <Link href="/lines/new">Add a line</Link>}
          {mayReadIn && <ReadIn />}
        </Rail>
      }
      strip={<Tray />}
      keys={[
        ['/', 'find'],
        ['1 to 9', 'open a line'],
        ['N', 'new line'],
        ['B', 'benches'],
        ['D', 'due'],
        ['R', 'round'],
      ]}
    >
      {found.length === 0 && <Empty>Nothing on this floor matches.</Empty>}
      {open.length > 0 && <Group title="Open jobs" lines={open} first={1} />}
      {idle.length > 0 && <Group title="Running or at rest" note="no open job" lines={idle} first={open.length + 1} />}
    </Sheet>
  )
}

function Group({ title, note, lines, first }: { title: string; note?: string; lines: Line[]; first: number }) {
  const [most, setMost] = useState(SHOWN_AT_ONCE)
  return (
    <section>
      <Head>
        {title}
        {note && <span>{note}</span>}
      </Head>
      <ul>
        {lines.slice(0, most).map((line, i) => (
          <FloorRow key={line.id} line={line} number={first + i} isFirst={first === 1 && i === 0} />
        ))}
      </ul>
      {lines.length > most && (
        <More>
          <PlainButton onPress={() => setMost(most + SHOWN_AT_ONCE)}>
            Show more: {lines.length - most} {lines.length - most === 1 ? 'line' : 'lines'} left
          </PlainButton>
        </More>
      )}
    </section>
  )
}

function matches(line: Line, find: string) {
  const words = `${line.name} ${line.spec.coupling.family} ${line.spec.coupling.series} ${line.spec.coupling.size} ${line.job ? `job ${line.job.number} ${line.job.title}` : ''}`
  return find
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((part) => words.toLowerCase().includes(part))
}

/** A job file from another installation; a file that is wrong changes nothing and says where. */
function ReadIn() {
  const [problem, setProblem] = useState('')
  const client = useQueryClient()
  const navigate = useNavigate()
  const read = async (chosen: File) => {
    try {
      const job = await post<Schemas['JobOut']>('/api/records', chosen)
      await client.invalidateQueries({ queryKey: floorOptions.queryKey })
      navigate(`/jobs/${job.id}/record`)
    } catch (why) {
      setProblem(why instanceof Refused ? why.placed.join(' ') : String(why))
    }
  }
  return (
    <div className="read-in">
      <FileButton label="Read a job in" file="Job file" accept=".json,application/json" onFile={read} />
      {problem && <p role="alert">Nothing was read in. {problem}</p>}
    </div>
  )
}

const Find = styled(SearchField)`
  display: flex;
  align-items: center;
  flex: 0 1 330px;
  margin: auto 14px auto 0;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
  padding: 0 12px;
  gap: 10px;
  min-width: 120px;
  @media (max-width: 860px) { order: 4; flex: 1 1 100%; margin: 0; border-width: 1.25px 0 0; }
  input { flex: 1; min-width: 0; min-height: var(--touch); outline: none; }
  input::placeholder { color: var(--ink-2); opacity: 1; }
  &:focus-within { outline: 3px solid var(--blue); outline-offset: -1px; }
`
const Rail = styled(RailNav)`
  .read-in { padding: 12px 14px; }
  p { font-size: var(--fs-small); font-weight: 600; margin-top: 6px; overflow-wrap: anywhere; }
`
const Head = styled.h2`
  min-height: 34px;
  padding: 0 16px;
  display: flex;
  align-items: center;
  font-size: var(--fs-body);
  font-weight: 600;
  border-bottom: 1.25px solid var(--ink);
  span { font-weight: 400; color: var(--ink-2); font-size: var(--fs-small); margin-left: 10px; }
`
const More = styled.div`
  padding: 10px 16px;
`
const Empty = styled.p`
  padding: 28px 16px;
`
