import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { ALL_BENCHES } from '../benches/benches'
import { Sheet } from '../frame/Sheet'
import { BenchPicture } from './pictures'

/** Any bench on its own, without a job. */
export function QuickBenches() {
  return (
    <Sheet title="Quick benches" note="The same benches as in a job; nothing is kept in a record">
      <List>
        {ALL_BENCHES.map((bench) => (
          <li key={bench.name}>
            <Link href={`/benches/${bench.name}`}>
              <BenchPicture name={bench.name} />
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
  padding: 16px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(176px, 1fr));
  gap: 12px;
  li { display: grid; }
  a { display: grid; align-content: start; padding: 8px 12px 10px; border: 1.25px solid var(--ink); text-decoration: none; line-height: 1.2; }
  svg { width: 100%; max-width: 132px; justify-self: center; }
  b { font-size: var(--fs-sub); font-weight: 600; padding-top: 8px; }
  span { color: var(--ink-2); font-size: var(--fs-text); }
  a:hover { background: var(--blue-wash); }
  @media (max-width: 480px) {
    grid-template-columns: 1fr 1fr;
    padding: 8px;
    gap: 8px;
  }
`
