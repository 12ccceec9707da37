import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import type { LengthUnit } from '../units/length'
import { PreferencesProvider } from '../units/preferences'

/** Rendered on a sheet that is set to a unit. */
export function onSheet(what: ReactNode, unit: LengthUnit = 'mm') {
  localStorage.setItem('anvil.preferences', JSON.stringify({ unit }))
  return render(<PreferencesProvider>{what}</PreferencesProvider>)
}
