import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, bring, Refused } from '../api/client'
import { sayDay } from '../drawing/overTime'
import { MainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { DUE_WORDS, type Due } from './due'

/** The lead puts something off: until when, and why. It stands beside it until it is done. */
export function PutOff({ due, onClose }: { due: Due & { line_id: string; on: string }; onClose: () => void }) {
  const client = useQueryClient()
  const [until, setUntil] = useState('')
  const [reason, setReason] = useState('')
  const [problems, setProblems] = useState<Record<string, string>>({})
  const put = async () => {
    try {
      const body = { line_id: due.line_id, kind: due.kind, of: due.on, until, reason }
      await bring(api.POST('/api/due/put-off', { body }))
      await client.invalidateQueries({ queryKey: ['due'] })
      onClose()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setProblems(Object.fromEntries(why.problems.map((p) => [p.path || 'until', p.message])))
    }
  }
  return (
    <Slip title={`${due.name}: ${DUE_WORDS[due.kind].toLowerCase()}`} isOpen onClose={onClose}>
      <p>Due {sayDay(due.on)}. What is put off stays on the list with its reason.</p>
      <Words label="Until" type="date" value={until} onChange={setUntil} problem={problems.until} />
      <Words label="Reason" value={reason} onChange={setReason} problem={problems.reason} />
      {problems[''] && <p role="alert">{problems['']}</p>}
      <MainButton isDisabled={!until || !reason.trim()} onPress={put}>
        Put it off
      </MainButton>
    </Slip>
  )
}
