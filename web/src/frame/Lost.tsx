import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { Refused } from '../api/client'
import { Sheet } from './Sheet'

/** An address where nothing is, or something that could not be brought; says which, and the way back. */
export function Lost({ why }: { why?: Error | null }) {
  const cannotReach = why instanceof Refused && why.unreachable
  return (
    <Sheet title={cannotReach ? 'The server cannot be reached' : 'Nothing is here'}>
      <Place>
        <p>
          {cannotReach
            ? 'Trying again by itself. Your readings are kept on this device.'
            : (why?.message ?? 'There is no such page.')}
        </p>
        <Link href="/">To the floor</Link>
      </Place>
    </Sheet>
  )
}

const Place = styled.div`
  padding: 28px;
  display: flex;
  flex-direction: column;
  gap: 16px;
  a { display: inline-flex; align-items: center; min-height: var(--touch); align-self: flex-start; }
  font-size: var(--fs-sub);
`
