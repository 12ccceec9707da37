import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused } from '../../api/client'
import { sessionOptions, wrenchesOptions } from '../../api/queries'
import { PlainButton } from '../../kit/Button'
import { Words } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { byServerClock } from '../../kit/serverClock'
import { mayActAs } from '../../session/role'
import { useUnit } from '../../units/preferences'
import { sayProblem } from '../../units/say'
import type { BenchProps } from '../bench'
import { type Draft, type DraftFiller, DraftReader } from '../draft'
import { LabelledCell } from '../parts'

const CELLS = { min: 'wrench.min', max: 'wrench.max', length: 'wrench.length' } as const
const EXTENSION = { length: 'extension', angle: 'extension_angle' } as const

/** The wrench in hand and what is on its end, as the bench takes them. */
export function readWrench(reader: DraftReader, draft: Draft) {
  const min = reader.torque(CELLS.min, 'wrench.min_nm')
  const max = reader.torque(CELLS.max, 'wrench.max_nm')
  const length = reader.length(CELLS.length, 'wrench.length_mm')
  const extension = reader.length(EXTENSION.length, 'extension_mm')
  const angle = reader.degrees(EXTENSION.angle, 'extension_angle_deg')
  reader.cellAt['wrench.length_mm'] = CELLS.length
  reader.cellAt.extension_angle_deg = EXTENSION.angle
  const { wrench: name, calibrated_until, pulled_on } = draft.choices
  return {
    ...(min !== null &&
      max !== null && {
        wrench: { name: name ?? '', min_nm: min, max_nm: max, length_mm: length, calibrated_until: calibrated_until || null },
        pulled_on: pulled_on ?? byServerClock(Date.now()).slice(0, 10),
      }),
    ...(extension !== null && { extension_mm: extension, extension_angle_deg: angle ?? 0 }),
  }
}

/** The way back. The day stays with the pulls that were made on it. */
export function restoreWrench(filler: DraftFiller, withPulls: boolean) {
  filler.cell(CELLS.min, 'wrench.min_nm')
  filler.cell(CELLS.max, 'wrench.max_nm')
  filler.cell(CELLS.length, 'wrench.length_mm')
  filler.cell(EXTENSION.length, 'extension_mm')
  filler.cell(EXTENSION.angle, 'extension_angle_deg')
  filler.choice('wrench', filler.at('wrench.name'))
  filler.choice('calibrated_until', filler.at('wrench.calibrated_until'))
  if (withPulls) filler.choice('pulled_on', filler.at('pulled_on'))
}

export const hasExtension = (draft: Draft) => !!draft.cells[EXTENSION.length]?.text.trim()

/** Which wrench pulls, what it can be set to, until when it is calibrated; and what is on its end. */
export function WrenchInHand({ draft, change, problems }: Pick<BenchProps, 'draft' | 'change' | 'problems'>) {
  const kept = useQuery(wrenchesOptions).data ?? []
  const [open, setOpen] = useState(false)
  const name = (draft.choices.wrench as string | undefined) ?? ''
  const filled = [...Object.values(CELLS), ...Object.values(EXTENSION)].some((cell) => draft.cells[cell]?.text.trim())
  const choose = (choices: Record<string, unknown>) => change({ ...draft, choices: { ...draft.choices, ...choices } })
  const take = (picked: string) => {
    const wrench = kept.find((w) => w.name === picked)
    const cells = { ...draft.cells }
    const put = (cell: string, value: number | null | undefined) => {
      delete cells[cell]
      if (value !== null && value !== undefined) cells[cell] = { text: String(value), unit: 'mm' }
    }
    put(CELLS.min, wrench?.min_nm)
    put(CELLS.max, wrench?.max_nm)
    put(CELLS.length, wrench?.length_mm)
    const until = wrench?.calibrated_until ?? undefined
    change({ cells, choices: { ...draft.choices, wrench: picked, calibrated_until: until, pulled_on: undefined } })
  }
  const cell = { draft, change, problems }
  return (
    <Place>
      {kept.length > 0 && (
        <Pick
          label="Wrench"
          options={['', ...kept.map((w) => w.name)]}
          value={kept.some((w) => w.name === name) ? name : ''}
          onChange={take}
        />
      )}
      {open || filled ? (
        <>
          <Words label="Number or name of the wrench" value={name} onChange={(wrench) => choose({ wrench })} />
          <LabelledCell cell={CELLS.min} label="Its range from" kind="torque" unit="N·m" {...cell} />
          <LabelledCell cell={CELLS.max} label="to" kind="torque" unit="N·m" {...cell} />
          <Words
            label="Calibrated until"
            type="date"
            value={(draft.choices.calibrated_until as string | undefined) ?? ''}
            onChange={(day) => choose({ calibrated_until: day || undefined })}
          />
          <LabelledCell cell={CELLS.length} label="Its length" detail="drive square to the mark on the grip" {...cell} />
          <LabelledCell cell={EXTENSION.length} label="Crow-foot or extension" detail="square to bolt" {...cell} />
          <LabelledCell
            cell={EXTENSION.angle}
            label="It stands at"
            detail="0 straight on, 90 across the wrench"
            kind="degrees"
            unit="°"
            {...cell}
          />
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

function KeepWrench({ draft }: Pick<BenchProps, 'draft'>) {
  const client = useQueryClient()
  const unit = useUnit()
  const role = useQuery(sessionOptions).data?.role
  const kept = useQuery(wrenchesOptions).data ?? []
  const [said, setSaid] = useState('')
  const name = String(draft.choices.wrench ?? '').trim()
  const { wrench } = readWrench(new DraftReader(draft), draft)
  const asKept = kept.find((w) => w.name === name)
  const isKept =
    !!asKept &&
    !!wrench &&
    (['min_nm', 'max_nm', 'length_mm', 'calibrated_until'] as const).every((k) => (asKept[k] ?? null) === wrench[k])
  if (!name || !wrench || isKept || !mayActAs(role, 'millwright')) return null
  const keep = async () => {
    try {
      const { min_nm, max_nm, length_mm } = wrench
      const calibrated_until = (draft.choices.calibrated_until as string | undefined) ?? null
      const body = { name, min_nm, max_nm, length_mm, calibrated_until }
      await bring(api.PUT('/api/instruments/wrenches', { body }))
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
