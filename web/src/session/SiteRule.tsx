import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring } from '../api/client'
import { PlainButton } from '../kit/Button'
import { Words } from '../kit/Field'

/** Empty is no rule; null where it is no whole number in its bounds. */
function readRule(text: string, most: number): number | null | 'wrong' {
  if (!text.trim()) return null
  const figure = Number(text)
  return Number.isInteger(figure) && figure >= 1 && figure <= most ? figure : 'wrong'
}

/** What the lead settles for the site: how long a proof of the dead state holds, and how long a device stays open. */
export function SiteRule({ hours, minutes }: { hours: number | null; minutes: number | null }) {
  const client = useQueryClient()
  const [proof, setProof] = useState(hours === null ? '' : String(hours))
  const [lock, setLock] = useState(minutes === null ? '' : String(minutes))
  const [problems, setProblems] = useState<{ proof?: string; lock?: string }>({})
  const [kept, setKept] = useState(false)
  const change = (set: (text: string) => void) => (text: string) => {
    set(text)
    setKept(false)
  }
  const save = async () => {
    const proof_hours = readRule(proof, 72)
    const lock_minutes = readRule(lock, 480)
    setProblems({
      ...(proof_hours === 'wrong' && { proof: 'Whole hours, 1 to 72; or nothing.' }),
      ...(lock_minutes === 'wrong' && { lock: 'Whole minutes, 1 to 480; or nothing.' }),
    })
    if (proof_hours === 'wrong' || lock_minutes === 'wrong') return
    try {
      await bring(api.PUT('/api/session/site-rule', { body: { proof_hours, lock_minutes } }))
      setKept(true)
      await client.invalidateQueries()
    } catch (why) {
      setProblems({ proof: String((why as Error).message) })
    }
  }
  return (
    <Rule>
      <Words
        label="A proof of the dead state holds for"
        unit="hours"
        value={proof}
        onChange={change(setProof)}
        detail="Older than that it comes again before hands go in. Empty: only after a break or a hand-over."
        problem={problems.proof}
      />
      <Words
        label="A device nobody uses asks who is there after"
        unit="minutes"
        value={lock}
        onChange={change(setLock)}
        detail="What was typed stays on the sheet. Empty: never."
        problem={problems.lock}
      />
      <PlainButton onPress={save}>{kept ? 'Kept' : 'Keep these rules of the site'}</PlainButton>
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
