import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-aria-components'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, bring, post, Refused, type Schemas, send } from '../api/client'
import { catalogueOptions, sizeChangesOptions, sizeRequestsOptions } from '../api/queries'
import { slot } from '../benches/draft'
import { useDraft } from '../benches/useDraft'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { MainButton, PlainButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { FileButton } from '../kit/FileButton'
import { Pick } from '../kit/Pick'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { mayHave } from './asked'
import { ChangeList } from './LineChanges'
import { Requests } from './Requests'
import { ValueLines } from './ValueLines'

type Size = Schemas['CouplingSizeOut']

const nameOf = (size: Pick<Size, 'series' | 'size'>) => `${size.series} ${size.size}`
/** Every word somebody typed is somewhere in its names. */
const matches = (size: Size, find: string) =>
  find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => `${nameOf(size)} ${size.family}`.toLowerCase().includes(word))

/** The site's coupling sizes: found as one types, their values changed with their history, in and out as a file. */
export function CatalogueView() {
  const { data: catalogue, error } = useQuery(catalogueOptions)
  const [at, goTo] = useSearchParams()
  const [find, setFind] = useState('')
  const asked = useQuery(sizeRequestsOptions).data ?? []
  const mayKeep = useMay('add and change lines')
  if (!catalogue) return error ? <Lost why={error} /> : null
  const { sizes } = catalogue
  const found = sizes.filter((size) => matches(size, find))
  const chosen = sizes.find((size) => size.series === at.get('series') && size.size === at.get('size'))
  const open = ({ series, size }: Pick<Size, 'series' | 'size'>) => goTo({ series, size })
  return (
    <Sheet
      title="Catalogue"
      note={sizes.length === 1 ? '1 coupling size' : `${sizes.length} coupling sizes`}
      rail={
        <Rail>
          <Words label="Find a size" value={find} onChange={setFind} />
          <ul aria-label="Sizes">
            {found.map((size) => (
              <li key={nameOf(size)}>
                <button type="button" aria-current={size === chosen || undefined} onClick={() => open(size)}>
                  {nameOf(size)}
                  <small>
                    {size.family}
                    {asked.some((one) => nameOf(one) === nameOf(size)) && <b>, values asked of the lead</b>}
                  </small>
                </button>
              </li>
            ))}
          </ul>
          {found.length === 0 && <p>No size matches.</p>}
          {mayKeep && <PlainButton onPress={() => goTo({ new: '' })}>Add a size</PlainButton>}
          <p>
            Take it out as <a href="/api/couplings/file?form=csv">CSV</a> <a href="/api/couplings/file?form=json">JSON</a>
          </p>
          {mayKeep && <TakeIn />}
          <Link href="/">To the floor</Link>
        </Rail>
      }
    >
      {chosen ? (
        <OneSize key={nameOf(chosen)} size={chosen} catalogue={catalogue} mayKeep={mayKeep} />
      ) : at.has('new') && mayKeep ? (
        <NewSize families={catalogue.families} onMade={open} />
      ) : (
        <Empty>Choose a size: its values, where each comes from, and what was changed.</Empty>
      )}
    </Sheet>
  )
}

interface OneSizeProps {
  size: Size
  catalogue: Schemas['CatalogueOut']
  mayKeep: boolean
}

/** One size with its value card and what was changed on it. */
function OneSize({ size, catalogue, mayKeep }: OneSizeProps) {
  const client = useQueryClient()
  const unit = useUnit()
  const changes = useQuery(sizeChangesOptions(size.series, size.size)).data ?? []
  const mayChange = useMay('change values of the card')
  const asks = (useQuery(sizeRequestsOptions).data ?? []).filter((one) => nameOf(one) === nameOf(size))
  const put = async (values: Size['values'], reason = '') => {
    // As it is now: what another window has changed meanwhile stays.
    const { sizes } = await client.fetchQuery({ ...catalogueOptions, staleTime: 0 })
    const now = sizes.find((one) => nameOf(one) === nameOf(size)) ?? size
    const why = reason && `?reason=${encodeURIComponent(reason)}`
    await send('PUT', `/api/couplings/sizes${why}`, JSON.stringify({ ...now, values: { ...now.values, ...values } }))
    await client.invalidateQueries({ queryKey: catalogueOptions.queryKey })
  }
  const asked = catalogue.asked_by_family[size.family] ?? []
  const more = [...mayHave(catalogue, size.family), ...Object.values(catalogue.asked_by_connection).flat()]
  const others = Object.keys(size.values).filter((key) => !asked.includes(key))
  return (
    <One data-bench>
      <section>
        <h2>
          {nameOf(size)} <small>{size.family}</small>
        </h2>
        <p>New lines take these values over. A line that has this size keeps its own.</p>
        <ValueLines
          place={`catalogue.${nameOf(size)}`}
          keys={[...asked, ...others]}
          mayHave={[...new Set(more)].filter((key) => !asked.includes(key) && !others.includes(key))}
          card={size.values}
          canEdit={mayKeep}
          changes={mayChange ? 'with a reason' : 'asked of the lead'}
          onSave={(key, value, reason) => put({ [key]: value }, reason)}
          onSaveAll={(values) =>
            put(values).then(
              () => ({}),
              (why) => Object.fromEntries(Object.keys(values).map((key) => [key, sayRefusal(why, unit)])),
            )
          }
        />
      </section>
      <section>
        <Requests
          requests={asks}
          decide={(id, accept) =>
            bring(
              api.POST('/api/couplings/requests/{request_id}', { params: { path: { request_id: id } }, body: { accept } }),
            )
          }
        />
        <ChangeList
          changes={changes.map((change) => ({
            ...change,
            key: change.id,
            made: change.changes.length === 0 && 'Size added',
          }))}
        />
      </section>
    </One>
  )
}

const WORDS = { family: slot('family', ''), series: slot('series', ''), size: slot('size', '') }

function NewSize({ families, onMade }: { families: readonly string[]; onMade: (size: Size) => void }) {
  const client = useQueryClient()
  const unit = useUnit()
  const { draft, change, clear } = useDraft('catalogue.new', () => ({ cells: {}, choices: {} }))
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [family, series, size] = [WORDS.family.of(draft) || families[0]!, WORDS.series.of(draft), WORDS.size.of(draft)]
  const sizes = useQuery(catalogueOptions).data?.sizes ?? []
  const make = async () => {
    const made: Size = { family, series: series.trim(), size: size.trim(), values: {} }
    if (sizes.some((one) => nameOf(one) === nameOf(made))) return setProblems({ size: `${nameOf(made)} is there already.` })
    try {
      await send('PUT', '/api/couplings/sizes', JSON.stringify(made))
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      return setProblems({ size: sayRefusal(why, unit) })
    }
    await client.invalidateQueries({ queryKey: catalogueOptions.queryKey })
    clear()
    onMade(made)
  }
  return (
    <One data-bench>
      <section>
        <h2>Add a size</h2>
        <Pick label="Family" options={families} value={family} onChange={(v) => change(WORDS.family.put(draft, v))} />
        <Words label="Series" value={series} onChange={(v) => change(WORDS.series.put(draft, v))} problem={problems.series} />
        <Words label="Size" value={size} onChange={(v) => change(WORDS.size.put(draft, v))} problem={problems.size} />
        <MainButton data-enter-goes-here onPress={make}>
          Add the size
        </MainButton>
      </section>
    </One>
  )
}

/** A file of the catalogue, all of it or nothing. */
function TakeIn() {
  const client = useQueryClient()
  const [said, setSaid] = useState('')
  const [problem, setProblem] = useState('')
  const read = async (chosen: File) => {
    setSaid('')
    setProblem('')
    try {
      const { sizes } = await post<Schemas['TakenIn']>('/api/couplings/file', chosen)
      await client.invalidateQueries()
      setSaid(sizes === 0 ? 'Nothing in it was new.' : `${sizes === 1 ? '1 size was' : `${sizes} sizes were`} taken in.`)
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setProblem(`Nothing was taken in. ${why.placed.slice(0, MOST_SAID).join(' ')}`)
    }
  }
  return (
    <>
      <FileButton label="Take a file in" file="Catalogue file" accept=".csv,.json,text/csv,application/json" onFile={read} />
      {said && <p role="status">{said}</p>}
      {problem && <p role="alert">{problem}</p>}
    </>
  )
}

const MOST_SAID = 4

const Rail = styled.div`
  padding: 12px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  li button { display: block; width: 100%; min-height: var(--touch); padding: 6px 10px; text-align: left; font-weight: 500; border-bottom: 0.75px solid var(--line); line-height: 1.15; }
  li button[aria-current] { background: var(--blue-wash); }
  small { display: block; color: var(--ink-2); font-weight: 400; font-size: var(--fs-small); }
  a { display: inline-flex; align-items: center; justify-content: center; min-height: var(--touch); min-width: var(--touch); }
  p { font-size: var(--fs-text); }
  p[role='alert'] { font-weight: 600; }
`
const One = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  section { padding: 12px 16px; display: flex; flex-direction: column; gap: 8px; }
  section + section { border-left: 1.25px solid var(--line); small { display: block; color: var(--ink-2); font-size: var(--fs-small); } li { padding: 6px 0; border-bottom: 0.75px solid var(--line); line-height: 1.25; } }
  h2 { font-size: var(--fs-title); font-weight: 600; }
  h2 small { font-size: var(--fs-text); font-weight: 400; color: var(--ink-2); }
  @media (max-width: 860px) { grid-template-columns: minmax(0, 1fr); }
`
const Empty = styled.p`
  padding: 16px;
  color: var(--ink-2);
`
