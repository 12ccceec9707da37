import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, bring, type Schemas } from '../api/client'
import { catalogueOptions, floorOptions, lineJobsOptions, lineOptions } from '../api/queries'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { DueHere } from '../keep/DueHere'
import { Num } from '../kit/Allowance'
import { MainButton, PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { useMay } from '../session/may'
import { type LengthUnit, showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { sayWhen } from '../units/when'
import { askedBy, asksOf } from './asked'
import { CancelJob } from './CancelJob'
import { LineChanges } from './LineChanges'
import { LineDrawing } from './LineDrawing'
import { Requests } from './Requests'
import { ValueLines } from './ValueLines'

const UNITS = ['mm', 'in'] as const

/** A line: both machines, the coupling with its limits and their sources, the jobs done on it. */
export function LineView() {
  const { lineId = '' } = useParams()
  const unit = useUnit()
  const navigate = useNavigate()
  const client = useQueryClient()
  const { data: line, error } = useQuery(lineOptions(lineId))
  const jobs = useQuery(lineJobsOptions(lineId)).data ?? []
  const [mayKeep, mayStart, mayCancel] = [useMay('add and change lines'), useMay('start jobs'), useMay('cancel jobs')]
  const catalogue = useQuery(catalogueOptions).data
  const [title, setTitle] = useState('')
  const asked = useSearchParams()[0].get('scope') as Schemas['Scope'] | null
  const [picked, setScope] = useState<Schemas['Scope'] | null>(null)
  const scope = picked ?? asked ?? 'fit it'
  const [recordIn, setRecordIn] = useState<LengthUnit>(unit)
  const [problem, setProblem] = useState('')
  if (!line) return error ? <Lost why={error} /> : null
  const { spec } = line
  // What is due has a way of its own: from the list above, with its few steps chosen.
  const scopes = line.scopes.filter((one) => one !== 'do what is due')
  const open = jobs.find((job) => !job.closed)
  const start = async () => {
    try {
      const job = await bring(
        api.POST('/api/jobs/of-line/{line_id}', {
          params: { path: { line_id: lineId } },
          body: { title: title.trim(), scope, unit: recordIn },
        }),
      )
      client.invalidateQueries({ queryKey: floorOptions.queryKey })
      navigate(`/jobs/${job.id}`)
    } catch (why) {
      setProblem(sayRefusal(why, unit))
    }
  }
  return (
    <Sheet title={line.name} note={`${spec.driver.name} to ${spec.driven.name.toLowerCase()}, ${spec.coupling.family}`}>
      <Page>
        <div className="drawing">
          <LineDrawing spec={spec} />
        </div>
        <section>
          <DueHere lineId={lineId} name={line.name} open={!!open} />
        </section>
        <section>
          <Requests
            requests={line.requests}
            decide={(id, accept) =>
              bring(
                api.POST('/api/lines/{line_id}/requests/{request_id}', {
                  params: { path: { line_id: lineId, request_id: id } },
                  body: { accept },
                }),
              )
            }
          />
          <h2>Work</h2>
          {open ? (
            <>
              <p>
                Job {open.number} is open: {open.title}, started {sayWhen(open.started_at)} by {open.started_by}.
              </p>
              <MainButton onPress={() => navigate(`/jobs/${open.id}`)}>Carry on with job {open.number}</MainButton>
              {mayCancel && <CancelJob jobId={open.id} number={open.number} lineId={lineId} />}
            </>
          ) : mayStart ? (
            <>
              <Words
                label="What is to be done"
                value={title}
                onChange={setTitle}
                problem={problem}
                detail="New element; both hubs; alignment check …"
              />
              <Choice label="The coupling" options={scopes} value={scope} onChange={setScope} />
              <Choice
                label="Record in"
                options={UNITS}
                words={{ mm: 'mm', in: 'inch' }}
                value={recordIn}
                onChange={setRecordIn}
              />
              <MainButton isDisabled={!title.trim()} onPress={start}>
                Start a job
              </MainButton>
            </>
          ) : (
            <p>A millwright or the lead starts a job.</p>
          )}
          {mayKeep && <PlainButton onPress={() => navigate(`/lines/${line.id}/edit`)}>Change this line</PlainButton>}
          {mayKeep && (
            <PlainButton onPress={() => navigate(`/lines/new?like=${line.id}`)}>New line like this one</PlainButton>
          )}
          <h2>History</h2>
          <PlainButton onPress={() => navigate(`/lines/${line.id}/history`)}>All it has been through</PlainButton>
          {jobs.length === 0 && <p>No job on this line yet.</p>}
          <ul>
            {jobs.map((job) => (
              <li key={job.id}>
                <Link href={`/jobs/${job.id}/record`}>
                  Job {job.number}, {job.title}
                </Link>
                <small>
                  {sayWhen(job.started_at)}, {job.started_by}; {job.read_in && 'read in from a file, not taken over; '}
                  {job.cancelled_because ? `cancelled: ${job.cancelled_because}` : job.closed ? 'closed' : 'open'}
                </small>
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2>Machines</h2>
          {(['driver', 'driven'] as const).map((side) => {
            const machine = spec[side]
            return (
              <div className="machine" key={side}>
                <h3>
                  {machine.name}{' '}
                  <span>
                    {side}, {spec.movable === side ? 'is moved' : 'stays'}
                  </span>
                </h3>
                <p>
                  {machine.power_kw ? `${machine.power_kw} kW, ` : ''}
                  {machine.serial && `no. ${machine.serial}, `}
                  {spec.speed_rpm} rpm, shaft <Num>{showLength(machine.shaft_diameter_mm, unit, 1)}</Num> {unit}
                </p>
                {machine.feet.map((foot) => (
                  <p key={foot.name}>
                    {foot.name}: <Num>{showLength(foot.from_coupling_mm, unit, 0)}</Num> {unit} from the coupling
                  </p>
                ))}
              </div>
            )
          })}
          <h2>Coupling</h2>
          <p>
            {spec.coupling.series} {spec.coupling.size}, {spec.coupling.family}; hubs {spec.coupling.driver_hub.connection}{' '}
            and {spec.coupling.driven_hub.connection}
          </p>
          {spec.purpose && <p>{spec.purpose}</p>}
          <ValueLines
            keys={[...new Set([...askedBy(catalogue, asksOf(spec)), ...Object.keys(line.values)])]}
            card={line.values}
            onSave={() => {}}
            canEdit={false}
          />
          <LineChanges lineId={lineId} />
        </section>
      </Page>
    </Sheet>
  )
}

const Page = styled.div`
  display: grid;
  grid-template-columns: 390px 310px minmax(0, 1fr);
  .drawing { grid-column: 1 / -1; border-bottom: 1.25px solid var(--ink); padding: 12px 16px; }
  .drawing svg { display: block; width: min(100%, 1000px); margin: 0 auto; }
  section { padding: 12px 16px 24px; display: flex; flex-direction: column; gap: 8px; }
  section + section { border-left: 1.25px solid var(--line); }
  h2 { font-size: var(--fs-sub); font-weight: 600; border-bottom: 1.25px solid var(--ink); margin-top: 8px; }
  h3 { font-size: var(--fs-body); font-weight: 600; }
  h3 span { font-weight: 400; color: var(--ink-2); }
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
  li { padding: 4px 0; border-bottom: 0.75px solid var(--line); }
  li a { display: inline-flex; min-height: var(--touch); align-items: center; }
  @media (max-width: 1180px) {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    section:last-child { grid-column: 1 / -1; border-left: 0; border-top: 1.25px solid var(--line); }
  }
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); section + section { border-left: 0; border-top: 1.25px solid var(--line); } }
`
