import { type ReactNode, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append } from '../api/outbox'
import type { CellsProps } from '../benches/bench'
import { DraftReader, oneOf, slot } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import type { Given } from '../benches/table'
import { useDraft } from '../benches/useDraft'
import { useEvaluate } from '../benches/useEvaluate'
import { shortClock } from '../drawing/clock'
import { Num } from '../kit/Allowance'
import { MainButton, PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { TypedBy } from '../kit/Discard'
import { Words } from '../kit/Field'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { type Step, useJob } from './context'
import { LaserWatch, LeftToGo, useJacking, type Watched } from './Jacking'
import { asCells, EACH, feetAt, isAlignment, type Place, planOf, type Read, readMove, withEach } from './move'
import { useOneAtATime } from './useOneAtATime'

const SIDES = ['3', '9'] as const
const SIDE = oneOf('side', SIDES, '3')
const NOTE = slot('note', '')

interface MoveSlipProps {
  step: Step
  /** The reading the move goes by; where it is an alignment, what the move will leave is shown. */
  read: Read | null
  onClose: () => void
}

/** A move as it is made, foot by foot beside what was planned, with what is left to go and what will be read after it. */
export function MoveSlip({ step, read, onClose }: MoveSlipProps) {
  const job = useJob()
  const unit = useUnit()
  const inputs = read && isAlignment(read) ? read.inputs : null
  const plan = planOf(read, step, job.spec)
  const { draft, others, change, clear } = useDraft(`${job.id}.${step.key}.move`, () => asCells(plan, unit))
  const [seen, setSeen] = useState<Watched | null>(null)
  const [refused, setRefused] = useState('')
  const reader = new DraftReader(draft)
  const { feet, made } = readMove(reader, plan)
  const dials = new DraftReader(draft) // beside the move: what they show is not recorded
  const placed = [...(inputs?.movable_feet ?? []), ...(inputs?.stationary_feet ?? [])]
  const planesAt = planesOf(inputs)
  const jacking = useJacking(
    made.map(({ name, shim_mm, slide_mm }, i) => ({
      name,
      shim_mm,
      slide_mm,
      x_mm: placed.find((f) => f.name === name)?.x_mm ?? 0,
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
      jobId: job.id,
      body: { step: step.key, kind: 'move', inputs: { feet, axial_mm: axial, note }, typed: reader.typed },
    })
      .then(() => {
        clear()
        onClose()
      })
      .catch((why) => setRefused(sayRefusal(why, unit))),
  )
  const cell = { draft, change, problems: jacking.problems }
  return (
    <Slip title={plan.slides ? 'Record what was moved' : 'Record the shims'} isOpen onClose={onClose} wide>
      <TypedBy others={others} />
      <p>
        Shim: plus is added, minus taken out.{' '}
        {plan.slides
          ? 'Slide: plus is toward 3 o’clock. Vertical first, then sideways with a dial at the foot. Gap, offset and angle are read again after it.'
          : 'One foot at a time; then tighten all and measure every foot again.'}
      </p>
      <Feet>
        {plan.places.map((place, i) => (
          <OnePlace key={place.name} place={place} i={i} slides={plan.slides} {...cell}>
            <LeftToGo result={jacking.result} name={place.name} />
          </OnePlace>
        ))}
      </Feet>
      {plan.slides && (
        <>
          <Choice
            label="Dials at the feet are on the"
            options={SIDES}
            value={SIDE.of(draft)}
            words={{ '3': '3 o’clock side', '9': '9 o’clock side' }}
            onChange={(side) => change(SIDE.put(draft, side))}
          />
          {planesAt && <LaserWatch jobId={job.id} step={step.key} seen={seen} onSeen={setSeen} general={jacking.general} />}
          {inputs && <Afterwards inputs={inputs} made={made} />}
          <LabelledCell cell="axial" label="Axial move (+ away from coupling)" {...cell} />
        </>
      )}
      <Words label="Note" unit="if any" value={note} onChange={(text) => change(NOTE.put(draft, text))} />
      {refused && <p role="alert">{refused}</p>}
      <MainButton isDisabled={reader.unreadable} onPress={send}>
        {plan.slides ? 'Save the move' : 'Save the shims'}
      </MainButton>
    </Slip>
  )
}

interface OnePlaceProps extends CellsProps {
  place: Place
  i: number
  slides: boolean
  /** What is left to go. */
  children: ReactNode
}

/** Shim and slide of one place, each beside its plan; where its two feet differ, a shim for each. */
function OnePlace({ place, i, slides, children, ...cell }: OnePlaceProps) {
  const unit = useUnit()
  const { name, planned, pair } = place
  const split = pair && EACH.of(cell.draft).includes(name)
  const plan = (mm: number | null | undefined) => typeof mm === 'number' && `planned ${showLength(mm, unit, 2, true)}`
  const shim = { detail: plan(planned?.shim_mm), ...cell }
  return (
    <div>
      {split ? (
        feetAt(place).map((foot) => (
          <LabelledCell key={foot.side} cell={`shim${i}.${foot.side}`} label={`${foot.name}, shim`} {...shim} />
        ))
      ) : (
        <LabelledCell cell={`shim${i}`} label={`${name}, shim`} {...shim} />
      )}
      {pair && (
        <PlainButton onPress={() => cell.change(withEach(cell.draft, i, place))}>
          {split ? 'Both feet alike' : 'A shim for each foot'}
        </PlainButton>
      )}
      {slides && (
        <>
          <LabelledCell cell={`slide${i}`} label={`${name}, slide`} detail={plan(planned?.slide_mm)} {...cell} />
          <LabelledCell cell={`dial${i}`} label="dial at this foot now" part="aside" {...cell} />
        </>
      )}
      {children}
    </div>
  )
}

interface AfterwardsProps {
  inputs: Given<'alignment'>
  made: Schemas['PlannedMove'][]
}

/** What will be read after the move, asked of the bench before anybody turns a jack screw. */
function Afterwards({ inputs, made }: AfterwardsProps) {
  const unit = useUnit()
  const reading = { input: { ...inputs, made }, typed: {}, cellAt: {}, lacking: '' }
  const preview = useEvaluate('alignment', reading, {}).result?.preview
  if (!preview) return <Said aria-busy />
  const { offset_v_mm: v, offset_h_mm: h } = preview
  return (
    <Said>
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
    </Said>
  )
}

/** Where the laser's two planes stand, where the reading was taken with one. */
function planesOf(inputs: Given<'alignment'> | null): number[] | null {
  const dials = inputs?.dials ?? []
  const isLaser = dials.length === 2 && dials.every((d) => d.kind === 'rim' && d.bracket_on === 'stationary')
  return isLaser ? dials.map((d) => d.x_mm) : null
}

/** Its room is there before it is said: nothing moves under the finger that presses the button below. */
const Said = styled.p`min-height: 4.5em;`
const Feet = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px 28px;
  > div { display: flex; flex-direction: column; gap: 4px; border-bottom: 0.75px solid var(--line); padding-bottom: 6px; }
`
