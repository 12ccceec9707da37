import { useState } from 'react'
import { append, type Body } from '../api/outbox'
import { MainButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { useJob } from './context'
import { useOneAtATime } from './useOneAtATime'

interface OneTextProps {
  title: string
  told?: string
  label: string
  button: string
  /** It may go without a word. */
  isOptional?: boolean
  body: (text: string) => Body
  onClose: () => void
}

/** A slip with one text on it, which becomes an entry of the step. */
export function OneText({ title, told, label, button, isOptional = false, body, onClose }: OneTextProps) {
  const job = useJob()
  const [text, setText] = useState('')
  const [problem, setProblem] = useState('')
  const send = useOneAtATime(async () => {
    if (!isOptional && !text.trim()) return setProblem('Enter a few words.')
    await append({ jobId: job.id, body: body(text) })
      .then(onClose)
      .catch((why) => setProblem(why.message))
  })
  return (
    <Slip title={title} isOpen onClose={onClose}>
      {told && <p>{told}</p>}
      <Words
        label={label}
        unit={isOptional ? 'optional' : ''}
        value={text}
        onChange={setText}
        long
        autoFocus
        problem={problem}
      />
      <MainButton onPress={send}>{button}</MainButton>
    </Slip>
  )
}
