import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append, newId } from '../api/outbox'
import type { Result } from '../benches/bench'
import { type Draft, DraftReader, oneOf, slot } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import type { Given, ResultOf } from '../benches/table'
import { useDraft } from '../benches/useDraft'
import { useEvaluate } from '../benches/useEvaluate'
import { shortClock } from '../drawing/clock'
import { Num } from '../kit/Allowance'
import { MainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { type Step, useJob } from './context'
import { LaserWatch, LeftToGo, useJacking, type Watched } from './Jacking'
import { useOneAtATime } from './useOneAtATime'

type Alignment = ResultOf<'alignment'>
type Move = Schemas['PlannedMove']
const SIDES = ['3', '9'] as const
const SIDE = oneOf('side', SIDES, '3')
const NOTE = slot('note', '')

interface Read {
  result: Result
  inputs: object | null
}
interface ReadAlignment {
  result: Alignment
  inputs: Given<'alignment'> | null
}

/** What the bench of a reading says every foot has to do; along the shaft too where it knows. */
function suggestedBy(read: Read | null): { feet: readonly Move[]; axial_mm: number | null } {
  if (read && isAlignment(read)) return { feet: read.result.suggested, axial_mm: null }
  if (read && isAirGap(read)) {
    const feet = read.result.feet.map((foot) => ({
      name: foot.name,
      machine: 'movable' as const,
      shim_mm: foot.shim_known ? foot.shim_mm : 0,
      slide_mm: foot.slide_known ? foot.slide_mm : 0,
    }))
    return { feet, axial_mm: read.result.slide_axial_mm }
  }
  return { feet: [], axial_mm: null }
}

const isAirGap = (read: Read): read is Read & { result: ResultOf<'airgap'> } => read.result.bench === 'airgap'
const isAlignment = (read: Read): read is ReadAlignment => read.result.bench === 'alignment'

interface MoveSlipProps {
  step: Step
  /** The reading the move goes by; where it is an alignment, what the move will leave is shown. */
  read: Read | null
  onClose: () => void
}

/** The move worked out, in the cells. */
function asCells(suggested: readonly Move[], axial_mm: number | null): Draft {
  const cells: Draft['cells'] = {}
  if (axial_mm !== null) cells.axial = { text: axial_mm.toFixed(2), unit: 'mm' }
  for (const [i, { shim_mm, slide_mm }] of suggested.entries()) {
    cells[`shim${i}`] = { text: shim_mm.toFixed(2), unit: 'mm' }
    cells[`slide${i}`] = { text: slide_mm.toFixed(2), unit: 'mm' }
  }
  return { cells, choices: {} }
}

/** A move as it is made, foot by foot, with what is left to go and what will be read after it. */
export function MoveSlip({ step, read, onClose }: MoveSlipProps) {
  const unit = useUnit()
  const job = useJob()
  const alignment = read && isAlignment(read) ? read : null
  const { feet: suggested, axial_mm } = suggestedBy(read)
  const inputs = alignment?.inputs ?? null
  const feet = (suggested.length > 0 ? suggested : job.spec[job.spec.movable].feet).map((foot) => foot.name)
  const { draft, change, clear } = useDraft(`${job.id}.${step.key}.move`, () => asCells(suggested, axial_mm))
  const [seen, setSeen] = useState<Watched | null>(null)
  const [refused, setRefused] = useState('')
  const reader = new DraftReader(draft)
  const moved = feet.map((name, i) => ({
    name,
    shim_mm: reader.length(`shim${i}`, `feet.${i}.shim_mm`) ?? 0,
    slide_mm: reader.length(`slide${i}`, `feet.${i}.slide_mm`) ?? 0,
  }))
  const dials = new DraftReader(draft) // beside the move: what they show is not recorded
  const placed = [...(inputs?.movable_feet ?? []), ...(inputs?.stationary_feet ?? [])]
  const planesAt = planesOf(inputs)
  const jacking = useJacking(
    moved.map((foot, i) => ({
      ...foot,
      x_mm: placed.find((f) => f.name === foot.name)?.x_mm ?? 0,
      dial_mm: dials.length(`dial${i}`, `feet.${i}.dial_mm`),
      side: SIDE.of(draft),
    })),
    { ...reader.cellAt, ...dials.cellAt },
    planesAt,
    seen,
  )
  const axial = reader.length('axial', 'axial_mm') ?? 0
  const note = NOTE.of(draft)
  const send = useOneAtATime(() =>
    append({
      id: newId(),
      jobId: job.id,
      to: 'entries',
      step: step.key,
      body: { step: step.key, kind: 'move', inputs: { feet: moved, axial_mm: axial, note }, typed: reader.typed },
    })
      .then(() => {
        clear()
        onClose()
      })
      .catch((why) => setRefused(sayRefusal(why, unit))),
  )
  const cell = { draft, change, problems: jacking.problems }
  return (
    <Slip title="Record what was moved" isOpen onClose={onClose} wide>
      <p>
        Shim: plus is added, minus taken out. Slide: plus is toward 3 o’clock. Vertical first, then sideways with a dial at
        the foot. Gap, offset and angle are read again after it.
      </p>
      <Feet>
        {feet.map((name, i) => (
          <div key={name}>
            <LabelledCell cell={`shim${i}`} label={`${name}, shim`} {...cell} />
            <LabelledCell cell={`slide${i}`} label={`${name}, slide`} {...cell} />
            <LabelledCell cell={`dial${i}`} label="dial at this foot now" part="aside" {...cell} />
            <LeftToGo result={jacking.result} name={name} />
          </div>
        ))}
      </Feet>
      <Choice
        label="Dials at the feet are on the"
        options={SIDES}
        value={SIDE.of(draft)}
        words={{ '3': '3 o’clock side', '9': '9 o’clock side' }}
        onChange={(side) => change(SIDE.put(draft, side))}
      />
      {planesAt && <LaserWatch jobId={job.id} step={step.key} seen={seen} onSeen={setSeen} general={jacking.general} />}
      {inputs && <Afterwards inputs={inputs} made={withMachines(moved, suggested)} />}
      <LabelledCell cell="axial" label="Axial move (+ away from coupling)" {...cell} />
      <Words label="Note" unit="if any" value={note} onChange={(text) => change(NOTE.put(draft, text))} />
      {refused && <p role="alert">{refused}</p>}
      <MainButton isDisabled={reader.unreadable} onPress={send}>
        Save the move
      </MainButton>
    </Slip>
  )
}

interface AfterwardsProps {
  inputs: Given<'alignment'>
  made: Move[]
}

const withMachines = (moved: Omit<Move, 'machine'>[], suggested: readonly Move[]) =>
  moved.map((move, i) => ({ ...move, machine: suggested[i]?.machine ?? 'movable' }))

/** What will be read after the move, asked of the bench before anybody turns a jack screw. */
function Afterwards({ inputs, made }: AfterwardsProps) {
  const unit = useUnit()
  const reading = { input: { ...inputs, made }, typed: {}, cellAt: {}, lacking: '' }
  const preview = useEvaluate('alignment', reading, {}).result?.preview
  if (!preview) return null
  const { offset_v_mm: v, offset_h_mm: h } = preview
  return (
    <p>
      After it: <Num>{showLength(Math.abs(v), unit)}</Num> {v >= 0 ? 'high' : 'low'},{' '}
      <Num>{showLength(Math.abs(h), unit)}</Num> toward {h >= 0 ? 3 : 9}.{' '}
      {preview.readings.map(
        (ring, i) =>
          ring.length > 0 && (
            // biome-ignore lint/suspicious/noArrayIndexKey: in the order of the dials
            <span key={i}>
              Dial {i + 1} will read{' '}
              {ring
                .slice(0, 8)
                .map((r) => `${shortClock(r.clock)}: ${showLength(r.value_mm, unit, 2, true)}`)
                .join(', ')}
              .{' '}
            </span>
          ),
      )}
    </p>
  )
}

/** Where the laser's two planes stand, where the reading was taken with one. */
function planesOf(inputs: Given<'alignment'> | null): number[] | null {
  const dials = inputs?.dials ?? []
  const isLaser = dials.length === 2 && dials.every((d) => d.kind === 'rim' && d.bracket_on === 'stationary')
  return isLaser ? dials.map((d) => d.x_mm) : null
}

const Feet = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px 28px;
  > div { display: flex; flex-direction: column; gap: 4px; border-bottom: 0.75px solid var(--line); padding-bottom: 6px; }
`
