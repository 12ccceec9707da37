import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { append, newId } from '../api/outbox'
import type { Result } from '../benches/bench'
import { type Draft, DraftReader } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useEvaluate } from '../benches/useEvaluate'
import { shortClock } from '../drawing/clock'
import { Num } from '../kit/Allowance'
import { MainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'
import { type Step, useJob } from './context'
import { useDraft } from './useDraft'

type Alignment = Schemas['AlignmentResult']
interface MoveSlipProps {
  step: Step
  result: Result | null
  /** The reading the move goes by, where it is an alignment: then what it will leave is shown. */
  inputs: Record<string, unknown> | null
  onClose: () => void
}

/** A move as it is made, foot by foot, with what is left to go and what will be read after it. */
export function MoveSlip({ step, result, inputs, onClose }: MoveSlipProps) {
  const job = useJob()
  const alignment = result?.bench === 'alignment' ? (result as Alignment) : null
  const feet =
    alignment?.plan?.map((m) => m.name) ?? job.spec[job.spec.movable as 'driver' | 'driven'].feet.map((f) => f.name)
  const { draft, change, clear } = useDraft(`${job.id}.${step.key}.move`, () => suggestMove(alignment, feet))
  const [refused, setRefused] = useState('')
  const reader = new DraftReader(draft)
  const moved = feet.map((name, i) => ({
    name,
    shim_mm: reader.length(`shim${i}`, `feet.${i}.shim_mm`) ?? 0,
    slide_mm: reader.length(`slide${i}`, `feet.${i}.slide_mm`) ?? 0,
  }))
  const axial = reader.length('axial', 'axial_mm') ?? 0
  const note = (draft.choices.note as string | undefined) ?? ''
  const send = () =>
    append({
      id: newId(),
      jobId: job.id,
      to: 'entries',
      step: step.key,
      body: { step: step.key, kind: 'move', inputs: { feet: moved, axial_mm: axial, note }, typed: reader.typed, unit: 'mm' },
    })
      .then(() => {
        clear()
        onClose()
      })
      .catch((why) => setRefused(why.message))
  const cell = { draft, change, problems: {} }
  return (
    <Slip title="The move as it was made" isOpen onClose={onClose} wide>
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
            <LeftToGo wanted={moved[i]!.slide_mm} shows={new DraftReader(draft).length(`dial${i}`, '')} />
          </div>
        ))}
      </Feet>
      {alignment && inputs && <Afterwards inputs={inputs} feet={moved} movable={alignment.feet.map((f) => f.name)} />}
      <LabelledCell cell="axial" label="Along the shaft, plus is away" {...cell} />
      <Words
        label="Note"
        unit="if any"
        value={note}
        onChange={(text) => change({ ...draft, choices: { ...draft.choices, note: text } })}
      />
      {refused && <p role="alert">{refused}</p>}
      <MainButton isDisabled={reader.unreadable} onPress={send}>
        Enter the move
      </MainButton>
    </Slip>
  )
}

/** What the jack screw still has to move, as the dial at the foot follows. */
function LeftToGo({ wanted, shows }: { wanted: number; shows: number | null }) {
  const unit = useUnit()
  if (shows === null) return null
  const left = wanted - shows
  return (
    <Left aria-live="polite">
      {Math.abs(left) < 0.005 ? (
        'there'
      ) : (
        <>
          <Num>{showLength(Math.abs(left), unit)}</Num> to go toward {left > 0 ? 3 : 9}
        </>
      )}
    </Left>
  )
}

interface AfterwardsProps {
  inputs: Record<string, unknown>
  feet: { name: string; shim_mm: number; slide_mm: number }[]
  movable: string[]
}

/** What will be read after the move, asked of the bench before anybody turns a jack screw. */
function Afterwards({ inputs, feet, movable }: AfterwardsProps) {
  const unit = useUnit()
  const made = feet.map((m) => ({ ...m, machine: movable.includes(m.name) ? 'movable' : 'stationary' }))
  const reading = { input: { ...inputs, made }, typed: {}, cellAt: {}, lacking: '' }
  const preview = (useEvaluate('alignment', reading, {}).result as Alignment | null)?.preview
  if (!preview) return null
  const { offset_v_mm: v, offset_h_mm: h } = preview
  return (
    <p>
      After it: <Num>{showLength(Math.abs(v), unit)}</Num> {v >= 0 ? 'high' : 'low'},{' '}
      <Num>{showLength(Math.abs(h), unit)}</Num> toward {h >= 0 ? 3 : 9}.{' '}
      {preview.readings.map((ring, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: in the order of the dials
        <span key={i}>
          Dial {i + 1} will read{' '}
          {ring
            .slice(0, 8)
            .map((r) => `${shortClock(r.clock)}: ${showLength(r.value_mm, unit, 2, true)}`)
            .join(', ')}
          .{' '}
        </span>
      ))}
    </p>
  )
}

/** The move worked out, its shims as the stack from the box makes them. */
function suggestMove(alignment: Alignment | null, feet: readonly string[]): Draft {
  const cells: Draft['cells'] = {}
  feet.forEach((name, i) => {
    const move = (alignment?.plan ?? alignment?.feet)?.find((m) => m.name === name)
    if (!move) return
    const pieces = alignment?.stacks.find((s) => s.name === name)?.pieces_mm ?? []
    const shim = move.shim_mm > 0 && pieces.length > 0 ? pieces.reduce((sum, mm) => sum + mm, 0) : move.shim_mm
    cells[`shim${i}`] = { text: shim.toFixed(2), unit: 'mm' }
    cells[`slide${i}`] = { text: move.slide_mm.toFixed(2), unit: 'mm' }
  })
  return { cells, choices: {} }
}

const Feet = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px 28px;
  > div { display: flex; flex-direction: column; gap: 4px; border-bottom: 0.75px solid var(--line); padding-bottom: 6px; }
`
const Left = styled.p`
  text-align: right;
  font-weight: 600;
`
