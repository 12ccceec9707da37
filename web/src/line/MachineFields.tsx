import { Fragment } from 'react'
import type { CellsProps } from '../benches/bench'
import type { Draft } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { MACHINES } from '../drawing/machines'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { Pick } from '../kit/Pick'
import { GEAR, MOST_FEET, type Side } from './lineDraft'

const FLOATS = ['fixed', 'floats'] as const
const HALVES = ['flexible', 'rigid'] as const
const BALANCED = ['full key or none', 'half key'] as const

export interface MachineProps extends CellsProps {
  side: Side
  set: (key: string, value: unknown) => void
  /** The ways a hub can be held. */
  ways: readonly string[]
}

const word = (draft: Draft, key: string) => String(draft.choices[key] ?? '')

/** 0, 1, … for each foot of a machine. */
export function footPlaces(draft: Draft, side: Side) {
  return [...Array(Number(draft.choices[`${side}.feet`])).keys()]
}

export const footLabel = (i: number) =>
  i === 0 ? 'Coupling to near feet' : i === 1 ? 'Coupling to far feet' : `Coupling to feet ${i + 1}`

export function MachineName({ side, set, draft, problems, onDrawing = false }: MachineProps & { onDrawing?: boolean }) {
  return (
    <Words
      hideLabel={onDrawing}
      label="Name"
      value={word(draft, `${side}.name`)}
      onChange={(v) => set(`${side}.name`, v)}
      problem={problems[`${side}.name`]}
    />
  )
}

export function MachineType({ side, set, draft }: MachineProps) {
  return (
    <Pick
      label="Machine type"
      options={Object.keys(MACHINES)}
      value={word(draft, `${side}.drawn_as`)}
      onChange={(v) => set(`${side}.drawn_as`, v)}
    />
  )
}

/** Shaft end and hub. */
export function HubFields({ side, set, ways, ...cell }: MachineProps) {
  return (
    <>
      <LabelledCell cell={`${side}.shaft`} label="Shaft diameter" {...cell} />
      <LabelledCell cell={`${side}.hub`} label="Hub outside diameter" {...cell} />
      <LabelledCell cell={`${side}.hub_length`} label="Hub length" {...cell} />
      <Pick
        label="Hub held by"
        options={ways}
        value={word(cell.draft, `${side}.connection`)}
        onChange={(v) => set(`${side}.connection`, v)}
      />
    </>
  )
}

function MoreFeet({ side, set, draft }: MachineProps) {
  const feet = Number(draft.choices[`${side}.feet`])
  return feet < MOST_FEET ? <PlainButton onPress={() => set(`${side}.feet`, feet + 1)}>Add feet</PlainButton> : null
}

/** What else there is to say of a machine; where there is a drawing to type on, without what is typed there. */
export function MachineFields({ isDrawn, ...props }: MachineProps & { isDrawn: boolean }) {
  const { side, set, ways: _, ...cell } = props
  const { draft, problems } = cell
  return (
    <>
      {!isDrawn && (
        <>
          <MachineName {...props} />
          <MachineType {...props} />
        </>
      )}
      <Words
        label="Serial number"
        unit="optional"
        value={word(draft, `${side}.serial`)}
        onChange={(v) => set(`${side}.serial`, v)}
        problem={problems[`${side}.serial`]}
      />
      <LabelledCell cell={`${side}.power`} label="Power" detail="if known" kind="number" unit="kW" {...cell} />
      {!isDrawn && <HubFields {...props} />}
      <LabelledCell cell={`${side}.screws`} label="Set screws in the hub" kind="number" unit="" {...cell} />
      {word(draft, 'family') === GEAR && (
        <Choice
          label="This half is"
          options={HALVES}
          words={{ flexible: 'flexible, with a sleeve', rigid: 'rigid, bolted on' }}
          value={word(draft, `${side}.half`) as (typeof HALVES)[number]}
          onChange={(v) => set(`${side}.half`, v)}
        />
      )}
      <Choice
        label="Rotor balanced with"
        options={BALANCED}
        value={BALANCED[draft.choices[`${side}.half_key`] ? 1 : 0]!}
        onChange={(v) => set(`${side}.half_key`, v === 'half key')}
      />
      <Choice
        label="Shaft end float"
        options={FLOATS}
        value={FLOATS[draft.choices[`${side}.floats`] ? 1 : 0]!}
        onChange={(v) => set(`${side}.floats`, v === FLOATS[1])}
      />
      <LabelledCell cell={`${side}.bolts`} label="Foot bolts" kind="number" unit="" {...cell} />
      {footPlaces(draft, side).map((i) => (
        <Fragment key={`foot ${i + 1}`}>
          {!isDrawn && <LabelledCell cell={`${side}.foot${i}`} label={footLabel(i)} {...cell} />}
          <LabelledCell
            cell={`${side}.rise${i}`}
            label="Thermal rise, cold to hot"
            detail={`${i === 0 ? 'near feet' : i === 1 ? 'far feet' : `feet ${i + 1}`}; measured, or the maker's figure`}
            {...cell}
          />
        </Fragment>
      ))}
      <MoreFeet {...props} />
    </>
  )
}
