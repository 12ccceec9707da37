import { type ReactNode, useRef, useState } from 'react'
import styled from 'styled-components'
import { append, notSent, ofKind, useOutbox } from '../api/outbox'
import { MainButton, PlainButton, WordButton } from '../kit/Button'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { sayWhen } from '../units/when'
import { entriesOf, type Step, useJob } from './context'
import { smallPicture } from './smallPicture'
import { useOneAtATime } from './useOneAtATime'

interface Shown {
  id: string
  src: string
  caption: string
  note: ReactNode
}

/** Photographs of a step, those that wait on this device among them; a tap shows one large. */
export function Photographs({ step }: { step: Step }) {
  const job = useJob()
  const outbox = useOutbox()
  const [large, setLarge] = useState<Shown | null>(null)
  const sent = entriesOf(job, step.key).filter((e) => e.kind === 'photograph')
  const waiting = ofKind(notSent(outbox), 'photograph').filter((p) => p.jobId === job.id && p.step === step.key)
  const shown: Shown[] = [
    ...sent.map((e) => ({
      id: e.id,
      src: `/api/jobs/${job.id}/photographs/${e.id}`,
      caption: e.inputs.caption ?? '',
      note: `${e.by}, ${sayWhen(e.at)}`,
    })),
    ...waiting.map((p) => ({
      id: p.id,
      src: `data:image/jpeg;base64,${p.body.image}`,
      caption: p.body.inputs.caption ?? '',
      note: 'not sent yet',
    })),
  ]
  if (shown.length === 0) return null
  return (
    <Strip aria-label="Photographs">
      {shown.map((photograph) => (
        <li key={photograph.id}>
          <button type="button" onClick={() => setLarge(photograph)}>
            <img src={photograph.src} alt={photograph.caption || 'photograph'} />
            <span>
              {photograph.caption}
              <small>{photograph.note}</small>
            </span>
          </button>
        </li>
      ))}
      <Slip title={large?.caption || 'Photograph'} isOpen={large !== null} onClose={() => setLarge(null)} wide>
        {large && (
          <>
            <Large src={large.src} alt={large.caption || 'photograph'} />
            <p>{large.note}</p>
          </>
        )}
      </Slip>
    </Strip>
  )
}

/** Takes a photograph, or chooses one that was taken; what it shows is said beside it. */
export function TakePhotograph({ step }: { step: Step }) {
  const job = useJob()
  const camera = useRef<HTMLInputElement>(null)
  const folder = useRef<HTMLInputElement>(null)
  const [isOpen, setOpen] = useState(false)
  const [image, setImage] = useState('')
  const [caption, setCaption] = useState('')
  const [problem, setProblem] = useState('')
  const close = () => {
    setOpen(false)
    setImage('')
    setProblem('')
  }
  const open = () => {
    setCaption(step.photograph)
    setOpen(true)
  }
  const choose = async (files: FileList | null) => {
    if (!files?.[0]) return
    try {
      setImage(await smallPicture(files[0]))
      setProblem('')
    } catch (why) {
      setProblem((why as Error).message)
    }
  }
  const enter = useOneAtATime(() => {
    const body = { step: step.key, kind: 'photograph', inputs: { caption: caption.trim() }, image } as const
    return append({ jobId: job.id, body })
      .then(close)
      .catch((why) => setProblem(why.message))
  })
  const input = (label: string, ref: typeof camera, fromCamera: boolean) => (
    <input
      ref={ref}
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture={fromCamera ? 'environment' : undefined}
      hidden
      aria-label={label}
      onChange={(event) => {
        choose(event.target.files)
        event.target.value = ''
      }}
    />
  )
  return (
    <>
      <WordButton onPress={open}>Photograph</WordButton>
      <Slip title="Photograph" isOpen={isOpen} onClose={close}>
        {step.photograph && <p>What words do not prove here: {step.photograph}.</p>}
        <Buttons>
          <PlainButton onPress={() => camera.current?.click()}>{image ? 'Take it again' : 'Take it'}</PlainButton>
          <PlainButton onPress={() => folder.current?.click()}>Choose one</PlainButton>
        </Buttons>
        {input('Take a photograph', camera, true)}
        {input('Choose a photograph', folder, false)}
        {image && <Large src={`data:image/jpeg;base64,${image}`} alt="as it will be entered" />}
        <Words label="It shows" unit="if any" value={caption} onChange={setCaption} problem={problem} />
        <MainButton isDisabled={!image} onPress={enter}>
          Enter the photograph
        </MainButton>
      </Slip>
    </>
  )
}

const Strip = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--line);
  button { display: flex; gap: 8px; align-items: center; min-height: var(--touch); text-align: left; max-width: 260px; font-size: var(--fs-text); line-height: 1.2; }
  img { width: 84px; height: 63px; object-fit: cover; border: 1.25px solid var(--ink); flex: none; }
  small { display: block; font-size: var(--fs-note); color: var(--ink-2); }
`
const Large = styled.img`
  max-width: 100%;
  max-height: 60vh;
  object-fit: contain;
  border: 1.25px solid var(--ink);
`
const Buttons = styled.div`
  display: flex;
  gap: 8px;
`
