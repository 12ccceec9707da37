import { describe, expect, it } from 'vitest'
import { draftOf, type LineSpec, specOf } from './lineDraft'

const WHOLE: LineSpec = {
  driver: {
    name: 'Motor',
    drawn_as: 'motor',
    power_kw: 37,
    shaft_diameter_mm: 48,
    feet: [
      { name: 'motor drive end', from_coupling_mm: 300, rise_mm: 0.12 },
      { name: 'motor tail', from_coupling_mm: 586, rise_mm: null },
    ],
    foot_bolts: 4,
    serial: '',
    floats: true,
  },
  driven: {
    name: 'Fan P-3',
    drawn_as: 'fan',
    power_kw: null,
    shaft_diameter_mm: 55,
    feet: [{ name: 'fan near', from_coupling_mm: 280, rise_mm: null }],
    foot_bolts: 6,
    serial: '',
    floats: false,
  },
  coupling: {
    family: 'gear',
    series: 'Brackwater T',
    size: '8',
    driver_hub: { connection: 'tapered bush', diameter_mm: 130, length_mm: 70, set_screws: 2, half_key: true, half: 'rigid' },
    driven_hub: {
      connection: 'shrink disc',
      diameter_mm: 140,
      length_mm: 80,
      set_screws: 0,
      half_key: false,
      half: 'flexible',
    },
  },
  movable: 'driven',
  backstop: true,
  speed_rpm: 1480,
  isolation_points: [{ energy: 'electric', point: 'Fan isolator' }],
  purpose: 'keeps the germinating floor cool',
  hours_a_day: 16,
}

/** Nulls and what stands for them: a figure nobody gave is left out of what is sent. */
const told = (spec: unknown) =>
  JSON.parse(JSON.stringify(spec, (_, value) => (value === null ? undefined : value))) as Record<string, unknown>

describe('a line opened in the editor and saved untouched', () => {
  it('is the same line: what floats, half keys, rigid halves, rises and screws are not lost', () => {
    expect(told(specOf(draftOf('Fan 1', WHOLE)).spec)).toEqual(told(WHOLE))
  })
})

describe('a line as it is typed', () => {
  it('has halves that may be rigid only where its family has them', () => {
    const draft = draftOf('Fan 1', WHOLE)
    draft.choices.family = 'tyre'
    expect(specOf(draft).spec).toMatchObject({ coupling: { driver_hub: { half: 'flexible' } } })
  })
  it('leaves out what is not there yet, so that the server says what is missing and where', () => {
    const { spec, cellAt, unreadable } = specOf(draftOf('', null))
    expect(spec).not.toHaveProperty('speed_rpm')
    expect(cellAt['spec.speed_rpm']).toBe('speed')
    expect(cellAt['spec.driver.shaft_diameter_mm']).toBe('driver.shaft')
    expect(unreadable).toBe(false)
  })
  it('reads inches, and says that letters are no figure', () => {
    const draft = draftOf('Fan 1', WHOLE)
    draft.cells['driver.shaft'] = { text: '1 7/8', unit: 'in' }
    expect((specOf(draft).spec.driver as { shaft_diameter_mm: number }).shaft_diameter_mm).toBe(47.625)
    draft.cells['driver.shaft'] = { text: 'thick', unit: 'in' }
    expect(specOf(draft).unreadable).toBe(true)
  })
  it('names the feet of a machine by the machine', () => {
    const draft = draftOf('', null)
    draft.choices['driver.name'] = 'Motor'
    draft.cells['driver.foot0'] = { text: '300', unit: 'mm' }
    draft.cells['driver.foot1'] = { text: '600', unit: 'mm' }
    const feet = (specOf(draft).spec.driver as { feet: { name: string }[] }).feet
    expect(feet.map((foot) => foot.name)).toEqual(['motor drive end', 'motor tail'])
  })
})
