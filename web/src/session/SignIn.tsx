import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused } from '../api/client'
import { forgetAnswers, sessionOptions } from '../api/queries'
import { MainButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { Mark } from '../kit/Mark'

/** Name and password. Used as a page, and over the sheet when a session has ended in the middle of work. */
export function SignIn({ onDone }: { onDone?: () => void }) {
  const client = useQueryClient()
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const [problems, setProblems] = useState<{ name?: string; password?: string }>({})
  const [isAsking, setAsking] = useState(false)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    const missing = {
      ...(username.trim() === '' && { name: 'Enter your name.' }),
      ...(password === '' && { password: 'Enter your password.' }),
    }
    setProblems(missing)
    if (Object.keys(missing).length > 0 || isAsking) return
    setAsking(true)
    try {
      const session = await bring(api.POST('/api/session', { body: { username: username.trim(), password } }))
      await forgetAnswers()
      client.setQueryData(sessionOptions.queryKey, session)
      client.invalidateQueries({ queryKey: sessionOptions.queryKey })
      onDone?.()
    } catch (why) {
      setProblems({ password: why instanceof Refused ? why.message : String(why) })
    } finally {
      setAsking(false)
    }
  }
  return (
    <Form onSubmit={submit}>
      <Words label="Name" value={username} onChange={setUsername} autoFocus autoComplete="username" problem={problems.name} />
      <Words
        label="Password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="current-password"
        problem={problems.password}
      />
      <MainButton type="submit">Sign in</MainButton>
    </Form>
  )
}

/** The first page. */
export function SignInPage() {
  return (
    <Page>
      <Head>
        <Mark size={64} />
        <div>
          <h1>Young Anvil</h1>
          <p>Guides a coupling job from lock-out to guard.</p>
        </div>
      </Head>
      <SignIn />
      <p className="note">The maker’s manual, the plant’s procedure, the local code and authorised people decide.</p>
    </Page>
  )
}

const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 12px;
`
const Page = styled.main`
  max-width: 440px;
  margin: 10vh auto 0;
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 24px;
  border-top: 2px solid var(--ink);
  border-bottom: 2px solid var(--ink);
  .note { font-size: var(--fs-small); color: var(--ink-2); }
`
const Head = styled.div`
  display: flex;
  gap: 16px;
  align-items: center;
  h1 { font-size: var(--fs-figure); line-height: 1; }
  p { color: var(--ink-2); margin-top: 4px; }
`
