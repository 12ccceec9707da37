import { useId } from 'react'
import type { Schemas } from '../api/client'
import { onSheet } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayFigure, sayUnit } from '../units/say'
import { Drawing } from './Drawing'
import { dayOf, sayDay, timeTicks, valueTicks } from './overTime'

type Trend = Schemas['WearResult']

interface TrendChartProps {
  trend: Trend
  /** What is read, for who cannot see it. */
  title: string
  unit: string
  limit: number | null
  today: string
  /** Days on which something else began, and why. */
  breaks: readonly { at: string; why: string }[]
  /** Moments of readings that do not belong. */
  aside?: readonly string[]
}

const WIDTH = 740
const BOX = { left: 58, right: 724, top: 44, bottom: 214 }
const APART = 132 // px between two breaks that both have room for their words

/** Readings over the years: crosses as read, the line through what runs now with its band, the limit and when it is reached. */
export function TrendChart({ trend, title, unit, limit, today, breaks, aside = [] }: TrendChartProps) {
  const sheet = useUnit()
  const id = useId()
  const points = trend.drawn.map((p) => ({ day: dayOf(p.at), value: p.value }))
  const line = trend.trend.map((p) => ({ ...p, day: dayOf(p.at) }))
  const now = dayOf(today)
  const begins = points[0]?.day ?? now
  const ends = Math.max(now, line.at(-1)?.day ?? now, begins + 30)
  const values = [
    ...points.map((p) => p.value),
    limit ?? 0,
    0,
    ...line.map((p) => Math.min(p.high, (limit ?? p.value) * 1.2)),
  ]
  const [low, high] = [Math.min(...values), Math.max(...values) * 1.08 || 1]
  const x = (day: number) => BOX.left + ((day - begins) / (ends - begins)) * (BOX.right - BOX.left)
  const y = (value: number) =>
    BOX.bottom - ((Math.min(Math.max(value, low), high) - low) / (high - low)) * (BOX.bottom - BOX.top)
  const at = (day: number, value: number) => `${x(day).toFixed(1)} ${y(value).toFixed(1)}`
  const band = [...line.map((p) => at(p.day, p.high)), ...line.toReversed().map((p) => at(p.day, p.low))]
  const off = new Set(aside.map(dayOf))
  const reached = trend.reached
  const drawnBreaks = breaks.map((one) => ({ ...one, x: x(dayOf(one.at)) })).filter((one) => one.x > BOX.left - 1)
  const factor = onSheet(unit, sheet)
  const says = [title, ...trend.advice].join('. ')
  return (
    <Drawing paper={[0, 0, WIDTH, 246]} along says={says}>
      <defs>
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--line)" strokeWidth="1" />
        </pattern>
      </defs>
      {band.length > 0 && <path d={`M${band.join('L')}Z`} fill={`url(#${id})`} />}
      <path d={`M${BOX.left} ${BOX.top}V${BOX.bottom}H${BOX.right}`} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
      {valueTicks(low * factor, high * factor).map((tick) => {
        const value = tick / factor
        return (
          <g key={tick}>
            <path d={`M${BOX.left - 4} ${y(value)}H${BOX.left}`} stroke="var(--ink)" strokeWidth="1.25" />
            <text x={BOX.left - 8} y={y(value) + 5} textAnchor="end" fontSize="var(--fs-note)" fontFamily="var(--read)">
              {String(tick).replace('-', '−')}
            </text>
          </g>
        )
      })}
      <text x={BOX.left - 8} y={BOX.top - 10} textAnchor="end" fontSize="var(--fs-note)">
        {sayUnit(unit, sheet)}
      </text>
      {timeTicks(begins, ends).map(({ day, text }) => (
        <g key={day}>
          <path d={`M${x(day)} ${BOX.bottom}v5`} stroke="var(--ink)" strokeWidth="1.25" />
          <text x={x(day)} y={BOX.bottom + 20} textAnchor="middle" fontSize="var(--fs-note)">
            {text}
          </text>
        </g>
      ))}
      {drawnBreaks.map((one, i) => (
        <g key={`${one.at} ${one.why}`}>
          <path d={`M${one.x} 4V${BOX.bottom}`} stroke="var(--ink)" strokeWidth="1.25" strokeDasharray="2 3" />
          {(drawnBreaks[i + 1]?.x ?? BOX.right + APART / 2) - one.x > APART && (
            <text x={one.x + 5} y="16" fontSize="var(--fs-note)" className="halo">
              {one.why}
            </text>
          )}
        </g>
      ))}
      {limit !== null && (
        <>
          <path d={`M${BOX.left} ${y(limit)}H${BOX.right}`} stroke="var(--ink)" strokeWidth="2" strokeDasharray="14 4" />
          <text x={BOX.left + 6} y={y(limit) - 6} fontSize="var(--fs-note)" fontWeight="600" className="halo">
            limit {sayFigure({ value: limit, unit }, sheet)}
          </text>
        </>
      )}
      {line.length > 0 && (
        <path d={`M${line.map((p) => at(p.day, p.value)).join('L')}`} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      )}
      {limit !== null && reached?.earliest && (
        <path
          d={`M${x(dayOf(reached.earliest))} ${y(limit) - 7}v14M${x(dayOf(reached.earliest))} ${y(limit)}H${reached.latest ? x(dayOf(reached.latest)) : BOX.right}${reached.latest ? `m0 -7v14` : ''}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="5"
        />
      )}
      <path d={`M${x(now)} ${BOX.top}V${BOX.bottom}`} stroke="var(--blue)" strokeWidth="1.25" />
      <text
        x={x(now)}
        y={BOX.bottom - 6}
        textAnchor={x(now) > BOX.right - 60 ? 'end' : 'start'}
        dx={x(now) > BOX.right - 60 ? -4 : 4}
        fontSize="var(--fs-note)"
        className="halo"
      >
        today
      </text>
      {points.map((p, i) =>
        off.has(p.day) ? (
          <circle
            key={trend.drawn[i]!.at}
            cx={x(p.day)}
            cy={y(p.value)}
            r="6"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
        ) : (
          <path
            key={trend.drawn[i]!.at}
            d={`M${x(p.day) - 4} ${y(p.value) - 4}l8 8m0 -8l-8 8`}
            stroke="var(--blue)"
            strokeWidth="2.25"
          />
        ),
      )}
    </Drawing>
  )
}

/** When a limit is reached, in a few words: under a chart, and where there is no room for one. */
export function sayReached({ verdict, reached, carries_until }: Trend): string {
  if (verdict === 'over') return 'now'
  if (!reached?.earliest) return 'cannot say yet'
  const isRange = reached.latest && reached.earliest !== carries_until
  return isRange ? `${sayDay(reached.earliest)} to ${sayDay(reached.latest!)}` : `not before ${sayDay(reached.earliest)}`
}
