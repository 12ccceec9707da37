import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import type { ResultOf } from '../table'
import type { Click } from './clicks'

type Turn = Schemas['Turn']

interface LogProps {
  clicks: readonly Click[]
  result: ResultOf<'tighten'>
}

const sayHalfTurn = (click: Click) => (click.clicked ? (click.turned ? 'clicked' : 'still') : '½ turn')

/** Every click, pass by pass, what was taken back struck through. */
export function Log({ clicks, result }: LogProps) {
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

const LogBox = styled.div`
  border-left: 1.25px solid var(--line);
  padding: 10px 14px;
  h4 { font-weight: 500; border-bottom: 1.25px solid var(--line); margin-top: 8px; }
  h4 span { color: var(--ink-2); float: right; font-weight: 400; }
  div { font-family: var(--read); line-height: 1.5; color: var(--blue); }
  i { font-style: normal; font-weight: 600; color: var(--ink); display: inline-block; width: 28px; }
  em { font: 400 var(--fs-note) var(--text); color: var(--ink-2); }
`
