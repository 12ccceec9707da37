import { useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { Refused } from '../api/client'
import { append } from '../api/outbox'
import { EMPTY } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { sayDay } from '../drawing/overTime'
import { ShaftLine } from '../drawing/ShaftLine'
import { MainButton, PlainButton, WordButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Discard, TypedBy } from '../kit/Discard'
import { Words } from '../kit/Field'
import { useUnit } from '../units/preferences'
import { sayFigure, sayProblem, sayUnit } from '../units/say'
import {
  FIGURES,
  type Figure,
  figuresOf,
  LEAK_WORDS,
  LEAKS,
  NOISE,
  NOISE_WORDS,
  NOTE,
  ON_DAY,
  readLook,
  type Stop,
} from './round'

interface OneStopProps {
  stop: Stop
  number: number
  today: string
  isSeen: boolean
  onSaved: () => void
}

/** One line of the round: two taps and a figure, then on to the next. Nothing is touched, every guard stays on. */
export function OneStop({ stop, number, today, isSeen, onSaved }: OneStopProps) {
  const unit = useUnit()
  const navigate = useNavigate()
  const place = `round.${stop.id}`
  const { draft, touched, others: typedBy, change, clear } = useDraft(place, () => EMPTY)
  const [problems, setProblems] = useState<Record<string, string>>({})
  const [showsAll, setShowsAll] = useState(false)
  const { asked, others } = figuresOf(stop)
  const { inputs, isEmpty, unreadable } = readLook(stop, draft, unit)
  const [asksBack, setAsksBack] = useState(false)
  const save = async (confirmed: boolean) => {
    setProblems({})
    setAsksBack(false)
    try {
      await append({
        jobId: stop.id,
        body: { kind: 'look', step: stop.name, inputs: { ...inputs, confirmed } },
        ...(inputs.on ? {} : { happenedAt: Date.now() }),
        typedAt: { place, draft },
      })
      onSaved()
    } catch (why) {
      if (!(why instanceof Refused)) throw why
      setAsksBack(why.problems.every((p) => p.code === 'goes back'))
      setProblems(Object.fromEntries(why.problems.map((p) => [p.path || 'general', sayProblem(p, unit)])))
    }
  }
  const cell = (key: Figure) => (
    <LabelledCell
      key={key}
      cell={key}
      label={FIGURES[key].label}
      kind={FIGURES[key].kind}
      unit={sayUnit(FIGURES[key].unit, unit)}
      width={132}
      detail={sayBefore(stop, key, unit)}
      draft={draft}
      change={change}
      problems={problems}
    />
  )
  return (
    <Page data-bench>
      <header>
        <div>
          <h2>
            <i>{number}</i> {stop.name}
          </h2>
          <p>
            {stop.last ? `Last ${sayDay(stop.last.at)}, ${stop.last.by}` : 'Not looked at yet'}
            {stop.lamp && `. Lamp: ${stop.lamp}`}
          </p>
          {stop.open_job && <p>Job {stop.open_job} is open here. If it is at rest, go on to the next.</p>}
        </div>
        <ShaftLine spec={stop.spec} />
      </header>
      <p className="caution">It runs. Nothing is touched, every guard stays on; loose clothing and hair away.</p>
      <div className="taps">
        <Choice
          label="Leaks"
          options={LEAK_WORDS}
          value={LEAKS.of(draft) ?? null}
          onChange={(leaks) => change(LEAKS.put(draft, leaks))}
        />
        <Choice
          label="Noise"
          options={NOISE_WORDS}
          value={NOISE.of(draft) ?? null}
          onChange={(noise) => change(NOISE.put(draft, noise))}
        />
      </div>
      <div className="figures">
        {asked.map(cell)}
        {showsAll && others.map(cell)}
      </div>
      {showsAll ? (
        <div className="more">
          <Words
            label="What was seen"
            value={NOTE.of(draft)}
            onChange={(note) => change(NOTE.put(draft, note))}
            problem={problems.note}
          />
          <Words
            label="Copied from a printed sheet: the day it was read"
            type="date"
            value={ON_DAY.of(draft)}
            onChange={(on) => change(ON_DAY.put(draft, on))}
            problem={problems.on ?? problems.at}
          />
        </div>
      ) : (
        <div>
          <WordButton onPress={() => setShowsAll(true)}>More to note, or copied from a printed sheet</WordButton>
        </div>
      )}
      {problems.general && <p role="alert">{problems.general}</p>}
      <div className="foot">
        <MainButton data-enter-goes-here isDisabled={isEmpty || unreadable} onPress={() => save(false)}>
          Save and on to the next
        </MainButton>
        {asksBack && <PlainButton onPress={() => save(true)}>It is as read</PlainButton>}
        {touched && <TypedBy others={typedBy} />}
        {touched && <Discard others={typedBy} onDiscard={clear} />}
        <PlainButton onPress={() => navigate(`/lines/${stop.id}/history`)}>Its history</PlainButton>
      </div>
      {isSeen && <p role="status">Looked at today ({sayDay(today)}).</p>}
    </Page>
  )
}

/** What it was last time, and what it may be. */
function sayBefore(stop: Stop, key: Figure, unit: 'mm' | 'in'): string {
  const [was, limit] = [stop.last?.[key], stop.limits[key]]
  const say = (value: number) => sayFigure({ value, unit: FIGURES[key].unit, places: FIGURES[key].places }, unit)
  const before = was === null || was === undefined ? '' : `was ${say(was)}`
  const says = limit && (key === 'wear_mm' ? `${say(limit.value)} of wear at most` : `at most ${say(limit.value)}`)
  const most = says && `${says} (${limit.source})`
  return [before, most].filter(Boolean).join('; ')
}

const Page = styled.div`
  padding: 14px 18px 24px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-width: 900px;
  header { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 8px 24px; align-items: center; }
  header > div { flex: 1 1 280px; }
  header > svg { flex: 0 1 320px; }
  h2 { font-size: var(--fs-title); font-weight: 600; line-height: 1.1; }
  i { font: 500 var(--fs-sub) var(--read); font-style: normal; color: var(--ink-2); margin-right: 6px; }
  header p { color: var(--ink-2); }
  .caution { border-left: 6px solid var(--ink); padding-left: 10px; }
  .taps { display: flex; flex-wrap: wrap; gap: 14px 28px; }
  .figures { display: grid; grid-template-columns: repeat(auto-fit, minmax(300px, 1fr)); gap: 12px 28px; max-width: 720px; }
  .more { display: grid; gap: 12px; max-width: 520px; }
  .foot { display: flex; flex-wrap: wrap; gap: 10px; }
  .foot > :first-child { flex: 1 1 260px; }
`
