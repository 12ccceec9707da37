import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, type Schemas } from '../api/client'
import { calendarsOptions } from '../api/queries'
import { PlainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { sayWhen } from '../units/when'

type Whose = Schemas['CalendarOut']['whose']
const CALLED: Record<Whose, string> = { mine: 'My address', site: 'Address of the site' }

/** The address a calendar reads what is due from: shown once, revoked by a press. */
export function CalendarSlip() {
  const [isOpen, setOpen] = useState(false)
  const maySet = useMay('set the rules of the site')
  return (
    <>
      <PlainButton onPress={() => setOpen(true)}>In my calendar</PlainButton>
      <Slip title="What is due, in a calendar" isOpen={isOpen} onClose={() => setOpen(false)}>
        <p>
          A calendar reads what is due from an address of its own. Whoever has the address can read it: keep it to yourself,
          and revoke it when it got about.
        </p>
        <One whose="mine" mayMake />
        <One whose="site" mayMake={maySet} />
      </Slip>
    </>
  )
}

function One({ whose, mayMake }: { whose: Whose; mayMake: boolean }) {
  const client = useQueryClient()
  const unit = useUnit()
  const there = useQuery(calendarsOptions).data?.find((feed) => feed.whose === whose)
  const [address, setAddress] = useState('')
  const [problem, setProblem] = useState('')
  const doing = async (what: () => Promise<string>) => {
    try {
      setAddress(await what())
      setProblem('')
      await client.invalidateQueries({ queryKey: calendarsOptions.queryKey })
    } catch (why) {
      setProblem(sayRefusal(why, unit))
    }
  }
  const make = () => doing(async () => (await bring(api.POST('/api/calendar', { body: { whose } }))).address)
  const revoke = () =>
    doing(async () => {
      await bring(api.DELETE('/api/calendar', { params: { query: { whose } } }))
      return ''
    })
  return (
    <Part>
      <h3>{CALLED[whose]}</h3>
      {there ? (
        <p>
          Made {sayWhen(there.made_at)} by {there.made_by}.
        </p>
      ) : (
        <p>None yet.</p>
      )}
      {address && (
        <label>
          The address, shown this once
          <input readOnly value={address} onFocus={(event) => event.target.select()} />
        </label>
      )}
      {problem && <p role="alert">{problem}</p>}
      {mayMake && (
        <div>
          <PlainButton onPress={make}>{there ? 'Make a new one, revoke the old' : 'Make an address'}</PlainButton>
          {there && <PlainButton onPress={revoke}>Revoke it</PlainButton>}
        </div>
      )}
    </Part>
  )
}

const Part = styled.section`
  border-top: 1.25px solid var(--line);
  padding-top: 8px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  h3 { font-size: var(--fs-body); font-weight: 600; }
  div { display: flex; flex-wrap: wrap; gap: 8px; }
  label { font-weight: 500; }
  input { display: block; width: 100%; min-height: var(--touch); padding: 0 10px; border: 1.25px solid var(--ink); background: var(--leaf); font: 500 var(--fs-small) var(--read); }
`
