import { type ReactNode, useState } from 'react'
import styled from 'styled-components'
import { Allowance, Glyph, Num, sayShare, showOfCheck } from '../kit/Allowance'
import { Chevron } from '../kit/Chevron'
import { TwoLimits } from '../kit/TwoLimits'
import { useKeys } from '../kit/useKeys'
import { LITTLE_ROOM, NARROW } from '../kit/widths'
import { type LengthUnit, showFigure } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { type Result, type Say, titleOf } from './bench'
import { useHeld } from './useHeld'

interface VerdictColumnProps {
  say: Say | null
  result: Result | null
  lacking: string
  /** What is said while something is lacking: of ticks, that they are not done. */
  notYet?: string
  general: string
  /** What runs while this is done: it stands first, and in the place of a verdict there is not yet. */
  clock?: ReactNode
  foot: ReactNode
  children?: ReactNode
}

const MOST_MOVES = 4

/** One sentence, the moves, the checks with their share, then the working. */
export function VerdictColumn({ foot, clock, children, notYet = 'Not read yet.', ...now }: VerdictColumnProps) {
  const unit = useUnit()
  const { held, onPointerDown } = useHeld(now)
  const { result, lacking, general } = held
  const say = held.say && result ? { ...held.say, title: titleOf(result, held.say.title) } : held.say
  const sentences = result ? sentencesOf(result, unit) : []
  const [isLifted, lift] = useState(false)
  const hasMore = result !== null && sentences.length + result.checks.length + result.working.length > 0
  return (
    <Verdict data-lifted={isLifted || undefined} data-alone={!hasMore || undefined}>
      <Main>
        {clock && <Clock>{clock}</Clock>}
        <Says aria-live="polite">
          {(say || !clock) && <h2>{say ? say.title : lacking || general ? notYet : 'Not saved yet.'}</h2>}
          {say?.note && <p>{say.note}</p>}
          {!say && lacking && <p>{lacking}</p>}
          {general && <p role="alert">{general}</p>}
        </Says>
        {say && say.moves.length > 0 && (
          <Moves>
            {say.moves.slice(0, MOST_MOVES).map((move, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the moves are words in order, with no state of their own
              <li key={i}>{move}</li>
            ))}
          </Moves>
        )}
        <Pressed data-pressed onPointerDownCapture={onPointerDown}>
          {foot}
          {children && <Extra>{children}</Extra>}
        </Pressed>
      </Main>
      {hasMore && (
        <Lift type="button" aria-expanded={isLifted} onClick={() => lift(!isLifted)}>
          <Headline checks={result.checks} />
          <span>{isLifted ? 'Fold away' : 'Checks and working'}</span>
          <Chevron isUp={!isLifted} />
        </Lift>
      )}
      <More>
        {sentences.length > 0 && (
          <Zone>
            {sentences.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </Zone>
        )}
        {result && result.checks.length > 0 && (
          <Zone>
            {sameQuantity(result.checks).map(([check, ...others]) => {
              const target = others.find((other) => other.against === 'running target')
              return target ? (
                <TwoLimits key={check!.name} maker={check!} target={target} />
              ) : (
                <Allowance key={check!.name} check={check!} />
              )
            })}
          </Zone>
        )}
        {result && result.working.length > 0 && <Working result={result} />}
      </More>
    </Verdict>
  )
}

/** The check that is worst off, in one line: all a narrow bar has room for. */
function Headline({ checks }: { checks: Result['checks'] }) {
  const unit = useUnit()
  const shared = checks.filter((check) => check.value !== null && check.used !== null)
  const worst = shared.reduce<(typeof shared)[number] | null>((a, b) => (a && a.used! >= b.used! ? a : b), null)
  if (!worst) return null
  const figure = showOfCheck(worst, worst.value!, unit)
  return (
    <b>
      <Glyph {...worst} /> {worst.name} <Num>{figure.text}</Num> {figure.unit}, {sayShare(worst.used!)} limit
    </b>
  )
}

/** What the bench says. An entry from before its figures were data has plain sentences, in mm. */
function sentencesOf(result: Result, unit: LengthUnit): string[] {
  return result.says?.map((sentence) => sayIn(sentence, unit)) ?? result.advice
}

/** Checks grouped where several limits judge the same figure, in their order. */
function sameQuantity(checks: Result['checks']): Result['checks'][] {
  const groups: Result['checks'][] = []
  for (const check of checks) {
    const group = check.quantity
      ? groups.find(([first]) => first!.quantity === check.quantity && first!.against !== check.against)
      : undefined
    if (group) group.push(check)
    else groups.push([check])
  }
  return groups
}

/** The sum on paper, line by line; W folds it. */
function Working({ result }: { result: Result }) {
  const unit = useUnit()
  const [open, setOpen] = useState(true)
  useKeys({ w: () => setOpen(!open) })
  return (
    <Paper>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        Working
        <Chevron isUp={open} />
      </button>
      {open && (
        <div className="sum">
          {result.working.map((line, i) => {
            const figure = showFigure(line.value, line.unit, unit)
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines of one sum, in order
              <div key={i}>
                <span>
                  {line.what}
                  <small>{line.sum ? sayIn(line.sum, unit) : line.numbers || line.formula}</small>
                </span>
                <Num>{figure.text}</Num>
                <u>{figure.unit}</u>
              </div>
            )
          })}
        </div>
      )}
    </Paper>
  )
}

/** On the wide sheet a column. Below that a bar at the foot: what it is and the button left, the checks right, or on a tap. */
const Verdict = styled.div`
  ${NARROW} {
    display: grid;
    grid-template: minmax(0, 1fr) / minmax(0, 1fr) minmax(0, 1fr);
    grid-template-areas: 'main more';
    max-height: 330px;
    min-height: 0;
    &[data-alone] { grid-template: auto / minmax(0, 1fr); grid-template-areas: 'main'; }
  }
  ${LITTLE_ROOM} {
    grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
    grid-template-areas: 'main' 'lift' 'more';
    max-height: 72vh;
  }
`
/** The buttons beside the sentence, not under it. */
const BESIDE = `
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  > *, [data-pressed] > * { flex: 1 1 260px; border-bottom: 0; }
`
const Main = styled.div`
  ${NARROW} { grid-area: main; overflow-y: auto; min-height: 0; }
  ${LITTLE_ROOM} { ${BESIDE} }
  ${NARROW} { ${Verdict}[data-alone] & { ${BESIDE} } }
`
const More = styled.div`
  ${NARROW} {
    grid-area: more;
    overflow-y: auto;
    min-height: 0;
    border-left: 1.25px solid var(--line);
    ${Verdict}[data-alone] & { display: none; }
  }
  ${LITTLE_ROOM} {
    display: none;
    border-left: 0;
    ${Verdict}[data-lifted] & { display: block; }
  }
`
const Lift = styled.button`
  display: none;
  ${LITTLE_ROOM} {
    grid-area: lift;
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: max(44px, var(--touch));
    padding: 0 16px;
    border-top: 1.25px solid var(--line);
    font-size: var(--fs-text);
    b { font-weight: 500; flex: 1; text-align: left; line-height: 1.15; }
    span { margin-left: auto; font-weight: 600; white-space: nowrap; }
  }
`
const Says = styled.div`
  &:empty { display: none; }
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--ink);
  h2 { font-size: var(--fs-title); line-height: 1.08; font-weight: 600; }
  p { font-size: var(--fs-text); color: var(--ink-2); margin-top: 4px; line-height: 1.25; }
  p[role='alert'] { color: var(--ink); font-weight: 600; }
`
const Clock = styled.div`
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--ink);
`
const Moves = styled.ol`
  ${LITTLE_ROOM} { display: none; ${Verdict}[data-lifted] & { display: block; } }
  border-bottom: 1.25px solid var(--ink);
  padding: 4px 16px;
  counter-reset: move;
  li { line-height: 1.25; padding: 5px 0; }
  b { font-family: var(--read); font-weight: 600; }
`
const Zone = styled.div`
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--ink);
  > p { font-size: var(--fs-text); line-height: 1.25; padding: 2px 0; }
`
const Pressed = styled.div`
  display: contents;
`
const Extra = styled.div`
  &:empty { display: none; }
  padding: 8px 16px;
  border-bottom: 1.25px solid var(--ink);
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
const Paper = styled.div`
  > button { display: flex; width: 100%; min-height: var(--touch); align-items: center; justify-content: space-between; padding: 0 16px; font-weight: 600; }
  .sum { padding: 0 16px 12px; }
  .sum > div { display: grid; grid-template-columns: 1fr auto 44px; column-gap: 6px; align-items: baseline; font-size: var(--fs-text); line-height: 1.2; padding: 1px 0; }
  .sum > div:last-child ${Num} { border-bottom: 3px double var(--ink); font-weight: 600; }
  small { display: block; font-size: var(--fs-note); color: var(--ink-2); font-family: var(--read); }
  u { text-decoration: none; color: var(--ink-2); font-size: var(--fs-small); }
`
