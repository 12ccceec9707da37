import { useId } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { Drawing } from './Drawing'
import { useHatch } from './Hatch'

type Sketch = Schemas['SketchOut']
type Ink = Sketch['paths'][number]['ink']

/** A drawing of what to look for, as the core worked it out: here it gets ink, and its figures the unit of the sheet. */
export function SketchView({ sketch }: { sketch: Sketch }) {
  const hatch = useHatch()
  const rubber = useId()
  const unit = useUnit()
  const fills: Partial<Record<Ink, string>> = {
    part: 'var(--leaf)',
    cut: hatch.fixed,
    'cut other': hatch.other,
    rubber: `url(#${rubber})`,
    solid: 'var(--ink)',
  }
  return (
    <Drawn>
      <Drawing
        paper={[0, 0, sketch.width, sketch.height]}
        narrow={sketch.narrow ? [sketch.narrow.left, 0, sketch.narrow.width, sketch.height] : undefined}
        most={1}
        says={sketch.title}
      >
        {([left, , width]) => (
          <>
            {hatch.defs}
            <pattern id={rubber} width="5" height="5" patternUnits="userSpaceOnUse">
              <path d="M0 0L5 5M5 0L0 5" stroke="var(--ink)" strokeWidth=".5" />
            </pattern>
            {sketch.paths.map(({ d, ink }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: paths in the order they are drawn
              <path key={i} d={d} fill={fills[ink] ?? 'none'} {...(LINES[ink] ?? OUTLINE)} />
            ))}
            {sketch.dimensions.map(({ x1, y1, x2, y2, words }) => (
              <g key={`${x1} ${y1} ${x2}`}>
                <path d={`M${x1} ${y1}L${x2} ${y2}`} {...THIN} markerStart={hatch.arrow} markerEnd={hatch.arrow} />
                <text x={(x1 + x2) / 2} y={(y1 + y2) / 2 - 4} textAnchor="middle">
                  {sayIn(words, unit)}
                </text>
              </g>
            ))}
            {sketch.labels
              .filter(({ x }) => x >= left && x <= left + width)
              .map(({ x, y, words, anchor, to, big }) => (
                <g key={`${x} ${y}`}>
                  {to && (
                    <>
                      <path d={`M${x} ${to.y < y ? y - 12 : y + 3}L${to.x} ${to.y}`} {...THIN} />
                      <circle cx={to.x} cy={to.y} r="2.2" fill="var(--ink)" />
                    </>
                  )}
                  <text x={x} y={y} textAnchor={anchor} data-big={big || undefined}>
                    {sayIn(words, unit)}
                  </text>
                </g>
              ))}
          </>
        )}
      </Drawing>
      {sketch.note.template && <p>{sayIn(sketch.note, unit)}</p>}
    </Drawn>
  )
}

const OUTLINE = { stroke: 'var(--ink)', strokeWidth: 1.5 }
const THIN = { stroke: 'var(--ink)', strokeWidth: 0.75 }
const LINES: Partial<Record<Ink, { stroke: string; strokeWidth: number; strokeDasharray?: string }>> = {
  thin: THIN,
  centre: { ...THIN, strokeDasharray: '14 3 3 3' },
  hidden: { ...OUTLINE, strokeWidth: 1, strokeDasharray: '5 4' },
  'look here': { stroke: 'var(--blue)', strokeWidth: 2.5 },
}

const Drawn = styled.div`
  font-size: var(--fs-note);
  text { fill: var(--ink); stroke: var(--paper); stroke-width: 3; paint-order: stroke; }
  text[data-big] { font: 600 var(--fs-head) var(--read); stroke-width: 5; }
  [data-narrow] text[data-big] { font-size: var(--fs-sub); }
`
