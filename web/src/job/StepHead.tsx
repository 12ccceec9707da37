import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { append } from '../api/outbox'
import { catalogueOptions } from '../api/queries'
import { SketchView } from '../drawing/SketchView'
import { PlainButton, WordButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { CardTable } from '../line/CardTable'
import { Documents } from '../line/Documents'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'
import { entriesOf, type Step, useJob } from './context'
import { OneText } from './OneText'
import { TakePhotograph } from './Photographs'
import { saveValues } from './saveValues'

const WRITTEN = {
  note: { title: 'Note', label: 'What is worth knowing next time', button: 'Add the note' },
  question: {
    title: 'Ask the lead',
    told: 'The step waits for the answer; its readings go with the question. Other steps go on.',
    label: 'Question',
    button: 'Ask',
  },
} as const

/** What to do, why, with what, what to look out for; what blocks it; notes and questions. */
export function StepHead({ step }: { step: Step }) {
  const job = useJob()
  const unit = useUnit()
  const [why, setWhy] = useState(step.form.kind !== 'bench')
  const [writing, setWriting] = useState<'note' | 'question' | null>(null)
  const asides = entriesOf(job, step.key).filter((e) => e.kind === 'note' || e.kind === 'question')
  return (
    <Head>
      <Line>
        <h2 data-step-head tabIndex={-1}>
          {step.title}
        </h2>
        {step.caution && !step.no_return && <strong>{step.caution}</strong>}
        <span>
          <WordButton aria-expanded={why} onPress={() => setWhy(!why)}>
            Why
          </WordButton>
          <WordButton onPress={() => setWriting('note')}>Note</WordButton>
          {!job.closed && <TakePhotograph step={step} />}
          <WordButton onPress={() => setWriting('question')}>Ask the lead</WordButton>
        </span>
      </Line>
      {why && (
        <Told>
          <p>
            {step.why} {step.photograph && <>Photograph {step.photograph}. </>}
            {step.tool && <>With {step.tool}. </>}
            {step.on_fail && <>If not: {step.on_fail}</>}
            {step.accepted_by.map((line) => (
              <small key={line.title}>
                {line.title}: <b>{sayIn(line.value, unit)}</b> ({line.source})
              </small>
            ))}
          </p>
          {step.sketch && <SketchView sketch={step.sketch} />}
        </Told>
      )}
      {step.caution && step.no_return && <Framed>{step.caution}</Framed>}
      {job.read_in && !job.read_in.taken_over_at && (
        <Bar role="status">
          Read in from a file of {job.read_in.site}
          {job.read_in.why_not_judged && `, not judged here: ${job.read_in.why_not_judged}`}. Nothing goes by it until a lead
          takes it over. <Link href={`/jobs/${job.id}/record`}>Read its record</Link>
        </Bar>
      )}
      {step.stale_because.template && !step.waits && (
        <Bar role="status">{sayIn(step.stale_because, unit)}: read it again.</Bar>
      )}
      {step.blocked_by.map(({ words }) => (
        <Bar key={words} role="status">
          {words}
        </Bar>
      ))}
      {!job.closed && <MissingValues step={step} />}
      {step.means.includes('documents') && <Documents card={job.card} />}
      {asides.map((e) => (
        <Aside
          key={e.id}
          entryId={e.id}
          question={e.kind === 'question'}
          toAccept={e.kind === 'question' && !!e.inputs.accept}
          words={e.inputs.text}
          by={`${e.by}, ${sayWhen(e.at)}`}
          step={step.key}
        />
      ))}
      {writing && (
        <OneText
          {...WRITTEN[writing]}
          body={(text) => ({ step: step.key, kind: writing, inputs: { text } })}
          onClose={() => setWriting(null)}
        />
      )}
    </Head>
  )
}

/** What the step waits for is entered where it says so. */
function MissingValues({ step }: { step: Step }) {
  const job = useJob()
  const unit = useUnit()
  const kinds = useQuery(catalogueOptions).data?.kinds ?? []
  const missing = kinds.filter((kind) => step.needs.includes(kind.key) && !(kind.key in job.card))
  if (missing.length === 0) return null
  return (
    <CardTable
      place={`${job.id}.card`}
      kinds={missing}
      onSave={(values) => saveValues(values, { jobId: job.id, step: step.key, unit })}
    />
  )
}

function Aside({
  entryId,
  question,
  toAccept,
  words,
  by,
  step,
}: {
  entryId: string
  question: boolean
  /** A request to accept a reading: it is answered where that is accepted or sent back. */
  toAccept: boolean
  words: string
  by: string
  step: string
}) {
  const job = useJob()
  const mayAnswer = useMay('answer questions')
  const [text, setText] = useState('')
  const [problem, setProblem] = useState('')
  const answer = job.entries.filter((e) => e.kind === 'answer').find((e) => e.inputs.question === entryId)
  const send = () =>
    append({
      jobId: job.id,
      body: { step, kind: 'answer', inputs: { question: entryId, text } },
    }).catch((why) => setProblem(why.message))
  return (
    <Said>
      <b>{question ? 'Asked' : 'Note'}:</b> {words} <span>{by}</span>
      {answer && (
        <div>
          <b>Answer:</b> {answer.inputs.text}{' '}
          <span>
            {answer.by}, {sayWhen(answer.at)}
          </span>
        </div>
      )}
      {question && !toAccept && !answer && mayAnswer && (
        <AnswerRow>
          <Words label="Answer" value={text} onChange={setText} problem={problem} />
          <PlainButton isDisabled={!text.trim()} onPress={send}>
            Answer
          </PlainButton>
        </AnswerRow>
      )}
    </Said>
  )
}

const Head = styled.header`
  padding: 4px 16px 4px;
  border-bottom: 1.25px solid var(--line);
`
const Told = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  align-items: flex-start;
  small { display: block; font-size: var(--fs-small); }
  b { font-weight: 600; color: var(--ink); }
  p { flex: 1 1 300px; color: var(--ink-2); font-size: var(--fs-text); line-height: 1.25; max-width: 72ch; }
  svg { flex: 0 1 auto; }
`
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0 12px;
  h2 { font-size: var(--fs-title); font-weight: 600; line-height: 1.1; }
  strong { font-weight: 400; font-size: var(--fs-text); line-height: 1.15; color: var(--ink-2); flex: 1 1 200px; }
  span { margin-left: auto;  white-space: nowrap; font-size: var(--fs-text); }
`
const Bar = styled.p`
  && { border-left: 3px solid var(--ink); color: var(--ink); background: var(--rail); padding: 6px 10px; margin-top: 6px; font-weight: 500; }
`
/** Where there is no way back the caution stands in the strongest form there is. */
const Framed = styled.p`
  && { border: 3px solid var(--ink); color: var(--ink); padding: 6px 12px; margin: 6px 0; font-weight: 600; font-size: var(--fs-sub); max-width: none; }
`
const Said = styled.div`
  border-left: 3px solid var(--blue);
  padding: 4px 10px;
  margin-top: 6px;
  font-size: var(--fs-text);
  span { color: var(--ink-2); font-size: var(--fs-small); }
`
const AnswerRow = styled.div`
  display: flex;
  gap: 10px;
  align-items: end;
  > :first-child { flex: 1; }
`
