import { useQuery } from '@tanstack/react-query'
import { lineChangesOptions } from '../api/queries'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'

/** Who changed what on a line, the latest first: machines, coupling, values. */
export function LineChanges({ lineId }: { lineId: string }) {
  const unit = useUnit()
  const changes = useQuery(lineChangesOptions(lineId)).data ?? []
  if (changes.length === 0) return null
  return (
    <>
      <h2>Changes</h2>
      <ul>
        {changes.map((change) => (
          <li key={change.version}>
            {change.version === 1 && 'Line made'}
            {change.version > 1 && change.changes.length === 0 && 'Saved as it was'}
            {change.changes.map(({ what, was, now }) => (
              <p key={what}>
                {what}: {sayIn(was, unit)} → <b>{sayIn(now, unit)}</b>
              </p>
            ))}
            <small>
              {change.by}, {change.role}, {sayWhen(change.at)}
            </small>
          </li>
        ))}
      </ul>
    </>
  )
}
