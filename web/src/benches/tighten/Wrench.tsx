import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused, type Schemas } from '../../api/client'
import { wrenchesOptions } from '../../api/queries'
import { PlainButton } from '../../kit/Button'
import { Words } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { byServerClock } from '../../kit/serverClock'
import { useMay } from '../../session/may'
import { useUnit } from '../../units/preferences'
import { sayProblem } from '../../units/say'
import type { CellsProps } from '../bench'
import { type Draft, DraftReader, slot } from '../draft'
import { FieldCell } from '../parts'
import { cell, chosen, type Given, group, type Table, when } from '../table'

const NAME = slot('wrench', '')
const UNTIL = slot<string | undefined>('calibrated_until', undefined)
/** The day stays with the pulls that were made on it. */
const PULLED_ON = slot<string | undefined>('pulled_on', undefined)

const torque = { kind: 'torque', unit: 'N·m', stays: true } as const
const MIN = cell<'tighten'>({ cell: 'wrench.min', label: 'Its range from', ...torque })
const MAX = cell<'tighten'>({ cell: 'wrench.max', label: 'to', ...torque })
const LENGTH = cell<'tighten'>({
  cell: 'wrench.length',
  label: 'Its length',
  detail: 'drive square to the mark on the grip',
  optional: true,
  stays: true,
})
const EXTENSION = cell<'tighten'>({
  cell: 'extension',
  label: 'Crow-foot or extension',
  detail: 'square to bolt',
  optional: true,
  stays: true,
})
const ANGLE = cell<'tighten'>({
  cell: 'extension_angle',
  label: 'Set to',
  detail: '0 straight on, 90 across the wrench',
  kind: 'degrees',
  unit: '°',
  optional: true,
  stays: true,
})
const CELLS = [MIN, MAX, LENGTH, EXTENSION, ANGLE]

const WRENCH_FIELD = group<Schemas['Wrench'], 'tighten'>(
  {
    name: chosen(NAME),
    min_nm: MIN,
    max_nm: MAX,
    length_mm: LENGTH,
    calibrated_until: { ...chosen(UNTIL), read: (reader) => UNTIL.of(reader.draft) || undefined },
  },
  { optional: true },
)

/** The wrench in hand and what is on its end, as the bench takes them. */
export const WRENCH = {
  wrench: WRENCH_FIELD,
  pulled_on: {
    read: (reader, _, preset) =>
      WRENCH_FIELD.read(new DraftReader(reader.draft), '', preset) &&
      (PULLED_ON.of(reader.draft) ?? byServerClock(Date.now()).slice(0, 10)),
    restore: (filler, path, part) => {
      if (part === 'all') filler.choice(PULLED_ON.key, filler.at(path))
    },
  },
  extension_mm: EXTENSION,
  extension_angle_deg: when(hasExtension, ANGLE),
} satisfies Table<Pick<Given<'tighten'>, 'wrench' | 'pulled_on' | 'extension_mm' | 'extension_angle_deg'>, 'tighten'>

export function hasExtension(draft: Draft): boolean {
  return !!draft.cells[EXTENSION.cell]?.text.trim()
}

/** Which wrench pulls, what it can be set to, until when it is calibrated; and what is on its end. */
export function WrenchInHand(cells: CellsProps) {
  const { draft, change } = cells
  const kept = useQuery(wrenchesOptions).data ?? []
  const [open, setOpen] = useState(false)
  const name = NAME.of(draft)
  const filled = CELLS.some((of) => draft.cells[of.cell]?.text.trim())
  const take = (picked: string) => {
    const wrench = kept.find((w) => w.name === picked)
    const now = { ...draft.cells }
    const put = (of: { cell: string }, value: number | null | undefined) => {
      delete now[of.cell]
      if (value !== null && value !== undefined) now[of.cell] = { text: String(value), unit: 'mm' }
    }
    put(MIN, wrench?.min_nm)
    put(MAX, wrench?.max_nm)
    put(LENGTH, wrench?.length_mm)
    const named = UNTIL.put(NAME.put({ ...draft, cells: now }, picked), wrench?.calibrated_until ?? undefined)
    change(PULLED_ON.put(named, undefined))
  }
  return (
    <Place>
      {kept.length > 0 && (
        <Pick
          label="Wrench"
          options={['', ...kept.filter((w) => w.usable || w.name === name).map((w) => w.name)]}
          value={kept.some((w) => w.name === name) ? name : ''}
          onChange={take}
        />
      )}
      {open || filled ? (
        <>
          <Words label="Number or name of the wrench" value={name} onChange={(wrench) => change(NAME.put(draft, wrench))} />
          <FieldCell of={MIN} {...cells} />
          <FieldCell of={MAX} {...cells} />
          <Words
            label="Calibrated until"
            type="date"
            value={UNTIL.of(draft) ?? ''}
            onChange={(day) => change(UNTIL.put(draft, day || undefined))}
          />
          <FieldCell of={LENGTH} {...cells} />
          <FieldCell of={EXTENSION} {...cells} />
          <FieldCell of={ANGLE} {...cells} />
          <KeepWrench draft={draft} />
        </>
      ) : (
        <PlainButton onPress={() => setOpen(true)}>
          {kept.length > 0 ? 'Another wrench, or an extension' : 'Which wrench, and what is on its end'}
        </PlainButton>
      )}
    </Place>
  )
}

function KeepWrench({ draft }: { draft: Draft }) {
  const client = useQueryClient()
  const unit = useUnit()
  const mayKeep = useMay('keep instruments')
  const kept = useQuery(wrenchesOptions).data ?? []
  const [said, setSaid] = useState('')
  const name = NAME.of(draft).trim()
  const wrench = WRENCH_FIELD.read(new DraftReader(draft), '', {})
  const asKept = kept.find((w) => w.name === name)
  const isKept =
    !!asKept &&
    !!wrench &&
    (['min_nm', 'max_nm', 'length_mm', 'calibrated_until'] as const).every((k) => (asKept[k] ?? null) === (wrench[k] ?? null))
  if (!name || !wrench || isKept || !mayKeep) return null
  const keep = async () => {
    try {
      const { min_nm, max_nm, length_mm = null, calibrated_until = null } = wrench
      await bring(api.PUT('/api/instruments/wrenches', { body: { name, min_nm, max_nm, length_mm, calibrated_until } }))
      await client.invalidateQueries({ queryKey: wrenchesOptions.queryKey })
      setSaid('')
    } catch (why) {
      setSaid(why instanceof Refused ? why.problems.map((p) => sayProblem(p, unit)).join(' ') || why.message : String(why))
    }
  }
  return (
    <>
      <PlainButton onPress={keep}>{asKept ? 'Keep it so under this name' : 'Keep this wrench for the site'}</PlainButton>
      {said && <p role="alert">{said}</p>}
    </>
  )
}

const Place = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px 24px;
  align-items: end;
  > p { font-weight: 600; }
`
