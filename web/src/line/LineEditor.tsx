import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { post, Refused, type Schemas, send } from '../api/client'
import { catalogueOptions, lineOptions } from '../api/queries'
import { slot } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { MainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Discard, TypedBy } from '../kit/Discard'
import { Words } from '../kit/Field'
import { Pick } from '../kit/Pick'
import { useIsWide } from '../kit/useIsWide'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayEach } from '../units/say'
import { askedBy, mayHave, ofBothHubs } from './asked'
import { IsolationPoints } from './IsolationPoints'
import { LineDrawing } from './LineDrawing'
import { LineOnDrawing } from './LineOnDrawing'
import { copyOf, draftOf, drawable, MOVABLE, SIDES, type Side, specOf } from './lineDraft'
import { MachineFields } from './MachineFields'
import { ValueLines } from './ValueLines'

/** What is wrong with figures of the card, by their keys. */
const ofValues = (problems: Record<string, string>) =>
  Object.fromEntries(
    Object.entries(problems).flatMap(([at, says]) => (at.startsWith('values.') ? [[at.split('.')[1], says]] : [])),
  )

const BACKSTOP = ['none', 'one holds the load'] as const
/** Words that show their own problem under them. */
const WORDS_MARKED = /^(name|series|size|(driver|driven)\.(name|serial)|isolation_points\.\d+\.(energy|point))$/
type Values = Record<string, Schemas['Value']>

/** Create a line, or change one. */
export function LineEditor() {
  const { lineId } = useParams()
  const like = useSearchParams()[0].get('like')
  const from = lineId ?? like
  const { data, error } = useQuery({ ...lineOptions(from ?? ''), enabled: from !== null })
  // What the catalogue asks for is part of the form: coming later, it pushes the buttons away from under a finger.
  const isCatalogueOnItsWay = useQuery(catalogueOptions).isPending
  if (from !== null && !data) return error ? <Lost why={error} /> : null
  if (isCatalogueOnItsWay) return null
  return <Editor key={`${lineId} ${like}`} line={(lineId && data) || null} like={(!lineId && data) || null} />
}

/** The figures typed here; nothing typed yet are those of the line. */
/** Why something that stands is changed, by its key. */
const REASONS = slot<Record<string, string>>('reasons', {})
const MOST_LETTERS = 400
const VALUES = slot<Values | undefined>('values', undefined)

/** `like`: the line a new one is a copy of; its own name, numbers and places to lock are its own. */
function Editor({ line, like }: Record<'line' | 'like', Schemas['LineOut'] | null>) {
  const navigate = useNavigate()
  const client = useQueryClient()
  const catalogue = useQuery(catalogueOptions).data
  const place = line ? `line.${line.id}` : like ? `line.new.like.${like.id}` : 'line.new'
  const { draft, touched, others, change, clear } = useDraft(place, () =>
    like ? copyOf(like.spec) : draftOf(line?.name ?? '', line?.spec ?? null),
  )
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [general, setGeneral] = useState('')
  const unit = useUnit()
  const mayChange = useMay('change values of the card')
  const values = VALUES.of(draft) ?? (line ?? like)?.values ?? {}
  const { spec, cellAt } = specOf(draft)
  const set = (key: string, value: unknown) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
  const word = (key: string) => String(draft.choices[key] ?? '')
  const family = word('family')
  const held = [word('driver.connection'), word('driven.connection')]
  const screwed = held.filter((_, i) => Number(draft.cells[`${SIDES[i]!}.screws`]?.text ?? 0) > 0)
  const asks = { family, held, screwed, drives: word('driven.drawn_as'), backstop: draft.choices.backstop === true }
  const asked = askedBy(catalogue, asks)
  useEffect(() => {
    if (Object.keys(problems).length === 0) return
    const first = document.querySelector<HTMLElement>('[data-bench] [aria-invalid=true], [data-bench] [data-amiss] button')
    first?.focus({ preventScroll: true })
    first?.scrollIntoView({ block: 'center' })
  }, [problems])
  const save = async () => {
    const reasons = [...Object.values(REASONS.of(draft)), word('reason').trim()].filter(Boolean)
    const reason = [...new Set(reasons)].join('; ').slice(0, MOST_LETTERS)
    const body = JSON.stringify({ name: word('name'), version: line?.version ?? 0, spec, values, reason })
    try {
      const saved = line
        ? await send<Schemas['LineOut']>('PUT', `/api/lines/${line.id}`, body)
        : await post<Schemas['LineOut']>('/api/lines', body)
      clear()
      await client.invalidateQueries()
      navigate(`/lines/${saved.id}`)
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      const here: Record<string, string> = {}
      const elsewhere: string[] = []
      for (const [path, message] of Object.entries(sayEach(why.problems, unit))) {
        const at = cellAt[path] ?? path.replace(/^spec\.coupling\.|^spec\./, '')
        here[at] = message
        if (!cellAt[path] && !WORDS_MARKED.test(at)) elsewhere.push(message)
      }
      setProblems(here)
      const fields = Object.keys(here).length
      setGeneral(
        elsewhere.join(' ') ||
          `${fields === 1 ? '1 field needs' : `${fields} fields need`} attention. The first has the focus.`,
      )
    }
  }
  const takeSize = (size: Schemas['CouplingSizeOut']) =>
    change({
      ...draft,
      choices: {
        ...draft.choices,
        family: size.family,
        series: size.series,
        size: size.size,
        values: { ...values, ...size.values },
      },
    })
  const cell = { draft, change, problems }
  const isDrawn = useIsWide()
  const ways = Object.keys(catalogue?.asked_by_connection ?? Object.fromEntries(held.map((way) => [way, []])))
  const of = (side: Side) => ({ side, set, ways, ...cell })
  return (
    <Sheet
      title={line ? `Change ${line.name}` : like ? `New line like ${like.name}` : 'New machine line'}
      note="Type in the sheet’s unit, or add a unit: 2 3/8 in, 60 mm"
    >
      <Bench data-bench>
        <Head>
          <Words label="Name of the line" value={word('name')} onChange={(v) => set('name', v)} problem={problems.name} />
          <LabelledCell cell="speed" label="Speed" kind="number" unit="rpm" {...cell} />
          {!!catalogue?.sizes.length && (
            <Pick
              label="From the catalogue"
              options={['', ...catalogue.sizes.map((s) => `${s.series} ${s.size}`)]}
              value=""
              onChange={(name) => {
                const size = catalogue.sizes.find((s) => `${s.series} ${s.size}` === name)
                if (size) takeSize(size)
              }}
            />
          )}
        </Head>
        {isDrawn ? (
          <LineOnDrawing spec={drawable(spec)} of={of} />
        ) : (
          <Drawing>
            <LineDrawing spec={drawable(spec)} />
          </Drawing>
        )}
        <Form>
          <section>
            <h2>Line</h2>
            <Choice
              label="Which machine can be moved?"
              options={SIDES}
              words={{ driver: word('driver.name') || 'driver', driven: word('driven.name') || 'driven' }}
              value={MOVABLE.of(draft)}
              onChange={(v) => set('movable', v)}
            />
            <Choice
              label="Backstop on this line"
              options={BACKSTOP}
              value={BACKSTOP[draft.choices.backstop ? 1 : 0]!}
              onChange={(v) => set('backstop', v === BACKSTOP[1])}
            />
            <LabelledCell
              cell="hours"
              label="Runs a day"
              kind="number"
              unit="h"
              detail="on a usual day; empty if all day. What is due by hours goes by it"
              {...cell}
            />
            <Words label="Purpose" unit="optional" value={word('purpose')} onChange={(v) => set('purpose', v)} long />
            <h2>Isolation points</h2>
            <IsolationPoints draft={draft} set={set} problems={problems} />
          </section>
          {SIDES.map((side) => (
            <section key={side}>
              <h2>{side === 'driver' ? 'Driver' : 'Driven machine'}</h2>
              <MachineFields {...of(side)} isDrawn={isDrawn} />
            </section>
          ))}
          <section className="wide">
            <h2>Coupling</h2>
            <div className="three">
              <Pick
                label="Family"
                options={catalogue?.families ?? [family]}
                value={family}
                onChange={(v) => set('family', v)}
              />
              <Words label="Series" value={word('series')} onChange={(v) => set('series', v)} problem={problems.series} />
              <Words label="Size" value={word('size')} onChange={(v) => set('size', v)} problem={problems.size} />
            </div>
            <h2>Value card</h2>
            <ValueLines
              place={`${place}.card`}
              keys={asked}
              mayHave={mayHave(catalogue, family)}
              perHub={ofBothHubs(catalogue, held)}
              card={values}
              problems={ofValues(problems)}
              standing={line?.values}
              changes={line ? (mayChange ? 'with a reason' : 'asked of the lead') : 'freely'}
              onSave={(key, value, reason) => {
                const told = reason ? { ...REASONS.of(draft), [key]: reason } : REASONS.of(draft)
                change(REASONS.put(VALUES.put(draft, { ...values, [key]: value }), told))
              }}
              onSaveAll={async (more) => {
                set('values', { ...values, ...more })
                return {}
              }}
            />
          </section>
          <Foot>
            {general && <p role="alert">{general}</p>}
            {(problems.reason || word('reason')) && (
              <Words
                label="Why values that stand are changed"
                value={word('reason')}
                onChange={(v) => set('reason', v)}
                problem={problems.reason}
              />
            )}
            <MainButton data-enter-goes-here onPress={save}>
              Save the line
            </MainButton>
            {touched && <TypedBy others={others} />}
            <Discard
              label="Leave without saving"
              others={touched ? others : ''}
              onDiscard={() => {
                clear()
                navigate((line ?? like) ? `/lines/${(line ?? like)?.id}` : '/')
              }}
            />
          </Foot>
        </Form>
      </Bench>
    </Sheet>
  )
}

const Drawing = styled.div`
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--ink);
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 2;
  svg { display: block; max-height: 190px; }
  .read { font-family: var(--read); }
`
const Bench = styled.div`
  padding-top: 10px;
`
const Head = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 8px 32px;
  align-items: end;
  padding: 0 16px 10px;
  max-width: 1032px;
  margin: 0 auto;
`
const Form = styled.div`
  margin-top: 10px;
  border-top: 1.25px solid var(--ink);
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  section { padding: 10px 16px 20px; display: flex; flex-direction: column; gap: 8px; border-right: 0.75px solid var(--line); }
  .wide { grid-column: 1 / -1; border-top: 1.25px solid var(--ink); }
  .three { display: grid; grid-template-columns: repeat(auto-fit, minmax(120px, 1fr)); gap: 10px; }
  h2 { font-size: var(--fs-sub); font-weight: 600; }
  button { align-self: flex-start; }
  @media (max-width: 860px) { grid-template-columns: minmax(0, 1fr); }
`
const Foot = styled.div`
  grid-column: 1 / -1;
  padding: 12px 16px 28px;
  border-top: 1.25px solid var(--ink);
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  p { flex-basis: 100%; font-weight: 600; }
`
