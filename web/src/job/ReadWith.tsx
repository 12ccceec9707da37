import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { usableOptions } from '../api/queries'
import { type Draft, slot } from '../benches/draft'
import { Pick } from '../kit/Pick'

const NOT_OF_IT = 'not in the register'
const KEY = 'anvil.read-with'
const chosenOf = (kind: string) => slot<string | undefined>(`with.${kind}`, undefined)

/** What the last reading of this sort was taken with, all of it: the next one most likely is too. */
function remembered(sort: string): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(`${KEY}.${sort}`) ?? '{}')
  } catch {
    return {}
  }
}

/** Which instruments of the register a reading is taken with; those out of date or withdrawn are not offered. */
export function useReadWith(kinds: readonly string[], draft: Draft) {
  const { data = [] } = useQuery({ ...usableOptions, enabled: kinds.length > 0 })
  const usable = data.filter((one) => kinds.includes(one.kind))
  const offered = kinds.filter((kind) => usable.some((one) => one.kind === kind))
  const sort = kinds.join()
  const last = remembered(sort)
  const value = (kind: string) => {
    const name = chosenOf(kind).of(draft) ?? last[kind]
    return usable.some((one) => one.kind === kind && one.name === name) ? name! : ''
  }
  const named: Schemas['ReadWithIn'][] = offered.map((kind) => ({ kind, name: value(kind) })).filter((one) => one.name !== '')
  const keep = () =>
    localStorage.setItem(`${KEY}.${sort}`, JSON.stringify(Object.fromEntries(named.map(({ kind, name }) => [kind, name]))))
  return { offered, usable, value, named, keep }
}

interface ReadWithProps {
  of: ReturnType<typeof useReadWith>
  draft: Draft
  change: (draft: Draft) => void
}

export function ReadWith({ of, draft, change }: ReadWithProps) {
  if (of.offered.length === 0) return null
  return (
    <Row>
      {of.offered.map((kind) => (
        <Pick
          key={kind}
          label={`Read with, ${kind}`}
          options={[NOT_OF_IT, ...of.usable.filter((one) => one.kind === kind).map((one) => one.name)]}
          value={of.value(kind) || NOT_OF_IT}
          onChange={(name) => change(chosenOf(kind).put(draft, name === NOT_OF_IT ? '' : name))}
        />
      ))}
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  padding: 8px 16px;
  border-top: 1px solid var(--line);
`
