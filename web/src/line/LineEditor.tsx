import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Fragment, useEffect, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { post, Refused, type Schemas, send } from '../api/client'
import { catalogueOptions, lineOptions } from '../api/queries'
import type { CellsProps } from '../benches/bench'
import { type Draft, slot } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { MACHINES } from '../drawing/machines'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { MainButton, PlainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Words } from '../kit/Field'
import { Pick } from '../kit/Pick'
import { askedBy, mayHave, ofBothHubs } from './asked'
import { LineDrawing } from './LineDrawing'
import { draftOf, drawable, GEAR, MOST_FEET, MOVABLE, POINTS, SIDES, type Side, specOf } from './lineDraft'
import { ValueLines } from './ValueLines'

const FLOATS = ['fixed', 'floats'] as const
const HALVES = ['flexible', 'rigid'] as const
const BACKSTOP = ['none', 'one holds the load'] as const
const BALANCED = ['full key or none', 'half key'] as const
/** Words that show their own problem under them. */
const WORDS_MARKED = /^(name|series|size|(driver|driven)\.(name|serial)|isolation_points\.\d+\.(energy|point))$/
type Values = Record<string, Schemas['Value']>

/** Create a line, or change one. */
export function LineEditor() {
  const { lineId } = useParams()
  const { data: line, error } = useQuery({ ...lineOptions(lineId ?? ''), enabled: !!lineId })
  // What the catalogue asks for is part of the form: coming later, it pushes the buttons away from under a finger.
  const isCatalogueOnItsWay = useQuery(catalogueOptions).isPending
  if (lineId && !line) return error ? <Lost why={error} /> : null
  if (isCatalogueOnItsWay) return null
  return <Editor key={lineId ?? 'new'} line={line ?? null} />
}

/** The figures typed here; nothing typed yet are those of the line. */
const VALUES = slot<Values | undefined>('values', undefined)

function Editor({ line }: { line: Schemas['LineOut'] | null }) {
  const navigate = useNavigate()
  const client = useQueryClient()
  const catalogue = useQuery(catalogueOptions).data
  const { draft, change, clear } = useDraft(`line.${line?.id ?? 'new'}`, () => draftOf(line?.name ?? '', line?.spec ?? null))
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [general, setGeneral] = useState('')
  const values = VALUES.of(draft) ?? line?.values ?? {}
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
    const first = document.querySelector<HTMLElement>('[data-bench] [aria-invalid=true]')
    first?.focus({ preventScroll: true })
    first?.scrollIntoView({ block: 'center' })
  }, [problems])
  const save = async () => {
    const body = JSON.stringify({ name: word('name'), version: line?.version ?? 0, spec, values })
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
      for (const { path, message } of why.problems) {
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
  return (
    <Sheet
      title={line ? `Change ${line.name}` : 'New machine line'}
      note="Type in the sheet’s unit, or add a unit: 2 3/8 in, 60 mm"
    >
      <Drawing>
        <LineDrawing spec={drawable(spec)} />
      </Drawing>
      <Form data-bench>
        <section>
          <h2>Line</h2>
          <Words label="Name of the line" value={word('name')} onChange={(v) => set('name', v)} problem={problems.name} />
          <LabelledCell cell="speed" label="Speed" kind="number" unit="rpm" {...cell} />
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
          <Words label="Purpose" unit="optional" value={word('purpose')} onChange={(v) => set('purpose', v)} long />
          <h2>Isolation points</h2>
          <Points draft={draft} set={set} problems={problems} />
        </section>
        {SIDES.map((side) => (
          <section key={side}>
            <h2>{side === 'driver' ? 'Driver' : 'Driven machine'}</h2>
            <Words
              label="Name"
              value={word(`${side}.name`)}
              onChange={(v) => set(`${side}.name`, v)}
              problem={problems[`${side}.name`]}
            />
            <Pick
              label="Machine type"
              options={Object.keys(MACHINES)}
              value={word(`${side}.drawn_as`)}
              onChange={(v) => set(`${side}.drawn_as`, v)}
            />
            <Words
              label="Serial number"
              unit="optional"
              value={word(`${side}.serial`)}
              onChange={(v) => set(`${side}.serial`, v)}
              problem={problems[`${side}.serial`]}
            />
            <LabelledCell cell={`${side}.power`} label="Power" detail="if known" kind="number" unit="kW" {...cell} />
            <LabelledCell cell={`${side}.shaft`} label="Shaft diameter" {...cell} />
            <LabelledCell cell={`${side}.hub`} label="Hub outside diameter" {...cell} />
            <LabelledCell cell={`${side}.hub_length`} label="Hub length" {...cell} />
            <LabelledCell cell={`${side}.screws`} label="Set screws in the hub" kind="number" unit="" {...cell} />
            <Pick
              label="Hub held by"
              options={Object.keys(catalogue?.asked_by_connection ?? { [word(`${side}.connection`)]: [] })}
              value={word(`${side}.connection`)}
              onChange={(v) => set(`${side}.connection`, v)}
            />
            {word('family') === GEAR && (
              <Choice
                label="This half is"
                options={HALVES}
                words={{ flexible: 'flexible, with a sleeve', rigid: 'rigid, bolted on' }}
                value={word(`${side}.half`) as (typeof HALVES)[number]}
                onChange={(v) => set(`${side}.half`, v)}
              />
            )}
            <Choice
              label="Rotor balanced with"
              options={BALANCED}
              value={BALANCED[draft.choices[`${side}.half_key`] ? 1 : 0]!}
              onChange={(v) => set(`${side}.half_key`, v === 'half key')}
            />
            <Choice
              label="Shaft end float"
              options={FLOATS}
              value={FLOATS[draft.choices[`${side}.floats`] ? 1 : 0]!}
              onChange={(v) => set(`${side}.floats`, v === FLOATS[1])}
            />
            <LabelledCell cell={`${side}.bolts`} label="Foot bolts" kind="number" unit="" {...cell} />
            {footPlaces(draft, side).map((i) => (
              <Fragment key={`foot ${i + 1}`}>
                <LabelledCell
                  cell={`${side}.foot${i}`}
                  label={i === 0 ? 'Coupling to near feet' : i === 1 ? 'Coupling to far feet' : `Coupling to feet ${i + 1}`}
                  {...cell}
                />
                <LabelledCell
                  cell={`${side}.rise${i}`}
                  label="Thermal rise, cold to hot"
                  detail="if measured, or the maker's figure"
                  {...cell}
                />
              </Fragment>
            ))}
            {Number(draft.choices[`${side}.feet`]) < MOST_FEET && (
              <PlainButton onPress={() => set(`${side}.feet`, Number(draft.choices[`${side}.feet`]) + 1)}>
                Add feet
              </PlainButton>
            )}
          </section>
        ))}
        <section className="wide">
          <h2>Coupling</h2>
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
            place={`line.${line?.id ?? 'new'}.card`}
            keys={asked}
            mayHave={mayHave(catalogue, family)}
            perHub={ofBothHubs(catalogue, held)}
            card={values}
            onSave={(key, value) => set('values', { ...values, [key]: value })}
            onSaveAll={async (more) => {
              set('values', { ...values, ...more })
              return {}
            }}
          />
        </section>
        <Foot>
          {general && <p role="alert">{general}</p>}
          <MainButton data-enter-goes-here onPress={save}>
            Save the line
          </MainButton>
          <PlainButton
            onPress={() => {
              clear()
              navigate(line ? `/lines/${line.id}` : '/')
            }}
          >
            Leave without saving
          </PlainButton>
        </Foot>
      </Form>
    </Sheet>
  )
}

/** 0, 1, … for each foot of a machine. */
function footPlaces(draft: Draft, side: Side) {
  return [...Array(Number(draft.choices[`${side}.feet`])).keys()]
}

function Points({
  draft,
  set,
  problems,
}: Pick<CellsProps, 'draft' | 'problems'> & { set: (key: string, value: unknown) => void }) {
  const points = POINTS.of(draft)
  const put = (i: number, key: 'energy' | 'point', value: string) =>
    set(
      'points',
      points.map((p, at) => (at === i ? { ...p, [key]: value } : p)),
    )
  return (
    <>
      {points.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: points have no other name than their place
        <div className="three" key={i}>
          <Words
            label="Energy"
            value={p.energy}
            onChange={(v) => put(i, 'energy', v)}
            problem={problems[`isolation_points.${i}.energy`]}
          />
          <Words
            label="Isolated at"
            value={p.point}
            onChange={(v) => put(i, 'point', v)}
            problem={problems[`isolation_points.${i}.point`]}
          />
        </div>
      ))}
      <PlainButton onPress={() => set('points', [...points, { energy: '', point: '' }])}>Add an isolation point</PlainButton>
    </>
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
const Form = styled.div`
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
