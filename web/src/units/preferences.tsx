import { createContext, type ReactNode, useContext, useEffect, useState } from 'react'
import type { LengthUnit } from './length'

interface Preferences {
  unit: LengthUnit
  gloves: 'on' | 'off'
  hall: 'bright' | 'dim'
  /** Single keys, for a hand on a keyboard; off for whoever talks to the device. */
  letters: 'on' | 'off'
}

const KEY = 'anvil.preferences'
const Context = createContext<[Preferences, (change: Partial<Preferences>) => void] | null>(null)

function kept(): Preferences {
  const first: Preferences = { unit: 'mm', gloves: 'off', hall: 'bright', letters: 'on' }
  try {
    return { ...first, ...JSON.parse(localStorage.getItem(KEY) ?? '{}') }
  } catch {
    return first // somebody else's or damaged content: start plain
  }
}

/** Unit of the sheet, glove size, hall light, single keys: kept on this device. */
export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [preferences, set] = useState(kept)
  useEffect(() => {
    localStorage.setItem(KEY, JSON.stringify(preferences))
    document.documentElement.dataset.gloves = preferences.gloves
    document.documentElement.dataset.hall = preferences.hall
  }, [preferences])
  return <Context value={[preferences, (change) => set((before) => ({ ...before, ...change }))]}>{children}</Context>
}

/** The preferences and how to change them. */
export function usePreferences() {
  const found = useContext(Context)
  if (!found) throw new Error('usePreferences outside its provider')
  return found
}

/** The unit the sheet is set to. */
export function useUnit(): LengthUnit {
  return usePreferences()[0].unit
}
