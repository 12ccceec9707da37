import { Link } from 'react-aria-components'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { Glyph, sayStatus } from '../kit/Allowance'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'

/** How the last job left the machines: drawn as it was read, with its judged figures. */
export function AsLeft({ left }: { left: NonNullable<Schemas['HistoryOut']['as_left']> }) {
  const unit = useUnit()
  return (
    <Part>
      <h2>
        {left.found ? 'As last read' : 'As left'}
        <span>
          {' '}
          {sayWhen(left.at)}, {left.by}, <Link href={`/jobs/${left.job}/record`}>job {left.number}</Link>
        </span>
      </h2>
      <div>
        {left.drawing && <img alt={left.drawing_title} src={`data:image/svg+xml;utf8,${encodeURIComponent(left.drawing)}`} />}
        <ul>
          {left.figures.map((one) => (
            <li key={one.what}>
              <span>{one.what}</span>
              <b>{sayIn(one.left, unit)}</b>
              <small>
                <Glyph status={one.status} /> {sayStatus({ status: one.status })}
                {one.limit.template && `, ${sayIn(one.limit, unit)} (${one.source})`}
              </small>
            </li>
          ))}
        </ul>
      </div>
      {left.also.length > 0 && (
        <div className="also">
          {left.also.map((one) => (
            <figure key={one.title}>
              <figcaption>{one.title}</figcaption>
              <img alt={one.drawing_title} src={`data:image/svg+xml;utf8,${encodeURIComponent(one.drawing)}`} />
            </figure>
          ))}
        </div>
      )}
    </Part>
  )
}

const Part = styled.section`
  h2 span { font-weight: 400; font-size: var(--fs-small); color: var(--ink-2); }
  h2 a { display: inline-flex; align-items: center; justify-content: center; min-height: var(--touch); min-width: var(--touch); margin: -12px 0; }
  > div { display: flex; flex-wrap: wrap; gap: 8px 24px; align-items: flex-start; }
  img { flex: 3 1 460px; width: 100%; max-width: 760px; min-width: 0; background: #fff; border: 0.75px solid var(--line); }
  .also { padding-top: 10px; }
  figure { flex: 0 1 300px; min-width: 0; }
  figcaption { font-size: var(--fs-small); color: var(--ink-2); }
  figure img { width: 100%; }
  ul { flex: 1 1 240px; }
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 0 12px; padding: 5px 0; border-bottom: 0.75px solid var(--line); line-height: 1.25; }
  li b { font: 600 var(--fs-text) var(--read); }
  li small { grid-column: 1 / -1; color: var(--ink-2); font-size: var(--fs-small); }
`
