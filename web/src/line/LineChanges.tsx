import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { lineChangesOptions } from '../api/queries'
import { useUnit } from '../units/preferences'
import { sayIn } from '../units/say'
import { sayWhen } from '../units/when'

/** Who changed what on a line, the latest first: machines, coupling, values. */
export function LineChanges({ lineId }: { lineId: string }) {
  const changes = useQuery(lineChangesOptions(lineId)).data ?? []
  const made = (change: (typeof changes)[number]) =>
    change.version === 1 ? 'Line made' : change.changes.length === 0 && 'Saved as it was'
  return <ChangeList changes={changes.map((change) => ({ ...change, key: change.version, made: made(change) }))} />
}

type Change = Omit<Schemas['LineChangeOut'], 'version'> & {
  key: number
  /** What it was, where no figure was changed. */
  made: string | false
}

/** Changes, each with what was, what is, and whose it is. */
export function ChangeList({ changes }: { changes: readonly Change[] }) {
  const unit = useUnit()
  if (changes.length === 0) return null
  return (
    <>
      <h2>Changes</h2>
      <ul>
        {changes.map((change) => (
          <li key={change.key}>
            {change.made}
            {change.changes.map(({ what, was, now }) => (
              <p key={what}>
                {what}: {sayIn(was, unit)} → <b>{sayIn(now, unit)}</b>
              </p>
            ))}
            <small>
              {change.because && `${change.because}. `}
              {change.by}, {change.role}, {sayWhen(change.at)}
            </small>
          </li>
        ))}
      </ul>
    </>
  )
}
