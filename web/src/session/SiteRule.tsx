import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring } from '../api/client'
import { PlainButton } from '../kit/Button'
import { Words } from '../kit/Field'

/** How long a proof of the dead state holds at this site: the lead says. */
export function SiteRule({ hours }: { hours: number | null }) {
  const client = useQueryClient()
  const [text, setText] = useState(hours === null ? '' : String(hours))
  const [problem, setProblem] = useState('')
  const [kept, setKept] = useState(false)
  const save = async () => {
    const typed = text.trim()
    if (typed && !/^([1-9]|[1-6]\d|7[0-2])$/.test(typed)) return setProblem('Whole hours, 1 to 72; or nothing.')
    setProblem('')
    try {
      await bring(api.PUT('/api/session/site-rule', { body: { proof_hours: typed ? Number(typed) : null } }))
      setKept(true)
      await client.invalidateQueries()
    } catch (why) {
      setProblem(String((why as Error).message))
    }
  }
  return (
    <Rule>
      <Words
        label="A proof of the dead state holds for"
        unit="hours"
        value={text}
        onChange={(typed) => {
          setText(typed)
          setKept(false)
        }}
        detail="Older than that it comes again before hands go in. Empty: only after a break or a hand-over."
        problem={problem}
      />
      <PlainButton onPress={save}>{kept ? 'Kept' : 'Keep this rule of the site'}</PlainButton>
    </Rule>
  )
}

const Rule = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  border-top: 0.75px solid var(--line);
  border-bottom: 0.75px solid var(--line);
  padding: 10px 0;
  > button { align-self: flex-start; }
`
