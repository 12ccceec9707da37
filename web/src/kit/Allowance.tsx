import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { type LengthUnit, showFigure } from '../units/length'
import { useUnit } from '../units/preferences'

type Check = Schemas['Check']
type Status = Schemas['Status']

const BAR = 276
const LIMIT_AT = 0.75 // the limit's tick, as a share of the bar: what lies beyond stays readable

/** One check: figure, share of the allowance as a temper bar, word, limit and its source. */
export function Allowance({ check }: { check: Check }) {
  const unit = useUnit()
  // "More than nothing" has no allowance that could be used up.
  const isShare = check.used !== null && !(check.max === null && check.min === 0)
  const value = check.value === null ? null : showOfCheck(check, check.value, unit)
  const isByHand = check.value === null && check.status === 'not judged' // somebody looked, and it was right
  const by = check.plus_minus ? showFigure(check.plus_minus, check.unit, unit).text : ''
  return (
    <AllowanceBlock data-status={check.status}>
      <div className="head">
        <span>{check.name[0]!.toUpperCase() + check.name.slice(1)}</span>
        {value && (
          <span>
            <Num>{value.text}</Num> {by && <small>±{by} </small>}
            <small>{value.unit}</small>
          </span>
        )}
      </div>
      {isShare && <Bar used={check.used!} />}
      <div className="foot">
        <Glyph {...check} status={isByHand ? 'inside' : check.status} />
        <b>{isByHand ? 'in order' : sayStatus(check)}</b>
        <span>{isShare ? `${sayShare(check.used!)} ${limit(check, unit)}` : check.min !== null && limit(check, unit)}</span>
      </div>
      <div className="source">{check.source}</div>
    </AllowanceBlock>
  )
}

interface Judged {
  status: Status | Schemas['Verdict']
  proven?: boolean | null
}

/** It keeps its limit on paper, but with its ± it may not: nobody says inside. */
export function isUnproven({ status, proven }: Judged): boolean {
  return proven === false && (status === 'inside' || status === 'close')
}

const STATUS_WORDS: Record<Judged['status'], string> = {
  inside: 'within tolerance',
  close: 'near the limit',
  over: 'out of tolerance',
  incomplete: 'not complete',
  'not judged': 'not judged',
}

/** What came of it, in words. */
export function sayStatus(judged: Judged): string {
  return isUnproven(judged) ? 'cannot tell yet' : STATUS_WORDS[judged.status]
}

/** A share of a limit: in percent up to twice, beyond that as a multiple. */
export function sayShare(used: number): string {
  return used <= 2 ? `${Math.round(used * 100)} % of` : `${used.toFixed(1)} ×`
}

/** A figure of a check: of a fit a plus figure, and whether that is clearance or interference. */
export function showOfCheck(check: Pick<Check, 'unit' | 'reads'>, value: number, sheet: LengthUnit) {
  if (check.reads !== 'fit') return showFigure(value, check.unit, sheet)
  const { text, unit } = showFigure(Math.abs(value), check.unit, sheet)
  return { text, unit: `${unit} ${value > 0 ? 'interference' : 'clearance'}` }
}

function limit(check: Check, unit: LengthUnit) {
  const at = (value: number) => showOfCheck(check, value, unit)
  if (check.min !== null && check.max !== null) {
    if (check.reads !== 'fit') return `band ${at(check.min).text} to ${at(check.max).text}`
    const [least, most] = (check.max <= 0 ? [check.max, check.min] : [check.min, check.max]).map(at)
    const first = least!.unit === most!.unit ? least!.text : `${least!.text} ${least!.unit}`
    return `band ${first} to ${most!.text} ${most!.unit}`
  }
  if (check.max !== null) return `limit ${at(check.max).text} ${at(check.max).unit}`
  return check.min !== null ? `at least ${at(check.min).text} ${at(check.min).unit}` : 'limit'
}

/** Which step of the temper ramp a share of the allowance has. */
export function temperOf(used: number): 1 | 2 | 3 | 4 {
  return used <= 0.5 ? 1 : used <= 0.8 ? 2 : used <= 1 + 1e-9 ? 3 : 4
}

/** The share of the allowance on the temper ramp; a heavy tick at the limit. */
export function Bar({ used, width = BAR }: { used: number; width?: number }) {
  const temper = temperOf(used)
  const end = Math.min(used * LIMIT_AT, 1) * (width - 2)
  const at = (share: number) => 1 + share * LIMIT_AT * (width - 2)
  return (
    <svg viewBox={`0 0 ${width} 18`} width={width} height="18" aria-hidden="true" className="bar">
      <rect x=".6" y="2.6" width={width - 1.2} height="12" fill="var(--scale)" stroke="var(--ink)" strokeWidth="1.25" />
      <rect x="1" y="3.2" width={end} height="10.8" fill={`var(--temper-${temper})`} />
      <path d={[0.25, 0.5, 0.75].map((s) => `M${at(s)} 9V14`).join('')} stroke="var(--scale-ink)" strokeWidth=".75" />
      <path d={`M${1 + end} 3V14`} stroke="var(--scale-ink)" strokeWidth="2" />
      <path d={`M${at(1)} 0V18`} stroke="var(--ink)" strokeWidth="3" />
    </svg>
  )
}

/** Where the value stands to its limit: between the ticks, at the right one, beyond it. */
export function Glyph({ status, proven }: Judged) {
  const at = { inside: 9, close: 12, over: 20.2, 'not judged': 9, incomplete: 9 }[status]
  const full = status === 'close' || status === 'over'
  const judged = status !== 'not judged' && status !== 'incomplete'
  return (
    <svg width="25" height="16" viewBox="0 0 25 16" aria-hidden="true">
      <path d="M3 1V15M15.5 1V15" stroke="currentColor" strokeWidth="2" />
      {judged && (
        <circle cx={at} cy="8" r="3.4" fill={full ? 'currentColor' : 'none'} stroke="currentColor" strokeWidth="1.6" />
      )}
      {isUnproven({ status, proven }) && <path d={`M${at - 7} 8H${at + 8}`} stroke="currentColor" strokeWidth="1.6" />}
    </svg>
  )
}

/** A figure in the readings face. */
export const Num = styled.span`
  font-family: var(--read);
  font-weight: 500;
  font-variant-ligatures: none;
  letter-spacing: -0.01em;
`
/** How a check stands in a column, whatever its bar. */
export const AllowanceBlock = styled.div`
  padding: 4px 0 6px;
  .head { display: flex; justify-content: space-between; align-items: baseline; gap: 8px; font-weight: 500; line-height: 1.2; }
  .head ${Num} { font-size: var(--fs-body); }
  .bar { display: block; margin: 3px 0; max-width: 100%; }
  .foot { display: flex; gap: 6px; align-items: center; font-size: var(--fs-small); line-height: 1.2; flex-wrap: wrap; }
  .foot b { font-weight: 600; font-size: var(--fs-text); }
  .source { font-size: var(--fs-note); color: var(--ink-2); line-height: 1.15; }
  small { font-size: var(--fs-small); color: var(--ink-2); font-weight: 400; }
`
