import { useState } from 'react'
import styled from 'styled-components'
import { type Body, discard, enterAgain, type Kept, notTaken, useOutbox } from '../api/outbox'
import { PlainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { sayWhen } from '../units/when'

const KINDS: Record<Body['kind'], string> = {
  reading: 'Reading',
  move: 'Move',
  note: 'Note',
  question: 'Question',
  answer: 'Answer',
  value: 'Value',
  ledger: 'Count',
  event: 'Event',
  'hand-over': 'Break or hand-over',
  photograph: 'Photograph',
  slip: 'Slip taken out',
  look: 'Round',
}

/** What was entered on this device and not taken, with the reason: nothing leaves it without a tap. */
export function Tray({ jobId, titleOf }: { jobId?: string; titleOf?: (step: string) => string }) {
  const parcels = notTaken(useOutbox()).filter((p) => jobId === undefined || p.jobId === jobId)
  const [open, setOpen] = useState(false)
  if (parcels.length === 0) return null
  return (
    <>
      <Handle type="button" onClick={() => setOpen(true)}>
        Not taken: {parcels.length}
      </Handle>
      <Slip title="Not taken" isOpen={open} onClose={() => setOpen(false)} wide>
        <p>
          This was entered on this device and could not be taken. It lies here until it is entered again, once what stood in
          its way is corrected, or discarded.
        </p>
        <Parcels>
          {parcels.map((parcel) => (
            <OneParcel key={parcel.id} parcel={parcel} title={titleOf?.(parcel.step) ?? parcel.step} />
          ))}
        </Parcels>
      </Slip>
    </>
  )
}

function OneParcel({ parcel, title }: { parcel: Kept; title: string }) {
  return (
    <li>
      <div>
        <b>
          {KINDS[parcel.body.kind]}, {title}
        </b>
        <small>
          {sayWhen(new Date(parcel.at).toISOString())}
          {parcel.by && `, ${parcel.by}`}
        </small>
        <p>{parcel.refused}</p>
        <Held>{sayInputs(parcel.body.inputs)}</Held>
      </div>
      <div className="buttons">
        <PlainButton onPress={() => enterAgain(parcel)}>Enter it again</PlainButton>
        <PlainButton onPress={() => discard(parcel)}>Discard it</PlainButton>
      </div>
    </li>
  )
}

/** What it holds, in one line: enough to know it again. */
function sayInputs(inputs: object): string {
  const figures = Object.entries(inputs).map(([key, value]) => `${key.replace(/_/g, ' ')} ${sayValue(value)}`)
  return figures.join('; ').slice(0, 400)
}

function sayValue(value: unknown): string {
  if (value === true) return 'yes'
  if (value === false) return 'no'
  return typeof value === 'object' ? JSON.stringify(value).replace(/["{}[\]]/g, ' ') : String(value)
}

const Handle = styled.button`
  && { background: var(--ink); color: var(--paper); font-weight: 600; }
`
const Parcels = styled.ul`
  li { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 12px; border-bottom: 0.75px solid var(--line); padding: 8px 0; }
  li > div:first-child { flex: 1 1 320px; min-width: 0; }
  small { display: block; font-size: var(--fs-small); color: var(--ink-2); }
  p { font-weight: 500; line-height: 1.25; }
  .buttons { display: flex; flex-direction: column; gap: 8px; }
`
const Held = styled.span`
  display: block;
  font-size: var(--fs-small);
  color: var(--ink-2);
  overflow-wrap: anywhere;
`
