import { useLayoutEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { MainButton, PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { useKeys } from '../../kit/useKeys'
import { readTorqueNm } from '../../units/length'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { type Draft, oneOf } from '../draft'
import { Actions, LabelledCell, Zone } from '../parts'
import { byTable, type Field, type Given, group, type Table, when } from '../table'
import { BoltPlan, type Pull } from './BoltPlan'
import { asKept, CLICKS, type Kept, nextTurn, pullsOf } from './clicks'
import { HalfTurns } from './HalfTurns'
import { Log } from './Log'
import { BOLTS, END, ENDS, isHalfTurns, PATTERN, SCHEME, SCHEMES, SECOND_BOLTS, SECOND_TORQUE, SetUp, TORQUE } from './SetUp'
import { hasExtension, WRENCH, WrenchInHand } from './Wrench'

const READ_OFFS = ['wrench', 'bolt'] as const
const READ_OFF = oneOf('read_off', READ_OFFS, 'wrench')
const READ_OFF_WORDS = { wrench: 'what the wrench showed', bolt: 'what the bolt got' }
/** The bolts lie at a machine's feet, not on a circle. */
const LAYOUT = oneOf('layout', ['feet'], undefined)

/** Chosen beside a quick bench; in a job the circle of the line says it. */
const typed = <V,>(read: (draft: Draft) => V): Field<V, 'tighten'> => ({
  read: (reader, _, preset) => ('bolts' in preset ? undefined : read(reader.draft)),
  restore: () => undefined,
})

const FIELDS = {
  bolts: { ...BOLTS, read: (reader, path, preset) => whole(BOLTS.read(reader, path, preset)) },
  torque_nm: TORQUE,
  passes: typed((draft) => SCHEMES[SCHEME.of(draft)]),
  until_still: typed((draft) => !isHalfTurns(draft) && END.of(draft) === ENDS[1]),
  pattern: typed(PATTERN.of),
  beside: when(
    (draft, preset) => isHalfTurns(draft) && !('bolts' in preset),
    group<Schemas['Beside'], 'tighten'>({ bolts: SECOND_BOLTS, torque_nm: SECOND_TORQUE }, { optional: true }),
  ),
  ...WRENCH,
  pulls: {
    read: (reader) => pullsOf(reader.draft),
    restore: (filler, path, part) => {
      if (part === 'all') filler.choice(CLICKS.key, filler.at<Kept[]>(path)?.map(asKept))
    },
    start: (hints) => ({ choices: hints.layout ? { [LAYOUT.key]: hints.layout } : {} }),
  },
} satisfies Table<Given<'tighten'>, 'tighten'>

const whole = (bolts: number | undefined) => (bolts === undefined ? undefined : Math.round(bolts))

/** The bolts with the next one lit; each click is logged with its torque. */
function TightenDrawing({ draft, change, preset, result: now, problems, spec }: BenchProps<'tighten'>) {
  // While a figure of the wrench is wrong the bolts stay in sight; none is pulled then.
  const last = useRef(now)
  if (now) last.current = now
  const result = now ?? (Object.keys(problems).length > 0 ? last.current : null)
  const isHeld = now === null
  const [asked, setAsked] = useState<number | null>(null)
  const clicks = CLICKS.of(draft)
  const pulls = pullsOf(draft)
  const setClicks = (next: typeof clicks) => change(CLICKS.put(draft, next))
  const takeBack = () => {
    const last = clicks.findLastIndex((click) => !click.takenBack)
    if (last >= 0) setClicks(clicks.map((click, i) => (i === last ? { ...click, takenBack: true } : click)))
  }
  const next = nextTurn(now, pulls)
  const typed = draft.cells.torque_now
  const bolts = useRef<HTMLDivElement>(null)
  const pulled = useRef(false)
  const isDone = now !== null && !next && now.still !== false
  // Where the focus is to go stands on the sheet only after what brings it there: the bolts once they are worked out, the
  // next round once the core has said that there is one, the main button once the last pull is in.
  useLayoutEffect(() => {
    const at = document.activeElement
    const isLost = at === bolts.current || (pulled.current && at === document.body)
    if (next && isLost) bolts.current?.querySelector<HTMLElement>('[data-clicked]')?.focus()
    if (pulled.current && isDone) document.querySelector<HTMLElement>('[data-enter-goes-here]')?.focus()
    if (next || isDone) pulled.current = false
  })
  const fullRound = (next?.asks_turned && !result?.half_turns) ?? false
  const lastPass = result?.sequence.at(-1)?.pass ?? 1
  const turnOf = (bolt: number) => result?.sequence.find((t) => t.pass === (next?.pass ?? lastPass) && t.bolt === bolt)
  const pulledAlready = (bolt: number) => pulls.some((p) => p.bolt === bolt && p.pass === turnOf(bolt)?.pass)
  const pull = (bolt: number, { moved, slackened }: { moved?: boolean; slackened?: boolean } = {}) => {
    const turn = turnOf(bolt)
    if (!turn || isHeld) return
    if (turn.asks_turned && moved === undefined) return setAsked(bolt)
    const reached = typed && readTorqueNm(typed.text)
    const torque = reached || turn.torque_nm
    const readOff = reached ? READ_OFF.of(draft) : 'bolt'
    change({
      cells: Object.fromEntries(Object.entries(draft.cells).filter(([cell]) => cell !== 'torque_now')),
      choices: {
        ...draft.choices,
        clicks: [
          ...clicks,
          {
            pass: turn.pass,
            bolt: turn.bolt,
            reached_nm: torque,
            ...(hasExtension(draft) && { reached_is: readOff }),
            ...(moved !== undefined && { moved }),
            ...(slackened && { slackened }),
          },
        ],
      },
    })
    setAsked(null)
    pulled.current = true
  }
  const halfTurn = (bolt: number, did: Pick<Pull, 'turned' | 'clicked'>) => {
    const turn = turnOf(bolt)
    if (!turn || isHeld || bolt !== next?.bolt) return
    setAsked(null)
    change(CLICKS.put(draft, [...clicks, { pass: turn.pass, bolt, ...did }]))
    pulled.current = true
  }
  const isHalf = result?.half_turns ?? false
  const allClicked = isHalf && result?.clicked.length === result?.circles.reduce((sum, bolts) => sum + bolts, 0)
  const usual = allClicked ? { turned: false, clicked: true } : { turned: true, clicked: false }
  const tap = (bolt: number) => {
    if (isHalf) return bolt === next?.bolt ? halfTurn(bolt, usual) : setAsked(bolt)
    return pulledAlready(bolt) || (bolt !== next?.bolt && asked !== bolt) ? setAsked(bolt) : pull(bolt)
  }
  const again = asked !== null && !isHeld && !isHalf && !fullRound && pulledAlready(asked) ? asked : null
  useKeys({
    ' ': next ? () => (isHalf ? halfTurn(next.bolt, usual) : pull(next.bolt, fullRound ? { moved: false } : {})) : undefined,
    k: next && isHalf ? () => halfTurn(next.bolt, { turned: true, clicked: true }) : undefined,
    m: next && fullRound ? () => pull(next.bolt, { moved: true }) : undefined,
    u: takeBack,
  })
  return (
    <>
      {!('bolts' in preset) && (
        <Zone>
          <SetUp draft={draft} change={change} problems={problems} />
        </Zone>
      )}
      <Bolts ref={bolts} tabIndex={-1} data-starts-here>
        {result && (
          <Two>
            <div>
              <BoltPlan
                result={result}
                pulls={pulls}
                next={next}
                isHeld={isHeld}
                feet={LAYOUT.of(draft) && spec ? spec[spec.movable] : null}
                couplingRight={spec?.movable === 'driver'}
                onTap={tap}
              />
              {asked !== null && again === null && next && !fullRound && !isHalf && (
                <p role="alert">
                  Bolt {next.name} is next. Tap bolt {asked} again to pull it out of turn.
                </p>
              )}
              {asked !== null && isHalf && next && (
                <p role="alert">Bolt {next.name} is next: half turns go in their order.</p>
              )}
              {again !== null && (
                <>
                  <p role="alert">Bolt {again} has been pulled. A click on a bolt that is tighter already says nothing.</p>
                  <Actions>
                    <PlainButton onPress={() => pull(again, { slackened: true })}>
                      Bolt {again}: slackened, then clicked
                    </PlainButton>
                    <PlainButton onPress={() => pull(again)}>Clicked again as it was</PlainButton>
                    <PlainButton onPress={() => setAsked(null)}>Leave it</PlainButton>
                  </Actions>
                </>
              )}
              <Actions data-two={fullRound || undefined}>
                {isHalf && next ? (
                  <HalfTurns name={next.name} allClicked={allClicked} onDid={(did) => halfTurn(next.bolt, did)} />
                ) : fullRound && next ? (
                  <>
                    <MainButton data-clicked onPress={() => pull(asked ?? next.bolt, { moved: false })}>
                      Screw {asked ?? next.bolt} stood still
                    </MainButton>
                    <PlainButton onPress={() => pull(asked ?? next.bolt, { moved: true })}>It turned</PlainButton>
                  </>
                ) : (
                  <MainButton data-clicked isDisabled={!next} onPress={() => next && pull(next.bolt)}>
                    {next
                      ? `Bolt ${next.bolt}: clicked at ${Number(next.set_nm.toFixed(1))}`
                      : isHeld
                        ? 'First correct what is marked'
                        : result.still
                          ? 'Nothing moved in the last round'
                          : 'Every bolt pulled'}
                  </MainButton>
                )}
                <PlainButton isDisabled={!pulls.length || isHeld} onPress={takeBack}>
                  Take back
                </PlainButton>
              </Actions>
              {!isHalf && (
                <LabelledCell
                  cell="torque_now"
                  label="Torque reached"
                  part="aside"
                  detail="if it did not click at the target"
                  kind="torque"
                  unit="N·m"
                  draft={draft}
                  change={change}
                  problems={problems}
                />
              )}
              {!isHalf && typed && hasExtension(draft) && (
                <Choice
                  label="That is"
                  options={READ_OFFS}
                  words={READ_OFF_WORDS}
                  value={READ_OFF.of(draft)}
                  onChange={(as) => change(READ_OFF.put(draft, as))}
                />
              )}
            </div>
            <Log clicks={clicks} result={result} />
          </Two>
        )}
      </Bolts>
      <Zone>
        <WrenchInHand draft={draft} change={change} problems={problems} />
      </Zone>
    </>
  )
}

export const tightenBench: BenchClient<'tighten'> = {
  name: 'tighten',
  title: 'Tighten',
  answers: 'Bolts in order and in passes, each pull logged',
  ...byTable<'tighten'>(FIELDS),
  say: (result) => {
    const next = result.next ?? null
    const plain = plainSay(result)
    if (result.verdict === 'over') return { ...plain, title: 'A pull is outside its band.' }
    if (result.still)
      return { ...plain, title: 'Tight: a full round moved nothing.', note: `${result.passes.length} rounds.` }
    if (next && result.half_turns)
      return {
        title: `Round ${next.pass}: screw ${next.name}.`,
        note: `${result.clicked.length} of ${result.circles.reduce((sum, bolts) => sum + bolts, 0)} at their torque.`,
        moves: ['Half a turn, or until the wrench clicks', 'Then the next one, across'],
      }
    if (next && result.still === false)
      return {
        title: `Round ${next.pass}: screw ${next.bolt}.`,
        note: 'Round and round, until a full round moves no screw.',
        moves: ['Pull until the wrench clicks, once', 'Say whether the screw turned before it clicked'],
      }
    return next
      ? {
          title: `Pull bolt ${next.bolt}.`,
          note: `${result.sequence.length - result.done} pulls left.`,
          moves: ['Hold the head, turn the nut', 'Stop at the click'],
        }
      : { ...plain, title: 'Every bolt is pulled.' }
  },
  Drawing: TightenDrawing,
  keys: [
    ['Space', 'clicked (did not turn), next bolt'],
    ['M', 'it moved'],
    ['K', 'half turns: it clicked'],
    ['U', 'take back'],
  ],
}

const Bolts = styled.div`
  outline: none;
`
const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  > div:first-child { padding: 10px 16px; }
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
  p[role='alert'] { font-weight: 600; padding: 4px 0; }
`
