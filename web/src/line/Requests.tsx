import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { Refused, type Schemas } from '../api/client'
import { PlainButton } from '../kit/Button'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'

interface RequestsProps {
  requests: readonly Schemas['RequestOut'][]
  decide: (id: string, accept: boolean) => Promise<unknown>
}

/** What somebody asks the lead to change on a card: figure by figure, with the paper and the reason; the lead decides. */
export function Requests({ requests, decide }: RequestsProps) {
  const unit = useUnit()
  const client = useQueryClient()
  const may = useMay('change values of the card')
  const [problem, setProblem] = useState('')
  if (requests.length === 0) return null
  const say = async (id: string, accept: boolean) => {
    setProblem('')
    try {
      await decide(id, accept)
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setProblem(why.message)
    }
    await client.invalidateQueries()
  }
  return (
    <Asked>
      <h2>Asked of the lead</h2>
      <ul>
        {requests.map((one) => (
          <li key={one.id}>
            {one.changes.map(({ what, was, now }) => (
              <p key={what}>
                {what}: {sayIn(was, unit)} → <b>{sayIn(now, unit)}</b>
              </p>
            ))}
            <p>{one.reason}</p>
            <small>
              {one.by}, {one.role}, {sayWhen(one.at)}
              {!may && '. It waits for the lead; until then the card stands as it is.'}
            </small>
            {may && (
              <div>
                <PlainButton onPress={() => say(one.id, true)}>Change it</PlainButton>
                <PlainButton onPress={() => say(one.id, false)}>Leave it as it is</PlainButton>
              </div>
            )}
          </li>
        ))}
      </ul>
      {problem && <p role="alert">{problem}</p>}
    </Asked>
  )
}

const Asked = styled.div`
  border-left: 6px solid var(--ink);
  padding-left: 10px;
  li { padding: 6px 0; }
  div { display: flex; flex-wrap: wrap; gap: 8px; padding-top: 6px; }
`
