import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused, type Schemas } from '../../api/client'
import { wrenchesOptions } from '../../api/queries'
import { Num } from '../../kit/Allowance'
import { PlainButton } from '../../kit/Button'
import { Words } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { byServerClock } from '../../kit/serverClock'
import { useMay } from '../../session/may'
import { showLength } from '../../units/length'
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

type Kept = Schemas['WrenchOut']
const OF_THE_REGISTER = ['min_nm', 'max_nm', 'length_mm', 'calibrated_until'] as const
const TYPED_IN = 'another one, typed in'

const wrenchIn = (draft: Draft) => WRENCH_FIELD.read(new DraftReader(draft), '', {})
const isAs = (kept: Kept, wrench: ReturnType<typeof wrenchIn>) =>
  wrench?.name === kept.name && OF_THE_REGISTER.every((key) => (kept[key] ?? null) === (wrench[key] ?? null))
const sameName = (one: string, other: string) => one.trim().toLowerCase() === other.trim().toLowerCase()

/** The draft with a wrench of the register in it, all of it and nothing of another one; with none, with an empty place for one. */
function withWrench(draft: Draft, wrench: Kept | undefined): Draft {
  const cells = { ...draft.cells }
  const put = (of: { cell: string }, value: number | null | undefined) => {
    delete cells[of.cell]
    if (value !== null && value !== undefined) cells[of.cell] = { text: String(value), unit: 'mm' }
  }
  put(MIN, wrench?.min_nm)
  put(MAX, wrench?.max_nm)
  put(LENGTH, wrench?.length_mm)
  const named = NAME.put({ ...draft, cells }, wrench?.name ?? '')
  return PULLED_ON.put(UNTIL.put(named, wrench?.calibrated_until ?? undefined), undefined)
}

/** Which wrench pulls, what it can be set to, until when it is calibrated; and what is on its end. */
export function WrenchInHand(cells: CellsProps) {
  const { draft, change } = cells
  const kept = useQuery(wrenchesOptions).data ?? []
  const [open, setOpen] = useState(false)
  const name = NAME.of(draft)
  const chosen = kept.find((wrench) => isAs(wrench, wrenchIn(draft)))
  const isTyped = !chosen && (open || name !== '' || CELLS.some((of) => draft.cells[of.cell]?.text.trim()))
  const choices = kept.filter((wrench) => wrench.usable || wrench === chosen).map((wrench) => wrench.name)
  const take = (picked: string) => {
    setOpen(picked === TYPED_IN)
    change(
      withWrench(
        draft,
        kept.find((wrench) => wrench.name === picked),
      ),
    )
  }
  return (
    <Place>
      {kept.length > 0 && (
        <Pick
          label="Wrench"
          options={['', ...choices, TYPED_IN]}
          value={chosen?.name ?? (isTyped ? TYPED_IN : '')}
          onChange={take}
        />
      )}
      {chosen && <Certificate wrench={chosen} />}
      {isTyped && (
        <>
          <Words
            label="Number or name of the wrench"
            value={name}
            onChange={(wrench) => change(NAME.put(draft, wrench))}
            problem={
              kept.some((wrench) => sameName(wrench.name, name))
                ? `${name.trim()} is in the register. Choose it, or enter this one's own number.`
                : undefined
            }
          />
          <FieldCell of={MIN} {...cells} />
          <FieldCell of={MAX} {...cells} />
          <Words
            label="Calibrated until"
            type="date"
            value={UNTIL.of(draft) ?? ''}
            onChange={(day) => change(UNTIL.put(draft, day || undefined))}
          />
          <FieldCell of={LENGTH} {...cells} />
        </>
      )}
      {chosen || isTyped ? (
        <>
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

/** Of a wrench of the register: what stands there is not typed over here. */
function Certificate({ wrench }: { wrench: Kept }) {
  const unit = useUnit()
  return (
    <Facts>
      <Num>
        {wrench.min_nm} to {wrench.max_nm}
      </Num>{' '}
      N·m
      {typeof wrench.length_mm === 'number' && (
        <>
          , <Num>{showLength(wrench.length_mm, unit, 0)}</Num> {unit} long
        </>
      )}
      <small>
        {wrench.calibrated_until ? `calibrated until ${wrench.calibrated_until}` : 'no calibration in the register'}
      </small>
    </Facts>
  )
}

function KeepWrench({ draft }: { draft: Draft }) {
  const client = useQueryClient()
  const unit = useUnit()
  const mayKeep = useMay('keep instruments')
  const kept = useQuery(wrenchesOptions).data ?? []
  const [said, setSaid] = useState('')
  const name = NAME.of(draft).trim()
  const wrench = wrenchIn(draft)
  if (!name || !wrench || kept.some((one) => sameName(one.name, name)) || !mayKeep) return null
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
      <PlainButton onPress={keep}>Keep this wrench for the site</PlainButton>
      {said && <p role="alert">{said}</p>}
    </>
  )
}

const Facts = styled.p`
  line-height: 1.2;
  small { display: block; color: var(--ink-2); font-size: var(--fs-small); }
`
const Place = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px 24px;
  align-items: end;
  > [role='alert'] { font-weight: 600; }
`
