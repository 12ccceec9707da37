import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { type LengthUnit, readNumber } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { type Figure, readFigureDraft, showFigureDraft, typedForRecord, unitOnCard, wrongWith } from './figure'

type Value = Schemas['Value']
type Kind = Schemas['ValueKindOut']

const HUBS = ['both hubs', 'driver', 'driven'] as const
export type Hubs = (typeof HUBS)[number]
const NONE = 'there is none'
export const SOURCES = ["maker's manual", 'drawing', 'site rule', 'measured', 'sample'] as const

interface EditValueProps {
  kind: Kind
  value: Value | undefined
  mayDiffer: boolean
  /** In a job what stands is changed with a reason, and its paper named anew. */
  withReason: boolean
  onSave: (value: Value, hub: Hubs, reason: string) => Promise<void>
}

/** One line of the value card opened: its figure, what it means, the paper it comes from. */
export function EditValue({ kind, value, mayDiffer, withReason, onSave }: EditValueProps) {
  const unit = useUnit()
  const [hub, setHub] = useState<Hubs>('both hubs')
  const stands = value?.none_because ? null : (value?.value ?? null)
  const [figure, setFigure] = useState<Figure>({ stands: kind.words_only ? 0 : stands, typed: null })
  const [steps, setSteps] = useState<Step[]>((value?.up_to ?? []).map((s) => stepOf(s.rpm, s.value)))
  const [materials, setMaterials] = useState<Step[]>((value?.of_material ?? []).map((m) => stepOf(m.material, m.value)))
  const [means, setMeans] = useState(value?.means ?? '')
  const [source, setSource] = useState<Schemas['Source']>(
    (!withReason && value?.source) || { kind: "maker's manual", document: '', issue: '', page: '' },
  )
  const [reason, setReason] = useState('')
  const [isNone, setIsNone] = useState(!!value?.none_because)
  const [because, setBecause] = useState(value?.none_because ?? '')
  const [problems, setProblems] = useState<Problems>({})
  const figureUnit = kind.unit_by_means[means] ?? kind.unit
  const isThere = kind.words_only ? 'it is said' : 'there is a figure'
  const choose = (next: string) => {
    // Another unit is another figure: what stood in the old one is not carried over.
    if ((kind.unit_by_means[next] ?? kind.unit) !== figureUnit) setFigure({ stands: null, typed: figure.typed })
    setMeans(next)
  }
  const save = async () => {
    const number = readFigureDraft(figure, figureUnit)
    const upTo = readSteps(steps, figureUnit, readNumber)?.map(({ at, value }) => ({ rpm: at, value }))
    const ofMaterial = readSteps(materials, figureUnit, (m) => m.trim() || null)?.map(({ at, value }) => ({
      material: at,
      value,
    }))
    const wrong = !isNone && wrongWith(kind, figure, means, unit)
    const found: Problems = {
      ...(wrong && { figure: wrong }),
      ...(isNone && !because.trim() && { because: 'Enter why it is not needed here. The record shows it.' }),
      ...(!upTo && { steps: 'Enter an rpm and a figure for each speed.' }),
      ...(!ofMaterial && { materials: `Enter the ${kind.by_what} and its figure.` }),
      ...(!source.document.trim() && { document: 'Enter the document.' }),
      ...(withReason && !reason.trim() && { reason: 'Enter the reason for the change. The record shows it.' }),
    }
    setProblems(found)
    if (isNone && Object.keys(found).length === 0)
      return put({ value: 0, means: '', typed: '', none_because: because.trim(), source })
    if (number === null || !upTo || !ofMaterial || Object.keys(found).length > 0) return
    const typed = figure.typed ? typedForRecord(figure, figureUnit) : (value?.typed ?? '')
    const saved = {
      value: number,
      none_because: '',
      means: means.trim(),
      typed,
      up_to: upTo,
      of_material: ofMaterial,
      source,
    }
    return put(saved)
  }
  const put = (saved: Value) =>
    onSave(saved, hub, reason.trim()).catch((why) => setProblems({ figure: sayRefusal(why, unit) }))
  return (
    <Edit>
      {kind.may_be_none && (
        <Choice
          label="In its paper"
          options={[isThere, NONE]}
          value={isNone ? NONE : isThere}
          onChange={(said) => setIsNone(said === NONE)}
        />
      )}
      {isNone && (
        <Words
          label="It is not needed, because"
          value={because}
          onChange={setBecause}
          problem={problems.because}
          detail="What it would judge is read and kept, and not judged. The record says so."
        />
      )}
      {!kind.words_only && !isNone && (
        <Words
          label={kind.title}
          unit={unitOnCard(figureUnit, unit)}
          value={showFigureDraft(figure, figureUnit, unit)}
          onChange={(text) => setFigure({ ...figure, typed: { text, unit } })}
          autoFocus
          problem={problems.figure}
        />
      )}
      {kind.by_speed && !isNone && (
        <Steps
          label="Up to"
          of="rpm"
          add="Another figure up to a speed"
          steps={steps}
          setSteps={setSteps}
          figureUnit={figureUnit}
          unit={unit}
          problem={problems.steps}
        />
      )}
      {kind.by_material && !isNone && (
        <Steps
          label={`For this ${kind.by_what}`}
          of={kind.by_what}
          add={`Another figure for a ${kind.by_what}`}
          steps={materials}
          setSteps={setMaterials}
          figureUnit={figureUnit}
          unit={unit}
          problem={problems.materials}
        />
      )}
      {mayDiffer && <Choice label="Holds for" options={HUBS} value={hub} onChange={setHub} />}
      {kind.written && <Words label={kind.ask} value={means} onChange={setMeans} problem={problems.figure} autoFocus />}
      {kind.means.length > 0 && !isNone && (
        <Choice label={kind.ask} options={kind.means} value={means || null} onChange={choose} />
      )}
      {kind.words_only && !kind.written && problems.figure && <p role="alert">{problems.figure}</p>}
      <Choice
        label="Comes from"
        options={SOURCES}
        value={source.kind as (typeof SOURCES)[number]}
        onChange={(k) => setSource({ ...source, kind: k })}
      />
      <div className="three">
        <Words
          label="Document"
          value={source.document}
          onChange={(document) => setSource({ ...source, document })}
          problem={problems.document}
        />
        <Words label="Issue" value={source.issue ?? ''} onChange={(issue) => setSource({ ...source, issue })} />
        <Words label="Page" value={source.page ?? ''} onChange={(page) => setSource({ ...source, page })} />
      </div>
      {withReason && (
        <Words
          label="Changed because"
          value={reason}
          onChange={setReason}
          problem={problems.reason}
          detail="The record shows who, why and the value before; what was judged by it is to be read again."
        />
      )}
      <PlainButton onPress={save}>Save value</PlainButton>
    </Edit>
  )
}

interface Problems {
  because?: string
  figure?: string
  steps?: string
  materials?: string
  document?: string
  reason?: string
}

/** A limit that holds up to a speed, or for a material. */
interface Step {
  at: string
  figure: Figure
}

const stepOf = (at: string | number, value: number): Step => ({ at: String(at), figure: { stands: value, typed: null } })
const isEmpty = ({ at, figure }: Step) => !at.trim() && (figure.typed ? !figure.typed.text.trim() : figure.stands === null)

/** Rows left empty, or emptied, are left out. Null where one cannot be read. */
function readSteps<At>(steps: Step[], figureUnit: string, readAt: (text: string) => At | null) {
  const found: { at: At; value: number }[] = []
  for (const step of steps.filter((s) => !isEmpty(s))) {
    const [at, value] = [readAt(step.at), readFigureDraft(step.figure, figureUnit)]
    if (at === null || value === null) return null
    found.push({ at, value })
  }
  return found
}

interface StepsProps {
  label: string
  of: string
  add: string
  steps: Step[]
  setSteps: (steps: Step[]) => void
  figureUnit: string
  unit: LengthUnit
  problem: string | undefined
}

/** Further figures of a line, each for what it holds for. */
function Steps({ label, of, add, steps, setSteps, figureUnit, unit, problem }: StepsProps) {
  const put = (i: number, change: Partial<Step>) => setSteps(steps.map((s, at) => (at === i ? { ...s, ...change } : s)))
  return (
    <>
      {steps.map((step, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name than their place
        <div className="two" key={i}>
          <Words
            label={label}
            unit={of}
            value={step.at}
            onChange={(at) => put(i, { at })}
            problem={i === 0 ? problem : undefined}
          />
          <Words
            label="figure"
            unit={unitOnCard(figureUnit, unit)}
            value={showFigureDraft(step.figure, figureUnit, unit)}
            onChange={(text) => put(i, { figure: { ...step.figure, typed: { text, unit } } })}
          />
        </div>
      ))}
      <PlainButton onPress={() => setSteps([...steps, { at: '', figure: { stands: null, typed: null } }])}>{add}</PlainButton>
    </>
  )
}

const Edit = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0 14px 12px;
  .two { display: grid; grid-template-columns: 1fr 1fr; gap: 10px; max-width: 360px; }
  .three { display: grid; grid-template-columns: 2fr 1fr 1fr; gap: 10px; }
  > button { align-self: flex-start; }
`
