import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { onSheet } from '../test/onSheet'
import { ALL_BENCHES, benchOf } from './benches'
import { EMPTY } from './draft'
import { GivenCells } from './parts'

/** Every figure a step gives a bench, of those the bench has a cell for. */
const GIVEN: Record<string, object> = {
  key: { shaft_diameter_mm: 48 },
  heat: { ceiling_c: 200, assembly_clearance_mm: 0.03 },
  taper: { interference_mm: 0.07 },
  tighten: { bolts: 8, torque_nm: 80, passes: [0.5, 1], pattern: 'star' },
  torque_arm: { power_kw: 11, output_rpm: 58 },
  fitted: { bolts: 6, way: 'drawn in' },
  straightedge: { limit: { offset_mm: 0.4 } },
}

describe('a figure that is given', () => {
  it('is computed with, shown as it is, and nothing can be typed over it', () => {
    vi.stubGlobal('matchMedia', () => ({ matches: true, addEventListener: vi.fn(), removeEventListener: vi.fn() }))
    for (const { name } of ALL_BENCHES.filter((one) => one.name in GIVEN)) {
      const bench = benchOf(name)!
      const preset = GIVEN[name] ?? {}
      const given = bench.restore({ inputs: preset, typed: {} }, 'all').cells
      const { unmount } = onSheet(
        <QueryClientProvider client={new QueryClient()}>
          <GivenCells value={given}>
            <bench.Drawing
              draft={{
                ...EMPTY,
                cells: Object.fromEntries(Object.keys(given).map((cell) => [cell, { text: '77', unit: 'mm' }])),
              }}
              change={() => undefined}
              problems={{}}
              preset={preset}
              hints={{}}
              result={null}
              spec={null}
            />
          </GivenCells>
        </QueryClientProvider>,
      )
      expect(screen.queryAllByDisplayValue('77'), name).toEqual([])
      unmount()
    }
  })
  it('is what the sheet of a key shows for the shaft', () => {
    const bench = benchOf('key')!
    onSheet(
      <GivenCells value={bench.restore({ inputs: GIVEN.key!, typed: {} }, 'all').cells}>
        <bench.Drawing
          draft={EMPTY}
          change={() => undefined}
          problems={{}}
          preset={GIVEN.key!}
          hints={{}}
          result={null}
          spec={null}
        />
      </GivenCells>,
      'in',
    )
    expect(screen.queryByRole('textbox', { name: /Shaft diameter/ })).toBeNull()
    expect(screen.getByText('1.88976')).toBeTruthy()
  })
})
