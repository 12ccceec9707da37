import { useRef, useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { MainButton, PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { readTorqueNm } from '../../units/length'
import { type BenchClient, type BenchProps, type CellsProps, plainSay } from '../bench'
import { type Draft, oneOf, slot } from '../draft'
import { useBenchKeys } from '../onKey'
import { FieldCell, LabelledCell, Zone } from '../parts'
import { byTable, cell, type Field, type Given, group, type ResultOf, type Table, when } from '../table'
import { BoltPlan, type Pull } from './BoltPlan'
import { hasExtension, WRENCH, WrenchInHand } from './Wrench'

type Result = ResultOf<'tighten'>
type Turn = Schemas['Turn']

/** Every click in the order it came. One that was taken back stays, struck through, and is not sent. */
interface Click extends Pull {
  takenBack?: boolean
}

const CLICKS = slot<readonly Click[]>('clicks', [])
const pullsOf = (draft: Draft): Pull[] =>
  CLICKS.of(draft)
    .filter((click) => !click.takenBack)
    .map(({ takenBack, ...pull }) => ({ ...pull, ...(hasExtension(draft) && { reached_is: pull.reached_is ?? 'bolt' }) }))
const READ_OFFS = ['wrench', 'bolt'] as const
const READ_OFF = oneOf('read_off', READ_OFFS, 'wrench')
const READ_OFF_WORDS = { wrench: 'what the wrench showed', bolt: 'what the bolt got' }
const PATTERNS = ['star', 'circle', 'alternate'] as const
const PATTERN = oneOf('pattern', PATTERNS, 'star')
const PATTERN_WORDS = { star: 'crosswise', circle: 'round and round', alternate: 'odd, then even' }
const ENDS = ['with the last pass', 'when a full round moves nothing'] as const
const END = oneOf('until', ENDS, ENDS[0])
const PASSES = ['half, then full', '50, 75, 100 %', 'half, full, full', 'straight to torque', 'half turns'] as const
const SCHEMES: Record<(typeof PASSES)[number], NonNullable<Given<'tighten'>['passes']>> = {
  'half, then full': [0.5, 1],
  '50, 75, 100 %': [0.5, 0.75, 1],
  'half, full, full': [0.5, 1, 1],
  'straight to torque': [1],
  'half turns': 'half turns',
}
const SCHEME = oneOf('scheme', PASSES, '50, 75, 100 %')
/** The bolts lie at a machine's feet, not on a circle. */
const LAYOUT = oneOf('layout', ['feet'], undefined)

const HOW_MANY = 'How many bolts, and to what torque?'
const BOLTS = cell<'tighten'>({ cell: 'bolts', label: 'Bolts', kind: 'number', lacking: HOW_MANY })
const TORQUE = cell<'tighten'>({ cell: 'torque', label: 'Full torque', kind: 'torque', unit: 'N·m', lacking: HOW_MANY })

const SECOND_BOLTS = cell<'tighten'>({ cell: 'bolts2', label: 'Second circle, bolts', kind: 'number', unit: '' })
const SECOND_TORQUE = cell<'tighten'>({ cell: 'torque2', label: 'Its torque', kind: 'torque', unit: 'N·m' })
const isHalfTurns = (draft: Draft) => SCHEME.of(draft) === 'half turns'

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

/** A pull as an entry holds it; those from before had the torque under another name. */
type Kept = Pull & { torque_nm?: number }
const asKept = ({ torque_nm, ...pull }: Kept): Click => ({ ...pull, reached_nm: pull.reached_nm ?? torque_nm })

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
  const setClicks = (next: readonly Click[]) => change(CLICKS.put(draft, next))
  const takeBack = () => {
    const last = clicks.findLastIndex((click) => !click.takenBack)
    if (last >= 0) setClicks(clicks.map((click, i) => (i === last ? { ...click, takenBack: true } : click)))
  }
  const next = nextTurn(now, pulls)
  const typed = draft.cells.torque_now
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
    const isLast = result!.still === null && result!.sequence.length === pulls.length + 1
    if (isLast) document.querySelector<HTMLElement>('[data-enter-goes-here]')?.focus()
  }
  const halfTurn = (bolt: number, did: Pick<Pull, 'turned' | 'clicked'>) => {
    const turn = turnOf(bolt)
    if (!turn || isHeld || bolt !== next?.bolt) return
    setAsked(null)
    change(CLICKS.put(draft, [...clicks, { pass: turn.pass, bolt, ...did }]))
  }
  const isHalf = result?.half_turns ?? false
  const allClicked = isHalf && result?.clicked.length === result?.circles.reduce((sum, bolts) => sum + bolts, 0)
  const usual = allClicked ? { turned: false, clicked: true } : { turned: true, clicked: false }
  const tap = (bolt: number) => {
    if (isHalf) return bolt === next?.bolt ? halfTurn(bolt, usual) : setAsked(bolt)
    return pulledAlready(bolt) || (bolt !== next?.bolt && asked !== bolt) ? setAsked(bolt) : pull(bolt)
  }
  const again = asked !== null && !isHeld && !isHalf && !fullRound && pulledAlready(asked) ? asked : null
  useBenchKeys({
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
            {asked !== null && isHalf && next && <p role="alert">Bolt {next.name} is next: half turns go in their order.</p>}
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
                  <MainButton onPress={() => pull(asked ?? next.bolt, { moved: false })}>
                    Screw {asked ?? next.bolt} stood still
                  </MainButton>
                  <PlainButton onPress={() => pull(asked ?? next.bolt, { moved: true })}>It turned</PlainButton>
                </>
              ) : (
                <MainButton isDisabled={!next} onPress={() => next && pull(next.bolt)}>
                  {next
                    ? `Bolt ${next.bolt}: clicked at ${Number(next.set_nm.toFixed(1))}`
                    : isHeld
                      ? 'First put right what is marked'
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
                detail="before the click, when it is not the one asked"
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
      <Zone>
        <WrenchInHand draft={draft} change={change} problems={problems} />
      </Zone>
    </>
  )
}

interface HalfTurnsProps {
  name: string
  allClicked: boolean
  onDid: (did: Pick<Pull, 'turned' | 'clicked'>) => void
}

/** What a bolt did in its turn: half a turn, or the wrench clicked on the way, or at once. */
function HalfTurns({ name, allClicked, onDid }: HalfTurnsProps) {
  const still = { turned: false, clicked: true }
  if (allClicked)
    return (
      <>
        <MainButton onPress={() => onDid(still)}>Screw {name} stood still</MainButton>
        <PlainButton onPress={() => onDid({ turned: true, clicked: true })}>It turned</PlainButton>
      </>
    )
  return (
    <>
      <MainButton onPress={() => onDid({ turned: true, clicked: false })}>Screw {name}: half a turn</MainButton>
      <PlainButton onPress={() => onDid({ turned: true, clicked: true })}>It clicked on the way</PlainButton>
      <PlainButton onPress={() => onDid(still)}>It stood still</PlainButton>
    </>
  )
}

const sayHalfTurn = (click: Click) => (click.clicked ? (click.turned ? 'clicked' : 'still') : '½ turn')

function SetUp(cells: CellsProps) {
  const { draft } = cells
  const anew = (next: Draft) => cells.change(CLICKS.put(next, []))
  return (
    <SetUpGrid>
      <FieldCell of={{ ...BOLTS, unit: '' }} {...cells} />
      <FieldCell of={TORQUE} {...cells} />
      {isHalfTurns(draft) && <FieldCell of={SECOND_BOLTS} {...cells} />}
      {isHalfTurns(draft) && <FieldCell of={SECOND_TORQUE} {...cells} />}
      <Choice
        label="Order"
        options={PATTERNS}
        words={PATTERN_WORDS}
        value={PATTERN.of(draft)}
        onChange={(p) => anew(PATTERN.put(draft, p))}
      />
      {!isHalfTurns(draft) && (
        <Choice label="Done" options={ENDS} value={END.of(draft)} onChange={(u) => anew(END.put(draft, u))} />
      )}
      <Choice label="Passes" options={PASSES} value={SCHEME.of(draft)} onChange={(s) => anew(SCHEME.put(draft, s))} />
    </SetUpGrid>
  )
}

/** The bolt whose turn it is, from the core's sequence: known at once, so that two quick clicks are two bolts.
 * Whether another round follows, the core says: for that moment there is none. */
function nextTurn(result: Result | null, pulls: readonly Pull[]) {
  return result?.sequence.find((turn) => !pulls.some((p) => p.pass === turn.pass && p.bolt === turn.bolt)) ?? null
}

function Log({ clicks, result }: { clicks: readonly Click[]; result: Result }) {
  const passes = [...new Set(result.sequence.map((t) => t.pass))]
  const said = (c: Click, turn: Turn) => (result.half_turns ? sayHalfTurn(c) : (c.reached_nm ?? turn.torque_nm).toFixed(1))
  const nameOf = (bolt: number) => result.sequence.find((t) => t.bolt === bolt)?.name ?? bolt
  return (
    <LogBox>
      {passes.map((pass) => {
        const asked = result.sequence.find((t) => t.pass === pass)!
        const mine = clicks.filter((c) => c.pass === pass)
        return (
          <section key={pass}>
            <h4>
              {result.still === null ? 'Pass' : 'Round'} {pass}{' '}
              {result.circles.length === 1 && <span>{Number(asked.torque_nm.toFixed(1))} N·m</span>}
            </h4>
            {mine.map((c, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: clicks are a log, in order, and only ever appended
              <div key={i}>
                <i>{nameOf(c.bolt)}</i> {c.takenBack ? <s>{said(c, asked)}</s> : said(c, asked)}
                {c.reached_is === 'wrench' && <em> on the wrench</em>}
                {c.slackened && <em> slackened first</em>}
                {asked.asks_turned && !result.half_turns && !c.takenBack && c.moved !== undefined && (
                  <em> {c.moved === false ? 'still' : 'turned'}</em>
                )}
                {c.takenBack ? (
                  <em> taken back</em>
                ) : (
                  mine.slice(i + 1).some((later) => later.bolt === c.bolt && !later.takenBack) && <em> pulled again</em>
                )}
              </div>
            ))}
          </section>
        )
      })}
    </LogBox>
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
          moves: ['Hold the head, turn the nut', 'One click, no second pull'],
        }
      : { ...plain, title: 'Every bolt is pulled.' }
  },
  Drawing: TightenDrawing,
  keys: [
    ['Space', 'clicked (stood still), next bolt'],
    ['M', 'it moved'],
    ['K', 'half turns: it clicked'],
    ['U', 'take back'],
  ],
}

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  > div:first-child { padding: 10px 16px; }
  p[role='alert'] { font-weight: 600; padding: 4px 0; }
`
const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
  > button:first-child { flex: 1 1 220px; }
  &[data-two] > button:nth-child(2) { flex: 1; min-height: 52px; }
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
