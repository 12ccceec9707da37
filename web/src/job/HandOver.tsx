import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { append } from '../api/outbox'
import { sessionOptions } from '../api/queries'
import { MainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { Tick } from '../kit/Tick'
import { type Step, useJob } from './context'
import { useOneAtATime } from './useOneAtATime'

const WHAT = ['break', 'hand-over'] as const

/** A break, or somebody goes and somebody comes: after it the dead state is proved again before hands go in. */
export function HandOver({ step, isOpen, onClose }: { step: Step; isOpen: boolean; onClose: () => void }) {
  const job = useJob()
  const name = useQuery(sessionOptions).data?.name ?? ''
  const [what, setWhat] = useState<(typeof WHAT)[number]>('break')
  const [goes, setGoes] = useState<string | null>(null)
  const [comes, setComes] = useState('')
  const [text, setText] = useState('')
  const [covered, setCovered] = useState(false)
  const [problems, setProblems] = useState<Record<string, string>>({})
  const out = job.ledger.filter((line) => line.open)
  const send = useOneAtATime(() => {
    const who = what === 'break' ? {} : { goes: (goes ?? name).trim(), comes: comes.trim() }
    return append({
      jobId: job.id,
      body: {
        step: step.key,
        kind: 'hand-over',
        inputs: { what, ...who, ...(covered && { covered }), ...(text.trim() && { text: text.trim() }) },
      },
    })
      .then(() => {
        setProblems({})
        setComes('')
        setText('')
        setCovered(false)
        onClose()
      })
      .catch((why) => {
        const found = (why.problems ?? []) as { path: string; message: string }[]
        setProblems(found.length ? Object.fromEntries(found.map((p) => [p.path, p.message])) : { what: why.message })
      })
  })
  return (
    <Slip title="Break / hand-over" isOpen={isOpen} onClose={onClose}>
      <p>
        Locks and tags stay as they are. Before hands go in again, somebody tries to start and it stays dead.
        {job.locks.live && ' The locks are off now: lock out again before anybody works on it.'}
      </p>
      {(job.held.length > 0 || out.length > 0) && (
        <ul aria-label="As it is left">
          {job.held.map(({ what, by }) => (
            <li key={what}>
              {what} held by: <b>{by}</b>
            </li>
          ))}
          {out.map(({ line, what, out, back }) => (
            <li key={line}>
              {what}: <b>{out - back} out</b>
            </li>
          ))}
        </ul>
      )}
      <Choice
        label="Reason"
        options={WHAT}
        words={{ break: 'a break', 'hand-over': 'a hand-over' }}
        value={what}
        onChange={setWhat}
      />
      {what === 'hand-over' && (
        <>
          <Words label="Goes" value={goes ?? name} onChange={setGoes} problem={problems.goes} />
          <Words label="Comes" value={comes} onChange={setComes} problem={problems.comes} />
        </>
      )}
      {job.opening && (
        <>
          <Tick label={`${job.opening}: its cover lies on it`} value={covered} onChange={setCovered} />
          {problems.covered && <p role="alert">{problems.covered}</p>}
        </>
      )}
      <Words
        label="What the next one has to know"
        unit="if any"
        value={text}
        onChange={setText}
        long
        problem={problems.what}
      />
      <MainButton onPress={send}>{what === 'break' ? 'Record the break' : 'Hand over'}</MainButton>
    </Slip>
  )
}
