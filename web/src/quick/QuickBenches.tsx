import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { ALL_BENCHES } from '../benches/benches'
import { Sheet } from '../frame/Sheet'

/** Any bench on its own, without a job. */
export function QuickBenches() {
  return (
    <Sheet title="Quick benches" note="The same benches as in a job; nothing is entered anywhere">
      <List>
        {ALL_BENCHES.map((bench) => (
          <li key={bench.name}>
            <Link href={`/benches/${bench.name}`}>
              <b>{bench.title}</b>
              <span>{bench.answers}</span>
            </Link>
          </li>
        ))}
      </List>
    </Sheet>
  )
}

const List = styled.ul`
  max-width: 760px;
  padding: 8px 16px;
  a { display: grid; grid-template-columns: 180px 1fr; align-items: center; min-height: 58px; border-bottom: 0.75px solid var(--line); text-decoration: none; }
  b { font-size: var(--fs-sub); font-weight: 600; }
  a:hover b { text-decoration: underline; }
`
