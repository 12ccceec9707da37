import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, type Schemas } from '../../api/client'
import { bracketsOptions } from '../../api/queries'
import { PlainButton } from '../../kit/Button'
import { Words } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { useMay } from '../../session/may'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { sayRefusal } from '../../units/say'
import { sayWhen } from '../../units/when'
import type { CellsProps } from '../bench'
import { type Draft, DraftReader, slot } from '../draft'
import { dialsOf, POSITIVE } from './methods'

/** The sag that came with the bracket: typed over, it is no longer that bracket's. */
const ITS_SAG = slot<number | undefined>('bracket_sag', undefined)
/** The bracket that was chosen, by its name. */
const ON_IT = slot<string | undefined>('bracket', undefined)

/** The bracket of the register that the dials hang on, where its sag stands as it came. */
export function bracketIn(draft: Draft): Schemas['ReadWithIn'][] {
  const name = ON_IT.of(draft)
  const rims = dialsOf(draft).filter((dial) => dial.sags)
  const stands = rims.every((dial) => new DraftReader(draft).length(`${dial.id}.sag`, '') === ITS_SAG.of(draft))
  return name && stands ? [{ kind: 'bracket', name }] : []
}

/** The bracket that is on the shaft: its sag is kept with it, and put in when it is chosen. */
export function Brackets({ draft, change }: Pick<CellsProps, 'draft' | 'change'>) {
  const unit = useUnit()
  const client = useQueryClient()
  const brackets = useQuery(bracketsOptions).data ?? []
  const mayKeep = useMay('keep instruments')
  const [keeping, setKeeping] = useState(false)
  const [name, setName] = useState('')
  const [problem, setProblem] = useState('')
  const rims = dialsOf(draft).flatMap((dial) => (dial.sags ? [dial.id] : []))
  const sags = rims.map((id) => new DraftReader(draft).length(`${id}.sag`, ''))
  const typed = sags.find((mm) => mm !== null)
  // A sag that is typed over is no longer that bracket's.
  const chosen = brackets.find((b) => b.name === ON_IT.of(draft) && sags.every((mm) => mm === b.sag_mm))
  const take = (picked: string) => {
    const bracket = brackets.find((b) => b.name === picked)
    if (!bracket) return change(ON_IT.put(draft, undefined))
    const cells = Object.fromEntries(rims.map((id) => [`${id}.sag`, { text: String(bracket.sag_mm), unit: 'mm' as const }]))
    const named = ITS_SAG.put(ON_IT.put({ ...draft, cells: { ...draft.cells, ...cells } }, picked), bracket.sag_mm)
    return change(POSITIVE.put(named, bracket.positive))
  }
  const keep = async () => {
    try {
      const body = { name: name.trim(), sag_mm: typed ?? 0, positive: POSITIVE.of(draft) }
      await bring(api.PUT('/api/instruments/brackets', { body }))
      await client.invalidateQueries({ queryKey: bracketsOptions.queryKey })
      change(ON_IT.put(draft, name.trim()))
      setKeeping(false)
      setProblem('')
    } catch (why) {
      setProblem(sayRefusal(why, unit))
    }
  }
  if (rims.length === 0) return null
  return (
    <Kept>
      {brackets.length > 0 && (
        <Pick
          label="Bracket"
          options={['', ...brackets.filter((b) => b.usable || b === chosen).map((b) => b.name)]}
          value={chosen?.name ?? ''}
          onChange={take}
        />
      )}
      {chosen && (
        <p>
          hangs {showLength(chosen.sag_mm, unit)}, {chosen.measured_by}, {sayWhen(chosen.measured_at)}
        </p>
      )}
      {typed !== undefined && mayKeep && !keeping && (
        <PlainButton onPress={() => setKeeping(true)}>Keep this sag with its bracket</PlainButton>
      )}
      {keeping && (
        <>
          <Words label="Bracket it was measured on" value={name} onChange={setName} problem={problem} autoFocus />
          <PlainButton isDisabled={!name.trim()} onPress={keep}>
            Keep it
          </PlainButton>
        </>
      )}
    </Kept>
  )
}

const Kept = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  p { font-size: var(--fs-small); color: var(--ink-2); }
`
