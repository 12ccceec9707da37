import { useRef, useState } from 'react'
import styled from 'styled-components'
import { api, bring, Refused } from '../../api/client'
import { clockPoint } from '../../drawing/clock'
import { Num } from '../../kit/Allowance'
import { PlainButton } from '../../kit/Button'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { BenchProps } from '../bench'
import { streamAt } from './draft'
import { STREAM, useStream } from './useStream'

const STALLS_AFTER_S = 4
const OVER_AFTER_S = 20
const PLANES = [0, 1] as const

/** Readings as the laser streams them while the shafts are turned: where it has been, how many, how good it is. */
export function LaserSweep({
  draft,
  change,
  stream,
  result,
}: Pick<BenchProps<'alignment'>, 'draft' | 'change' | 'stream' | 'result'>) {
  const unit = useUnit()
  const [listening, setListening] = useState(false)
  const [said, setSaid] = useState('')
  const [stalled, setStalled] = useState(false)
  const [jobId, step] = [stream?.jobId ?? '', stream?.step ?? '']
  const seen = useRef(0)
  useStream({
    isOn: listening,
    jobId,
    step,
    after: () => seen.current,
    onProblem: setSaid,
    take: (got) => {
      seen.current = got.readings.at(-1)?.id ?? seen.current
      const quiet = got.last_at === null ? 0 : (Date.parse(got.now) - Date.parse(got.last_at)) / 1000
      setStalled(quiet > STALLS_AFTER_S)
      setSaid(got.device || 'no instrument yet')
      if (quiet > OVER_AFTER_S) {
        setListening(false)
        setSaid(`${got.device} has gone quiet: the sweep is taken as done`)
      }
      if (got.readings.length === 0) return
      const added = Object.fromEntries(
        PLANES.map((plane) => [
          streamAt(plane).key,
          [
            ...streamAt(plane).of(draft),
            ...got.readings.filter((r) => r.plane === plane).map(({ clock, value_mm }) => ({ clock, value_mm })),
          ],
        ]),
      )
      change({ ...draft, choices: { ...draft.choices, ...added } })
    },
  })
  const anew = async () => {
    const at = { job_id: jobId, step }
    try {
      await bring(api.DELETE(STREAM, { params: { path: at } }))
      seen.current = 0
      change(streamAt(1).put(streamAt(0).put(draft, []), []))
      setListening(true)
      setSaid('waiting for the instrument')
    } catch (why) {
      setSaid(why instanceof Refused ? why.message : String(why))
    }
  }
  if (!stream) return <p>A laser streams into a job’s step; here its readings are typed at any places.</p>
  const streamed = PLANES.map((plane) => streamAt(plane).of(draft))
  const some = streamed[0]!.length > 0
  const swept = result && Math.min(...result.swept_deg)
  const sigma = result?.offset_v_sigma_mm
  return (
    <Sweep>
      {PLANES.map((plane) => (
        <Ring key={plane} plane={plane} clocks={streamed[plane]!.map((r) => r.clock)} />
      ))}
      <div>
        <PlainButton onPress={anew}>{some ? 'Start the sweep anew' : 'Take a sweep from the laser'}</PlainButton>
        {listening && <PlainButton onPress={() => setListening(false)}>Sweep is done</PlainButton>}
        <p aria-live="polite">
          {said}
          {listening && stalled && some && '; nothing came for a while'}
        </p>
        {some && (
          <p>
            <Num>{streamed.flat().length}</Num> readings
            {swept !== null && (
              <>
                {' '}
                over <Num>{Math.round(swept)}°</Num>
              </>
            )}
            {sigma !== null && sigma !== undefined && (
              <>
                ; offset ± <Num>{showLength(2 * sigma, unit, 3)}</Num>
              </>
            )}
          </p>
        )}
      </div>
    </Sweep>
  )
}

function Ring({ plane, clocks }: { plane: number; clocks: readonly number[] }) {
  return (
    <svg
      viewBox="-70 -76 140 150"
      width="140"
      height="150"
      role="img"
      aria-label={`${NAMES[plane]}: ${clocks.length} readings`}
    >
      <circle r="52" fill="none" stroke="var(--line)" strokeWidth="1.25" />
      <path d="M-8 0H8M0-8V8" stroke="var(--ink)" />
      {clocks.slice(-400).map((clock, i) => {
        const { x, y } = clockPoint(clock, 52)
        // biome-ignore lint/suspicious/noArrayIndexKey: readings are a log, only ever appended
        return <circle key={i} cx={x} cy={y} r="3.2" fill="var(--blue)" />
      })}
      <text y="-62" textAnchor="middle" fontSize="var(--fs-note)">
        12
      </text>
      <text y="72" textAnchor="middle" fontSize="var(--fs-note)">
        {NAMES[plane]}
      </text>
    </svg>
  )
}

const NAMES = ['movable shaft', 'stationary shaft']

const Sweep = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  > div { display: flex; flex-direction: column; gap: 8px; max-width: 260px; }
  p { font-size: var(--fs-text); line-height: 1.25; }
`
