import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { BenchClient, BenchProps, Preset } from '../bench'
import type { Draft } from '../draft'
import { LabelledCell } from '../parts'
import { RingReadings } from '../ringReadings'
import { AlignmentViews, type TwoMachines } from './AlignmentViews'
import { Brackets } from './Brackets'
import { feetOf, read, restore, start, streamOf, withUsualPlaces } from './draft'
import { LaserSweep } from './LaserSweep'
import { MovePanels } from './MovePanels'
import { METHOD_WORDS, METHODS, type Method, methodOf, POSITIVE, TURNED } from './methods'

type Result = Schemas['AlignmentResult']
type Foot = Schemas['Foot']

const SHOWN_FROM_MM = 0.005

function machinesOf(preset: Preset, spec: Schemas['LineSpec'] | null, draft: Draft): TwoMachines {
  if (spec) {
    const side = (which: 'driver' | 'driven') => ({
      name: spec[which].name,
      feet: spec[which].feet.map((f) => ({ name: f.name, from: f.from_coupling_mm })),
    })
    const movable = spec.movable as 'driver' | 'driven'
    return {
      movable: side(movable),
      stationary: side(movable === 'driver' ? 'driven' : 'driver'),
      movableLeft: movable === 'driver',
    }
  }
  const { movable, stationary } = feetOf(draft, preset)
  const placed = (feet: Foot[]) => feet.map((f) => ({ name: f.name, from: Math.abs(f.x_mm) }))
  return {
    movable: { name: 'Movable', feet: placed(movable) },
    stationary: { name: 'Stationary', feet: stationary.length ? placed(stationary) : [{ name: '', from: 300 }] },
    movableLeft: true,
  }
}

/** Rim and face, or two rims, at any clock places: cells on the rings, both views moving with each key. */
function AlignmentDrawing(props: BenchProps<Result>) {
  const { draft, change, preset, result, problems, spec, stream } = props
  const method = methodOf(draft)
  const dials = METHODS[method]
  const machines = machinesOf(preset, spec, draft)
  const placed = withUsualPlaces(draft)
  const choose = (key: string, value: unknown) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
  const where = (on: string) => machines[on as 'movable' | 'stationary'].name.toLowerCase()
  return (
    <div>
      <AlignmentViews machines={machines} result={result} />
      <Entry>
        {method === 'laser' && <LaserSweep draft={draft} change={change} stream={stream} result={result} />}
        {(method === 'laser' && streamOf(draft, 0).length > 0 ? [] : dials).map((dial, i) => {
          const name = dial.name
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a method's dials stand in a fixed order
            <div key={`${method}${i}`}>
              <RingReadings
                signed
                name={name}
                note={dial.kind === 'face' ? 'on the face' : 'as read'}
                prefix={`d${i}.at`}
                placesKey={`d${i}.clocks`}
                draft={draft}
                change={change}
                problems={problems}
              />
              {'opposite' in dial && dial.opposite && (
                <RingReadings
                  signed
                  name="Second face"
                  note="half a turn on"
                  prefix={`d${i}.far`}
                  placesKey={`d${i}.clocks`}
                  draft={draft}
                  change={change}
                  problems={problems}
                />
              )}
              <p>
                Bracket on the {where(dial.bracket_on)} shaft, stem on the{' '}
                {where(dial.bracket_on === 'stationary' ? 'movable' : 'stationary')} hub. + is stem{' '}
                {draft.choices.positive === 'out' ? 'let out' : 'pushed in'}.
              </p>
            </div>
          )
        })}
        <Setup>
          <Choice
            hideLabel
            label="Method"
            options={Object.keys(METHODS) as Method[]}
            words={METHOD_WORDS}
            value={method}
            onChange={(m) => choose('method', m)}
          />
          {method !== 'laser' && <Closure dials={dials.map((d) => d.name)} closure={result?.closure_mm ?? []} />}
          {dials.map((dial, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a method's dials stand in a fixed order
            <div className="cells" key={`${method} set-up ${i}`}>
              <LabelledCell
                cell={`d${i}.x`}
                label={`${dial.name}: stem from coupling`}
                part="set-up"
                draft={placed}
                change={change}
                problems={problems}
                width={84}
              />
              {dial.kind === 'face' && (
                <LabelledCell
                  cell={`d${i}.radius`}
                  label={`${dial.name}: radius of the stem`}
                  part="set-up"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              )}
              {dial.sags && (
                <LabelledCell
                  cell={`d${i}.sag`}
                  label={`${dial.name}: bracket sag at 6`}
                  part="aside"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              )}
            </div>
          ))}
          <Brackets draft={draft} change={change} />
          {!('movable_feet' in preset) && (
            <div className="cells">
              <LabelledCell
                cell="foot.near"
                label="Near feet from coupling"
                part="set-up"
                draft={draft}
                change={change}
                problems={problems}
                width={84}
              />
              <LabelledCell
                cell="foot.far"
                label="Far feet from coupling"
                part="set-up"
                draft={draft}
                change={change}
                problems={problems}
                width={84}
              />
              {(['near', 'far'] as const).map((which) => (
                <LabelledCell
                  key={which}
                  cell={`foot.other_${which}`}
                  label={`Other machine, ${which} feet`}
                  part="aside"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              ))}
            </div>
          )}
          <Choice
            label="Plus on these dials is the stem pushed"
            options={POSITIVE}
            value={(draft.choices.positive as (typeof POSITIVE)[number]) ?? 'in'}
            onChange={(p) => choose('positive', p)}
          />
          <Choice
            label="Turned while reading"
            options={TURNED}
            value={(draft.choices.turned as (typeof TURNED)[number]) ?? 'both'}
            onChange={(t) => choose('turned', t)}
          />
        </Setup>
      </Entry>
      <MovePanels {...props} />
    </div>
  )
}

function Closure({ dials, closure }: { dials: string[]; closure: (number | null)[] }) {
  const unit = useUnit()
  return (
    <div className="closure">
      <b>12 + 6 = 3 + 9</b>
      {dials.map((dial, i) => {
        const misses = closure[i]
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: in the order of the dials
          <div key={i}>
            {dial}:{' '}
            {misses === undefined
              ? 'not read yet'
              : misses === null
                ? 'one of the four is not read'
                : Math.abs(misses) < 0.0005
                  ? 'closes'
                  : `off by ${showLength(Math.abs(misses), unit, 3)}`}
          </div>
        )
      })}
    </div>
  )
}

/** The pieces for a foot, from the box. */
function stackOf(result: Result, name: string) {
  const pieces = result.stacks.find((s) => s.name === name)?.pieces_mm ?? []
  return pieces.length > 0 && <small> = {pieces.map((mm) => mm.toFixed(2)).join(' + ')}</small>
}

function say(result: Result, unit: 'mm' | 'in', spec: Schemas['LineSpec'] | null) {
  const name = spec ? spec[spec.movable as 'driver' | 'driven'].name.toLowerCase() : 'movable machine'
  const over = result.verdict === 'over'
  const moves = (result.plan ?? result.feet).flatMap((foot) => {
    const shim = Math.abs(foot.shim_mm) >= SHOWN_FROM_MM && (
      <span key="shim">
        {foot.shim_mm > 0 ? 'add' : 'take out'} <b>{showLength(Math.abs(foot.shim_mm), unit)}</b>
      </span>
    )
    const slide = Math.abs(foot.slide_mm) >= SHOWN_FROM_MM && (
      <span key="slide">
        slide <b>{showLength(Math.abs(foot.slide_mm), unit)}</b> to {foot.slide_mm > 0 ? 3 : 9}
      </span>
    )
    if (!shim && !slide) return []
    return [
      <>
        {foot.name[0]!.toUpperCase() + foot.name.slice(1)}: {shim}
        {shim && slide && ', '}
        {slide}
        {shim && foot.shim_mm > 0 && stackOf(result, foot.name)}
      </>,
    ]
  })
  const title = over
    ? `Over. Move the ${name}.`
    : result.verdict === 'close'
      ? 'Inside, but close.'
      : result.verdict === 'inside'
        ? 'Inside both limits.'
        : 'Read. Limits are missing.'
  const v = result.left_offset_v_mm
  const h = result.left_offset_h_mm
  return {
    title,
    note: `The ${name} is ${showLength(Math.abs(v), unit)} ${v >= 0 ? 'high' : 'low'} and ${showLength(Math.abs(h), unit)} toward ${h >= 0 ? 3 : 9}.`,
    moves: over || result.verdict === 'close' ? moves : [],
  }
}

export const alignmentBench: BenchClient<Result> = {
  name: 'alignment',
  title: 'Align',
  answers: 'Offset, angle and foot moves from two dials',
  start,
  read,
  restore,
  say,
  Drawing: AlignmentDrawing,
  quickLimits: [
    { cell: 'offset', label: 'Coupling, offset limit', kind: 'length', unit: '' },
    { cell: 'angle', label: 'Coupling, angle limit', kind: 'number', unit: '°' },
  ],
  quickPreset: ({ offset, angle }) =>
    offset === undefined && angle === undefined
      ? {}
      : { limits: { ...(offset !== undefined && { offset_mm: offset }), ...(angle !== undefined && { angle_deg: angle }) } },
  keys: [
    ['Enter', 'next reading, clockwise'],
    ['−', 'flip sign'],
  ],
}

const Entry = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 8px 16px 16px;
  border-top: 2px solid var(--ink);
  margin-top: 6px;
  > div > p { font-size: 13px; color: var(--ink-2); width: 252px; line-height: 1.2; padding-top: 4px; }
`
const Setup = styled.div`
  flex: 1 1 180px;
  min-width: 180px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  .cells { display: flex; flex-direction: column; gap: 6px; }
  .closure { font-size: 15px; line-height: 1.3; }
  .closure b { font-family: var(--read); font-weight: 500; }
`
