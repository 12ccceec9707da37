import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused } from '../api/client'
import { forgetAnswers, sessionOptions } from '../api/queries'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { usePreferences } from '../units/preferences'
import { SiteRule } from './SiteRule'

/** Who is signed in and as what; sign out; another site where one belongs to several. */
export function Account() {
  const session = useQuery(sessionOptions).data
  const client = useQueryClient()
  const [open, setOpen] = useState(false)
  const [problem, setProblem] = useState('')
  const [preferences, change] = usePreferences()
  if (!session) return null
  const leave = async (asked: Promise<unknown>, unless: string) => {
    setProblem('')
    try {
      await asked
    } catch (why) {
      // A session that has ended is left already.
      if (!(why instanceof Refused && why.status === 401))
        return setProblem(`${why instanceof Refused ? why.message : String(why)} ${unless}`)
    }
    client.clear()
    await forgetAnswers()
    window.location.assign('/')
  }
  const signOut = () =>
    leave(bring(api.DELETE('/api/session')), `You are still signed in here as ${session.name}: sign out once it is back.`)
  const choose = (site: string) =>
    leave(bring(api.PUT('/api/session', { body: { site } })), 'You are still at the site you were.')
  return (
    <>
      <button type="button" className="cell" onClick={() => setOpen(true)}>
        <span>
          <Role>{session.role}</Role>
          <small>{session.name}</small>
        </span>
      </button>
      <Slip title={session.name} isOpen={open} onClose={() => setOpen(false)}>
        <p>
          Signed in as {session.role} at {session.site.name}.
        </p>
        <Choice
          label="Single-letter keys"
          options={['on', 'off']}
          value={preferences.letters}
          onChange={(letters) => change({ letters })}
        />
        {session.sites.length > 1 && (
          <Choice
            label="Site"
            options={session.sites.map((s) => s.id)}
            words={Object.fromEntries(session.sites.map((s) => [s.id, s.name]))}
            value={session.site.id}
            onChange={choose}
          />
        )}
        {session.may.includes('set the rules of the site') && (
          <SiteRule hours={session.site.proof_hours ?? null} minutes={session.site.lock_minutes ?? null} />
        )}
        <PlainButton onPress={signOut}>Sign out</PlainButton>
        {problem && <p role="alert">{problem}</p>}
        <small>Young Anvil {import.meta.env.VITE_VERSION}</small>
      </Slip>
    </>
  )
}

const Role = styled.span`
  display: block;
  &::first-letter { text-transform: uppercase; }
`
