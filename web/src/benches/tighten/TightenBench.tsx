import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { clockPoint } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'
import { MainButton, PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { EntryCell } from '../../kit/EntryCell'
import { readNumber } from '../../units/length'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { type Draft, DraftReader } from '../draft'
import { LabelledCell, Zone } from '../parts'

type Result = Schemas['TightenResult']
interface Pull {
  pass: number
  bolt: number
  torque_nm: number
}

const pullsOf = (draft: Draft) => (draft.choices.pulls as Pull[] | undefined) ?? []
const PATTERNS = ['star', 'circle', 'alternate'] as const
const PATTERN_WORDS = { star: 'crosswise', circle: 'round and round', alternate: 'odd, then even' }
const SCHEMES = { '50, 75, 100 %': [0.5, 0.75, 1], 'half, full, full': [0.5, 1, 1], 'straight to torque': [1] } as const
type Scheme = keyof typeof SCHEMES

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const pulls = pullsOf(draft)
  if ('bolts' in preset) return reader.done({ pulls })
  const bolts = reader.number('bolts', 'bolts')
  const torque = reader.number('torque', 'torque_nm')
  if (bolts === null || torque === null) return reader.done(null, 'How many bolts, and to what torque?')
  const scheme = (draft.choices.scheme as Scheme | undefined) ?? '50, 75, 100 %'
  return reader.done({
    bolts: Math.round(bolts),
    torque_nm: torque,
    passes: SCHEMES[scheme],
    pattern: draft.choices.pattern ?? 'star',
    pulls,
  })
}

/** The bolt circle with the next bolt lit; each pull is logged with its torque. */
function TightenDrawing({ draft, change, preset, result, problems, entered }: BenchProps<Result>) {
  const [asked, setAsked] = useState<number | null>(null)
  const pulls = (entered?.pulls as Pull[] | undefined) ?? pullsOf(draft)
  const setPulls = (next: Pull[]) => change({ ...draft, choices: { ...draft.choices, pulls: next } })
  const next = nextTurn(result, pulls)
  const typed = draft.cells.torque_now
  const pull = (bolt: number) => {
    if (!next) return
    const turn = result!.sequence.find((t) => t.pass === next.pass && t.bolt === bolt) ?? next
    const torque = (typed && readNumber(typed.text)) || turn.torque_nm
    change({
      cells: Object.fromEntries(Object.entries(draft.cells).filter(([cell]) => cell !== 'torque_now')),
      choices: { ...draft.choices, pulls: [...pulls, { pass: turn.pass, bolt: turn.bolt, torque_nm: torque }] },
    })
    setAsked(null)
  }
  const tap = (bolt: number) => (next && bolt !== next.bolt && asked !== bolt ? setAsked(bolt) : pull(bolt))
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const busy =
        event.target instanceof HTMLElement && event.target.closest('input, button, textarea, label, [role=dialog]')
      if (busy || event.ctrlKey || event.metaKey) return
      if (event.key === ' ' && next) {
        event.preventDefault()
        pull(next.bolt)
      } else if (event.key.toLowerCase() === 'u' && pulls.length) setPulls(pulls.slice(0, -1))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return (
    <>
      {!('bolts' in preset) && (
        <Zone>
          <SetUp draft={draft} change={change} problems={problems} />
        </Zone>
      )}
      {result && (
        <Two>
          <div>
            <BoltCircle result={result} pulls={pulls} onTap={tap} />
            {asked !== null && next && (
              <p role="alert">
                Bolt {next.bolt} is next. Tap bolt {asked} again to pull it out of turn.
              </p>
            )}
            <Actions>
              <MainButton isDisabled={!next} onPress={() => next && pull(next.bolt)}>
                {next ? `Bolt ${next.bolt}: clicked at ${Number(next.set_nm.toFixed(1))}` : 'Every bolt pulled'}
              </MainButton>
              <EntryCell
                kind="number"
                width={104}
                label="Torque reached, N·m, when it was not the one asked"
                typed={typed}
                onType={(t) => change({ ...draft, cells: { ...draft.cells, torque_now: t } })}
              />
              <PlainButton isDisabled={!pulls.length} onPress={() => setPulls(pulls.slice(0, -1))}>
                Undo
              </PlainButton>
            </Actions>
          </div>
          <Log pulls={pulls} result={result} />
        </Two>
      )}
    </>
  )
}

function SetUp({ draft, change, problems }: Pick<BenchProps, 'draft' | 'change' | 'problems'>) {
  const choose = (key: string, value: string) => change({ ...draft, choices: { ...draft.choices, [key]: value, pulls: [] } })
  return (
    <SetUpGrid>
      <LabelledCell cell="bolts" label="Bolts" kind="number" unit="" draft={draft} change={change} problems={problems} />
      <LabelledCell
        cell="torque"
        label="Full torque"
        kind="number"
        unit="N·m"
        draft={draft}
        change={change}
        problems={problems}
      />
      <Choice
        label="Order"
        options={PATTERNS}
        words={PATTERN_WORDS}
        value={(draft.choices.pattern as 'star') ?? 'star'}
        onChange={(p) => choose('pattern', p)}
      />
      <Choice
        label="Passes"
        options={Object.keys(SCHEMES) as Scheme[]}
        value={(draft.choices.scheme as Scheme) ?? '50, 75, 100 %'}
        onChange={(s) => choose('scheme', s)}
      />
    </SetUpGrid>
  )
}

const CIRCLE = 138

/** The bolt whose turn it is, from the core's sequence: known at once, so that two quick clicks are two bolts. */
function nextTurn(result: Result | null, pulls: readonly Pull[]) {
  return result?.sequence.find((turn) => !pulls.some((p) => p.pass === turn.pass && p.bolt === turn.bolt)) ?? null
}

function BoltCircle({ result, pulls, onTap }: { result: Result; pulls: Pull[]; onTap: (bolt: number) => void }) {
  const hatch = useHatch()
  const bolts = [...new Set(result.sequence.map((t) => t.bolt))].sort((a, b) => a - b)
  const passes = Math.max(...result.sequence.map((t) => t.pass))
  const next = nextTurn(result, pulls)
  const size = Math.min(24, (Math.PI * CIRCLE) / bolts.length - 5)
  return (
    <Circle>
      <svg viewBox="-200 -190 400 380" aria-hidden="true">
        {hatch.defs}
        <circle r="182" fill="none" stroke="var(--ink)" strokeWidth="2" />
        <circle r={CIRCLE} fill="none" stroke="var(--ink)" strokeDasharray="14 3 3 3" />
        <circle r="92" fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
        <circle r="66" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
        {bolts.map((bolt, i) => {
          const { x, y } = clockPoint((i * 360) / bolts.length, CIRCLE)
          const done = pulls.filter((p) => p.bolt === bolt).length
          const live = next?.bolt === bolt
          return (
            <g key={bolt} transform={`translate(${x} ${y})`}>
              {live && <circle r={size + 9} fill="var(--blue-wash)" stroke="var(--blue)" strokeWidth="3" />}
              <path
                d={hexagon(size)}
                fill={done >= passes ? 'var(--ink)' : 'var(--leaf)'}
                stroke={live ? 'var(--blue)' : 'var(--ink)'}
                strokeWidth="2"
              />
              <text
                y="6"
                textAnchor="middle"
                fontFamily="var(--read)"
                fontWeight="600"
                fontSize="17"
                fill={done >= passes ? 'var(--paper)' : live ? 'var(--blue)' : 'var(--ink)'}
              >
                {bolt}
              </text>
              {[...Array(passes).keys()].map((pass) => {
                const taken = pulls.some((p) => p.bolt === bolt && p.pass === pass + 1)
                const at = clockPoint((i * 360) / bolts.length + (pass - (passes - 1) / 2) * 26, size + 5)
                return taken && !live && <circle key={`${bolt} ${pass + 1}`} cx={at.x} cy={at.y} r="3" fill="var(--ink)" />
              })}
            </g>
          )
        })}
        <text y="-26" textAnchor="middle" fontSize="15" fontWeight="600" fill="var(--blue)">
          {next ? `bolt ${next.bolt}` : 'all pulled'}
        </text>
        <text y="20" textAnchor="middle" fontFamily="var(--read)" fontWeight="600" fontSize="42">
          {next ? Number(next.set_nm.toFixed(1)) : ''}
        </text>
        <text y="44" textAnchor="middle" fontSize="14">
          {next ? `N·m, pass ${next.pass} of ${passes}` : `${result.done} pulls`}
        </text>
      </svg>
      {bolts.map((bolt, i) => {
        const { x, y } = clockPoint((i * 360) / bolts.length, CIRCLE)
        const style = { left: `${((x + 200) / 400) * 100}%`, top: `${((y + 190) / 380) * 100}%` }
        return (
          <button
            key={bolt}
            type="button"
            style={style}
            aria-label={`Bolt ${bolt}${next?.bolt === bolt ? ', next' : ''}`}
            onClick={() => onTap(bolt)}
          />
        )
      })}
    </Circle>
  )
}

function hexagon(size: number) {
  const points = [30, 90, 150, 210, 270, 330].map((c) => clockPoint(c, size))
  return `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
}

function Log({ pulls, result }: { pulls: Pull[]; result: Result }) {
  const passes = [...new Set(result.sequence.map((t) => t.pass))]
  return (
    <LogBox>
      {passes.map((pass) => {
        const asked = result.sequence.find((t) => t.pass === pass)!
        const mine = pulls.filter((p) => p.pass === pass)
        return (
          <section key={pass}>
            <h4>
              Pass {pass} <span>{Number(asked.torque_nm.toFixed(1))} N·m</span>
            </h4>
            {mine.map((p, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: pulls are a log, in order, and only ever appended
              <div key={i}>
                <i>{p.bolt}</i> {p.torque_nm.toFixed(1)}
                {mine.slice(i + 1).some((later) => later.bolt === p.bolt) && <em> pulled again</em>}
              </div>
            ))}
          </section>
        )
      })}
    </LogBox>
  )
}

export const tightenBench: BenchClient<Result> = {
  name: 'tighten',
  title: 'Tighten',
  answers: 'Bolts in order and in passes, each pull logged',
  start: () => ({ cells: {}, choices: {} }),
  read,
  say: (result) => {
    const next = result.next ?? null
    const plain = plainSay(result)
    if (result.verdict === 'over') return { ...plain, title: 'A pull is outside its band.' }
    return next
      ? {
          title: `Pull bolt ${next.bolt}.`,
          note: `${result.sequence.length - result.done} pulls left.`,
          moves: ['Hold the head, turn the nut', 'One click, no second pull'],
        }
      : { ...plain, title: 'Every bolt is pulled.' }
  },
  Drawing: TightenDrawing,
  keys: [
    ['Space', 'clicked, next bolt'],
    ['U', 'undo'],
  ],
}

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  > div:first-child { padding: 10px 16px; }
  p[role='alert'] { font-weight: 600; padding: 4px 0; }
`
const Circle = styled.div`
  position: relative;
  max-width: 460px;
  margin: 0 auto;
  svg { display: block; width: 100%; }
  button { position: absolute; width: 52px; height: 52px; transform: translate(-50%, -50%); border-radius: 50%; }
`
const Actions = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
  > button:first-child { flex: 1; }
`
const LogBox = styled.div`
  border-left: 1.25px solid var(--line);
  padding: 10px 14px;
  h4 { font-weight: 500; border-bottom: 1.25px solid var(--line); margin-top: 8px; }
  h4 span { color: var(--ink-2); float: right; font-weight: 400; }
  div { font-family: var(--read); line-height: 1.5; color: var(--blue); }
  i { font-style: normal; font-weight: 600; color: var(--ink); display: inline-block; width: 28px; }
  em { font: 400 13px var(--text); color: var(--ink-2); }
`
const SetUpGrid = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: end;
`
