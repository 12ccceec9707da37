import { useState } from 'react'
import type { Schemas } from '../api/client'
import { append, newId } from '../api/outbox'
import type { Result } from '../benches/bench'
import { type Draft, DraftReader } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { MainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { type Step, useJob } from './context'
import { useDraft } from './useDraft'

/** A move as it was made. What was read before it becomes stale, and is read again. */
export function MoveSlip({ step, result, onClose }: { step: Step; result: Result | null; onClose: () => void }) {
  const job = useJob()
  const feet = job.spec[job.spec.movable as 'driver' | 'driven'].feet
  const wanted = (result as Schemas['AlignmentResult'] | null)?.feet
  const { draft, change, clear } = useDraft(`${job.id}.${step.key}.move`, () => suggestMove(wanted))
  const [refused, setRefused] = useState('')
  const reader = new DraftReader(draft)
  const moved = feet.map((foot, i) => ({
    name: foot.name,
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
    <Slip title="The move as it was made" isOpen onClose={onClose}>
      <p>
        Shim: plus is added, minus taken out. Slide: plus is toward 3 o’clock. Gap, offset and angle are read again after it.
      </p>
      {feet.map((foot, i) => (
        <div key={foot.name}>
          <LabelledCell cell={`shim${i}`} label={`${foot.name}, shim`} {...cell} />
          <LabelledCell cell={`slide${i}`} label={`${foot.name}, slide`} {...cell} />
        </div>
      ))}
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

function suggestMove(wanted: Schemas['FootMove'][] | undefined): Draft {
  const cells: Draft['cells'] = {}
  wanted?.forEach((foot, i) => {
    cells[`shim${i}`] = { text: foot.shim_mm.toFixed(2), unit: 'mm' }
    cells[`slide${i}`] = { text: foot.slide_mm.toFixed(2), unit: 'mm' }
  })
  return { cells, choices: {} }
}
