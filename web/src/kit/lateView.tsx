import { type ComponentType, useEffect, useState } from 'react'
import { Refused } from '../api/client'
import { Lost } from './Lost'

/**
 * A view whose code is fetched when it is first wanted. Not React's `lazy`: what was late once is held back there for a
 * third of a second before it may show, whatever the network did.
 */
export function lateView(load: () => Promise<ComponentType>): ComponentType {
  let loaded: ComponentType | null = null
  return function LateView() {
    const [View, setView] = useState<ComponentType | null>(() => loaded)
    useEffect(() => {
      if (View) return
      let isWanted = true
      load().then(
        (found) => {
          loaded = found
          if (isWanted) setView(() => found)
        },
        () => isWanted && setView(() => Away),
      )
      return () => {
        isWanted = false
      }
    }, [View])
    return View && <View />
  }
}

/** The server was away just when the view was to be fetched. */
function Away() {
  return <Lost why={new Refused(0, [])} />
}
