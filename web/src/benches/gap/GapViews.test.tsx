import { expect, it } from 'vitest'
import { onSheet } from '../../test/onSheet'
import { TwoHubs } from './GapViews'

const NAMES = { movable: 'Motor', stationary: 'Blower' }

const found = (angle_v_mm_per_m: number) =>
  ({
    mean_mm: 3,
    spread_mm: 0.2,
    angle_v_mm_per_m,
    angle_mm_per_m: Math.abs(angle_v_mm_per_m),
    wide_at_deg: angle_v_mm_per_m > 0 ? 180 : 0,
  }) as never

/** How far the movable hub's face stands from the stationary one, at the top and at the bottom. */
function openings(angle: number) {
  const { container } = onSheet(<TwoHubs result={found(angle)} names={NAMES} />)
  const faces = [...container.querySelectorAll('path')].map((path) => path.getAttribute('d')!)
  const movable = faces.map((d) => d.match(/^M(-[\d.]+) -65H-[\d.]+V65H(-[\d.]+)Z$/)).find((m) => m !== null)!
  const stationary = 28
  return { top: stationary - Number(movable[1]), bottom: stationary - Number(movable[2]) }
}

it('a gap that is wider at 6 is drawn open at the bottom, one that is wider at 12 at the top', () => {
  const below = openings(3)
  expect(below.bottom).toBeGreaterThan(below.top)
  const above = openings(-3)
  expect(above.top).toBeGreaterThan(above.bottom)
  const even = openings(0)
  expect(even.top).toBe(even.bottom)
})

it('the gap is written between the hubs, in the unit of the sheet', () => {
  const { container } = onSheet(<TwoHubs result={found(0)} names={NAMES} />, 'in')
  expect(container.querySelector('svg')!.getAttribute('aria-label')).toBe('Gap 0.1181 in on the axis')
})
