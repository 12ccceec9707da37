import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { type Schemas, send } from '../api/client'
import { catalogueOptions, lineOptions } from '../api/queries'
import { PlainButton } from '../kit/Button'
import { useMay } from '../session/may'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { useJob } from './context'

type Value = Schemas['Value']

const KEPT = 'Kept with the line: the next job starts with these values.'
const same = (a: Value | undefined, b: Value) => JSON.stringify(a) === JSON.stringify(b)

/** What the value card of this job has and the card of its line has not: kept there for the next job, if somebody wants it. */
export function KeepValues() {
  const job = useJob()
  const client = useQueryClient()
  const unit = useUnit()
  const mayKeep = useMay('add and change lines')
  const mayChange = useMay('change values of the card')
  const line = useQuery(lineOptions(job.line_id)).data
  const kinds = useQuery(catalogueOptions).data?.kinds ?? []
  const [said, setSaid] = useState('')
  if (!line || !mayKeep) return null
  const news = Object.entries(job.card).filter(([key, value]) => !same(line.values[key], value))
  if (news.length === 0) return said ? <p role="status">{said}</p> : null
  const title = (key: string) => kinds.find((kind) => kind.key === key.split('@')[0])?.title ?? key
  const keep = async () => {
    const values = { ...line.values, ...Object.fromEntries(news) }
    try {
      await send(
        'PUT',
        `/api/lines/${line.id}`,
        JSON.stringify({
          name: line.name,
          version: line.version,
          spec: line.spec,
          values,
          reason: `entered in job ${job.number}`,
        }),
      )
      setSaid(mayChange ? KEPT : `${KEPT} What stood there already waits for the lead.`)
      await client.invalidateQueries({ queryKey: lineOptions(job.line_id).queryKey })
    } catch (why) {
      setSaid(sayRefusal(why, unit))
    }
  }
  return (
    <Kept>
      <p>Entered in this job and not on the card of the line: {news.map(([key]) => title(key)).join(', ')}.</p>
      <PlainButton onPress={keep}>
        {news.length === 1 ? 'Keep it with the line' : `Keep these ${news.length} with the line`}
      </PlainButton>
      {said && <p role="alert">{said}</p>}
    </Kept>
  )
}

const Kept = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  padding: 10px 0;
  p { flex: 1 1 300px; }
`
