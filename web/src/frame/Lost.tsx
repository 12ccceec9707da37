import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { Refused } from '../api/client'
import { Sheet } from './Sheet'

interface LostProps {
  why?: Error | null
  /** Where what cannot be shown can be fetched as a file. */
  file?: string
}

/** An address where nothing is, or something that could not be brought or shown; says which, and the way back. */
export function Lost({ why, file }: LostProps) {
  const isFault = why instanceof Refused && why.isFault
  const cannotReach = why instanceof Refused && why.unreachable
  return (
    <Sheet title={cannotReach ? 'The server cannot be reached' : isFault ? 'This cannot be shown' : 'Nothing is here'}>
      <Place>
        <p role={isFault ? 'alert' : undefined}>
          {cannotReach
            ? 'Trying again by itself. Your readings are kept on this device.'
            : (why?.message ?? 'There is no such page.')}
        </p>
        {isFault && file && <a href={file}>Everything that was entered, as a file</a>}
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
