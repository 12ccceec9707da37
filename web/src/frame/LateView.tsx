import { type ComponentType, useEffect, useState } from 'react'
import { Refused } from '../api/client'
import { Lost } from './Lost'

/** Fetches the code of a view. */
export type Late = () => Promise<ComponentType>

const fetched = new Map<Late, ComponentType>()

/**
 * A view whose code is fetched when it is first wanted. Not React's `lazy`: what was late once is held back there for a
 * third of a second before it may show, whatever the network did.
 */
export function LateView({ view }: { view: Late }) {
  const [, setShown] = useState<Late | null>(null)
  const [away, setAway] = useState<Late | null>(null)
  useEffect(() => {
    if (fetched.has(view)) return
    view().then(
      (found) => {
        fetched.set(view, found)
        setShown(() => view)
      },
      () => setAway(() => view),
    )
  }, [view])
  const View = fetched.get(view)
  if (View) return <View />
  return away === view ? <Lost why={new Refused(0, [])} /> : null
}
