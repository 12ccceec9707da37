import { useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused, type Schemas } from '../api/client'
import { STREAM, useStream } from '../benches/alignment/useStream'
import { useEvaluate } from '../benches/useEvaluate'
import { Num } from '../kit/Allowance'
import { PlainButton } from '../kit/Button'
import { showLength } from '../units/length'
import { useUnit } from '../units/preferences'

type Foot = Schemas['FootToGo']
type Clocked = { clock: number; value_mm: number }
/** What was seen since the watch began, and the last reading it holds: kept with the slip, whatever comes and goes around it. */
export interface Watched {
  upTo: number
  planes: readonly [Clocked[], Clocked[]]
}

const AVERAGED = 5 // readings at the start and at the end, so that the scatter does not show at a far foot

/** How far each foot still has to go: from the dials at the feet, or from the laser's two planes where they watch. */
export function useJacking(
  feet: Foot[],
  cellAt: Record<string, string>,
  planesAt: readonly number[] | null,
  seen: Watched | null,
) {
  const watched = planesAt && seen?.planes.every((plane) => plane.length > 0) ? seen.planes : null
  const planes = watched?.map((seenHere, i) => ({
    x_mm: planesAt?.[i] ?? 0,
    first: seenHere.slice(0, AVERAGED),
    now: seenHere.slice(-AVERAGED),
  }))
  const input = { feet, ...(planes && { planes }) }
  const some = watched !== null || feet.some((foot) => foot.dial_mm !== null)
  return useEvaluate('jack', { input: some ? input : null, typed: {}, cellAt, lacking: '' }, {})
}

interface WatchProps {
  jobId: string
  step: string
  seen: Watched | null
  onSeen: (seen: Watched | null) => void
  general: string
}

/** The laser left standing while the machine is moved: what it shows since the watch began. */
export function LaserWatch({ jobId, step, seen, onSeen, general }: WatchProps) {
  const [said, setSaid] = useState('')
  const watching = seen !== null
  useStream({
    isOn: watching,
    jobId,
    step,
    after: () => seen?.upTo ?? 0,
    onProblem: setSaid,
    take: (got) => {
      if (!seen) return
      setSaid(got.device && seen.planes[0].length ? `${got.device} watches.` : 'Waiting for the laser.')
      if (got.readings.length === 0) return
      const of = (plane: 0 | 1) => [
        ...seen.planes[plane],
        ...got.readings.filter((r) => r.plane === plane).map(({ clock, value_mm }) => ({ clock, value_mm })),
      ]
      onSeen({ upTo: got.readings.at(-1)?.id ?? seen.upTo, planes: [of(0), of(1)] })
    },
  })
  const begin = async () => {
    try {
      const path = { job_id: jobId, step }
      const got = await bring(api.GET(STREAM, { params: { path, query: { after: 0 } } }))
      setSaid('Waiting for the laser.')
      onSeen({ upTo: got.readings.at(-1)?.id ?? 0, planes: [[], []] })
    } catch (why) {
      setSaid(why instanceof Refused ? why.message : String(why))
    }
  }
  return (
    <Watch>
      <PlainButton onPress={() => (watching ? onSeen(null) : begin())}>
        {watching ? 'Stop watching' : 'Watch the move with the laser'}
      </PlainButton>
      <p aria-live="polite">
        {watching
          ? said
          : 'Heads left standing at 3 or 9 o’clock for a slide, at 12 or 6 for a lift; the other machine stays.'}
        {watching && general && ` ${general}`}
      </p>
    </Watch>
  )
}

/** One foot's rest of the way. */
export function LeftToGo({ result, name }: { result: Schemas['JackResult'] | null; name: string }) {
  const unit = useUnit()
  const foot = result?.feet.find((f) => f.name === name)
  if (!foot || foot.left_mm === null) return null
  const [plus, minus] = result?.way === 'slide' ? ['toward 3', 'toward 9'] : ['up', 'down']
  return (
    <Left aria-live="polite" data-there={foot.there || undefined}>
      {foot.there ? (
        'there'
      ) : foot.there === null ? (
        `cannot tell: ±${showLength(foot.plus_minus_mm ?? 0, unit)} ${unit}`
      ) : (
        <>
          <Num>{showLength(Math.abs(foot.left_mm), unit)}</Num> {unit} to go {foot.left_mm > 0 ? plus : minus}
        </>
      )}
    </Left>
  )
}

const Watch = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  p { flex: 1 1 240px; font-size: var(--fs-text); }
`
const Left = styled.p`
  text-align: right;
  font-weight: 600;
  font-size: var(--fs-title);
  &[data-there] { font-size: var(--fs-sub); }
`
