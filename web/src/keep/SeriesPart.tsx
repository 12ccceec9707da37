import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { dayOf, sayDay } from '../drawing/overTime'
import { sayReached, TrendChart } from '../drawing/TrendChart'
import { WordButton } from '../kit/Button'
import { showFigure } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'

/** One thing that is read again and again: drawn, said, and its figures in a table when they are asked for. */
export function SeriesPart({ series, today }: { series: Schemas['SeriesOut']; today: string }) {
  const unit = useUnit()
  const [showsTable, setShowsTable] = useState(false)
  const { trend, given, limit } = series
  const aside = trend.set_aside.flatMap((i) => given.readings[i]?.at ?? [])
  const off = new Set(aside.map(dayOf))
  return (
    <Part aria-label={series.title}>
      <h3>
        {series.title}
        {limit !== null && <span> limit reached: {sayReached(trend)}</span>}
      </h3>
      <TrendChart {...{ trend, title: series.title, unit: series.unit, limit, today, aside }} breaks={given.breaks ?? []} />
      <ul>
        {trend.says.map((say) => (
          <li key={say.code}>{sayIn(say, unit)}</li>
        ))}
        {series.source && <li>Limit: {series.source}</li>}
      </ul>
      <WordButton aria-expanded={showsTable} onPress={() => setShowsTable(!showsTable)}>
        {showsTable
          ? 'Fold the readings away'
          : `${series.points.length} ${series.points.length === 1 ? 'reading' : 'readings'} in figures`}
      </WordButton>
      {showsTable && (
        <table>
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Reading</th>
              <th scope="col">Where</th>
            </tr>
          </thead>
          <tbody>
            {series.points.toReversed().map((point) => {
              const { text, unit: shown } = showFigure(point.value, series.unit, unit)
              return (
                <tr key={`${point.at} ${point.where}`}>
                  <td>{sayDay(point.at)}</td>
                  <td>
                    {text} {shown}
                    {off.has(dayOf(point.at)) && ' (does not belong)'}
                  </td>
                  <td>{point.where}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </Part>
  )
}

const Part = styled.section`
  padding: 6px 0 10px;
  border-bottom: 0.75px solid var(--line);
  max-width: 860px;
  h3 { font-size: var(--fs-body); font-weight: 600; }
  h3 span { font-weight: 400; margin-left: 8px; color: var(--ink-2); }
  ul { display: grid; gap: 2px; padding-top: 4px; }
  li { line-height: 1.3; }
  li:first-child { font-weight: 600; }
  li:last-child:not(:first-child) { color: var(--ink-2); font-size: var(--fs-small); }
  table { border-collapse: collapse; }
  th, td { text-align: left; padding: 4px 18px 4px 0; border-bottom: 0.75px solid var(--line); font-weight: 400; }
  th { color: var(--ink-2); font-size: var(--fs-small); }
  td:nth-child(2) { font: 500 var(--fs-text) var(--read); }
`
