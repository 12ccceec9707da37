import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused, type Schemas } from '../api/client'
import { PlainButton, WordButton } from '../kit/Button'
import { Words } from '../kit/Field'
import type { LengthUnit } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayFigure } from '../units/say'
import { sayWhen } from '../units/when'
import { FIGURES, type Figure } from './round'

type Look = Schemas['PastLookOut']

const SHOWN = 8

/** What rounds read, the latest first. One that was a slip is taken out: it stays, struck through, and nothing goes by it. */
export function PastLooks({ looks }: { looks: readonly Look[] }) {
  const [all, setAll] = useState(false)
  return (
    <Looks>
      {(all ? looks : looks.slice(0, SHOWN)).map((look) => (
        <OneLook key={look.id} look={look} />
      ))}
      {looks.length > SHOWN && !all && (
        <li>
          <WordButton onPress={() => setAll(true)}>{`All ${looks.length}`}</WordButton>
        </li>
      )}
    </Looks>
  )
}

function OneLook({ look }: { look: Look }) {
  const unit = useUnit()
  const client = useQueryClient()
  const [asks, setAsks] = useState(false)
  const [because, setBecause] = useState('')
  const [problem, setProblem] = useState('')
  const takeOut = async () => {
    try {
      await bring(api.POST('/api/rounds/looks/{look_id}/slip', { params: { path: { look_id: look.id } }, body: { because } }))
      await client.invalidateQueries()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setProblem(why.message)
    }
  }
  const said = sayLook(look, unit)
  return (
    <li>
      <span>
        {look.slip ? <s>{said}</s> : said}
        <small>
          {sayWhen(look.at)}, {look.by}
          {look.slip && `; taken out by ${look.slip.by}: ${look.slip.because}`}
        </small>
      </span>
      {look.may_take_out && !asks && <WordButton onPress={() => setAsks(true)}>It was a slip</WordButton>}
      {asks && look.may_take_out && (
        <div>
          <Words label="What went wrong" value={because} onChange={setBecause} problem={problem} autoFocus />
          <PlainButton isDisabled={!because.trim()} onPress={takeOut}>
            Take it out
          </PlainButton>
          <PlainButton onPress={() => setAsks(false)}>Keep it</PlainButton>
        </div>
      )}
    </li>
  )
}

function sayLook(look: Look, unit: LengthUnit): string {
  const figures = (Object.keys(FIGURES) as Figure[])
    .filter((key) => look[key] !== null)
    .map((key) => {
      const { label, unit: of, places } = FIGURES[key]
      return `${label} ${sayFigure({ value: look[key]!, unit: of, places }, unit)}`
    })
  const seen = [look.leaks && `leaks: ${look.leaks}`, look.noise && `noise: ${look.noise}`, look.note]
  return [...figures, ...seen].filter(Boolean).join(', ')
}

const Looks = styled.ul`
  li { display: flex; flex-wrap: wrap; align-items: center; gap: 4px 16px; min-height: 48px; padding: 6px 0; border-top: 1px solid var(--line); }
  li > span { flex: 1 1 320px; }
  small { display: block; color: var(--ink-2); }
  li > div { display: flex; flex-wrap: wrap; align-items: end; gap: 8px; flex-basis: 100%; }
`
