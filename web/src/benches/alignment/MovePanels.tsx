import { type ReactNode, useState } from 'react'
import styled from 'styled-components'
import { shortClock } from '../../drawing/clock'
import { Num } from '../../kit/Allowance'
import { Chevron } from '../../kit/Chevron'
import { Choice } from '../../kit/Choice'
import { EntryCell } from '../../kit/EntryCell'
import { Words } from '../../kit/Field'
import { Tick } from '../../kit/Tick'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { BenchProps } from '../bench'
import type { ResultOf } from '../table'
import { BOTH, BOX, feetOf, MATERIAL, MATERIALS, staysAt, underAt } from './draft'
import { sayPieces, unreadable } from './shims'

type Result = ResultOf<'alignment'>
type Props = Pick<BenchProps<'alignment'>, 'draft' | 'change' | 'problems' | 'preset' | 'result'>

const MACHINES = ['only this machine', 'both machines'] as const

/** What is under the readings and opens on demand: room and shims, growth, what the dials should show cold. */
export function MovePanels(props: Props) {
  const { result } = props
  const grows = result !== null && Object.values(result.growth_mm).some((mm) => mm !== 0)
  return (
    <Panels>
      <Panel title="Room and shims" note={sayPlan(result)}>
        <RoomAndShims {...props} />
      </Panel>
      <Panel title="Growth, cold to running" note={grows ? 'counted in: the moves bring it right when warm' : 'none given'}>
        <Growth {...props} />
      </Panel>
      {result && result.target_readings.length > 0 && (
        <Panel title="Target readings, cold" note="to copy on a sheet">
          <TargetReadings result={result} />
        </Panel>
      )}
    </Panels>
  )
}

function sayPlan(result: Result | null) {
  if (!result || result.plan === undefined) return 'bolt bound, nothing left under a foot, both machines moved'
  if (result.plan === null)
    return result.says?.some((s) => s.code === 'no_room' || s.code === 'no_room_at_all') ? 'not possible' : ''
  return `a plan for ${result.plan.filter((m) => m.shim_mm || m.slide_mm).length} feet`
}

function Panel({ title, note, children }: { title: string; note: string; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  return (
    <section>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <b>{title}</b>
        <span>{note}</span>
        <Chevron isUp={open} />
      </button>
      {open && <div>{children}</div>}
    </section>
  )
}

/** A foot a row: what can be taken out, how far it can slide, and what the plan makes of it. */
function RoomAndShims({ draft, change, problems, preset, result }: Props) {
  const unit = useUnit()
  const feet = feetOf(draft, preset)
  const both = BOTH.of(draft)
  const listed = both ? [...feet.movable, ...feet.stationary] : feet.movable
  const cell = (name: string, way: 'shim' | 'left' | 'right', label: string) => (
    <EntryCell
      label={`${name}, ${label}`}
      typed={draft.cells[`room.${name}.${way}`]}
      onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`room.${name}.${way}`]: typed } })}
      problem={problems[`room.${name}.${way}`]}
      part="aside"
    />
  )
  const move = (name: string) => result?.plan?.find((m) => m.name === name) ?? result?.feet.find((m) => m.name === name)
  const stack = (name: string) => result?.stacks.find((s) => s.name === name)
  return (
    <>
      {feet.stationary.length > 0 && (
        <Choice
          label="Moved is"
          options={MACHINES}
          value={MACHINES[both ? 1 : 0]!}
          onChange={(m) => change(BOTH.put(draft, m === MACHINES[1]))}
        />
      )}
      <table>
        <thead>
          <tr>
            <th>Room left, {unit}</th>
            <th>to take out</th>
            <th>toward 9</th>
            <th>toward 3</th>
            <th>under it now</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {listed.map(({ name }) => (
            <tr key={name}>
              <th>
                {name}
                {move(name) && (
                  <p>
                    shim <Num>{showLength(move(name)!.shim_mm, unit, 2, true)}</Num>, slide{' '}
                    <Num>{showLength(Math.abs(move(name)!.slide_mm), unit)}</Num>{' '}
                    {Math.abs(move(name)!.slide_mm) > 0.0005 && `to ${move(name)!.slide_mm > 0 ? 3 : 9}`}
                    {(stack(name)?.pieces_mm?.length ?? 0) > 0 && (
                      <small>
                        {stack(name)!.was_mm.length > 0 ? 'then ' : 'shims '}
                        {sayPieces(stack(name)?.pieces_mm ?? [], unit)}
                        {Math.abs(stack(name)!.misses_mm) > 0.006 &&
                          `, misses by ${showLength(stack(name)!.misses_mm, unit)}`}
                      </small>
                    )}
                  </p>
                )}
              </th>
              <td>{cell(name, 'shim', 'most that can be taken out')}</td>
              <td>{cell(name, 'left', 'room toward 9')}</td>
              <td>{cell(name, 'right', 'room toward 3')}</td>
              <td className="under">
                <Words
                  label={`${name}, shims under it now`}
                  hideLabel
                  value={underAt(name).of(draft)}
                  onChange={(under) => change(underAt(name).put(draft, under))}
                  problem={unreadable(underAt(name).of(draft))}
                />
              </td>
              <td>
                <Tick
                  label="stays"
                  value={staysAt(name).of(draft)}
                  onChange={(stays) => change(staysAt(name).put(draft, stays))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>Empty: no limit. Shims are the fewest pieces from the box that come close, at most four.</p>
      <Words
        label="Shims in the box"
        unit="mm, or end with in"
        value={BOX.of(draft)}
        problem={unreadable(BOX.of(draft))}
        onChange={(box) => change(BOX.put(draft, box))}
      />
    </>
  )
}

/** Rise of each foot: measured or the maker's; or worked out from height and temperatures. */
function Growth({ draft, change, problems, preset, result }: Props) {
  const unit = useUnit()
  const feet = feetOf(draft, preset)
  if (preset.growth)
    return (
      <p>
        From the line:{' '}
        {Object.entries(preset.growth).map(([name, mm]) => (
          <span key={name}>
            {name} <Num>{showLength(mm, unit, 2, true)}</Num>;{' '}
          </span>
        ))}
      </p>
    )
  const cell = (id: string, label: string, kind: 'length' | 'temperature') => (
    <EntryCell
      label={label}
      typed={draft.cells[id]}
      onType={(typed) => change({ ...draft, cells: { ...draft.cells, [id]: typed } })}
      problem={problems[id]}
      kind={kind}
      part="aside"
      signed={kind === 'length'}
    />
  )
  return (
    <>
      <table>
        <thead>
          <tr>
            <th>Foot</th>
            <th>rises, {unit}</th>
            <th>or height to the shaft</th>
            <th>cold, °C</th>
            <th>running, °C</th>
            <th>rise</th>
          </tr>
        </thead>
        <tbody>
          {[...feet.movable, ...feet.stationary].map(({ name }) => (
            <tr key={name}>
              <th>{name}</th>
              <td>{cell(`rise.${name}`, `${name}, rises from cold to running`, 'length')}</td>
              <td>{cell(`warm.${name}.height`, `${name}, height to the shaft`, 'length')}</td>
              <td>{cell(`warm.${name}.cold`, `${name}, cold`, 'temperature')}</td>
              <td>{cell(`warm.${name}.hot`, `${name}, running`, 'temperature')}</td>
              <td>
                {result?.growth_mm[name] !== undefined && <Num>{showLength(result.growth_mm[name]!, unit, 3, true)}</Num>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Choice
        label="Foot or pedestal of"
        options={MATERIALS}
        value={MATERIAL.of(draft)}
        onChange={(material) => change(MATERIAL.put(draft, material))}
      />
    </>
  )
}

function TargetReadings({ result }: { result: Result }) {
  const unit = useUnit()
  return (
    <ul>
      {result.target_readings.map((ring, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: in the order of the dials
        <li key={i}>
          Dial {i + 1}:{' '}
          {ring.slice(0, 12).map((r) => (
            <span key={r.clock}>
              {shortClock(r.clock)} <Num>{showLength(r.value_mm, unit, 2, true)}</Num>
            </span>
          ))}
        </li>
      ))}
    </ul>
  )
}

const Panels = styled.div`
  border-top: 1.25px solid var(--line);
  > section { border-bottom: 1.25px solid var(--line); }
  > section > button { display: flex; gap: 12px; align-items: center; width: 100%; min-height: var(--touch); padding: 0 16px; text-align: left; }
  > section > button b { font-weight: 600; }
  > section > button span { color: var(--ink-2); font-size: var(--fs-small); flex: 1; }
  > section > div { padding: 0 16px 14px; display: flex; flex-direction: column; gap: 10px; overflow-x: auto; }
  table { border-collapse: collapse; }
  th { text-align: left; font-weight: 500; padding: 3px 12px 3px 0; white-space: nowrap; }
  thead th { font-size: var(--fs-small); color: var(--ink-2); font-weight: 400; }
  td { padding: 3px 12px 3px 0; white-space: nowrap; }
  th small, td small { display: block; color: var(--ink-2); font-family: var(--read); }
  th p { white-space: normal; max-width: 230px; line-height: 1.25; }
  td.under { width: 128px; min-width: 128px; white-space: normal; }
  p { font-size: var(--fs-small); color: var(--ink-2); font-weight: 400; }
  li span { margin-right: 14px; white-space: nowrap; }
`
