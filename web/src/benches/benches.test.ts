import { describe, expect, it } from 'vitest'
import { ALL_BENCHES, benchOf } from './benches'
import type { Draft } from './draft'

/** What a hand has typed on each bench, some of it in inches, and what the step gives. */
const TYPED: Record<string, { cells: Record<string, string>; choices?: Record<string, unknown>; preset?: object }> = {
  clock: { cells: { at0: '0', at90: '.002 in', at180: '-0.05' } },
  fit: { cells: { shaft00: '48.012', bore02: '1.8898 in' } },
  key: {
    cells: {
      'key.width_mm': '14',
      'key.height_mm': '9',
      'key.length_mm': '70',
      'shaft_keyway.width_mm': '14.02',
      'shaft_keyway.depth_mm': '5.5',
      'hub_keyway.width_mm': '14.03',
      'hub_keyway.depth_mm': '3.8',
      'hub_keyway.length_mm': '2.75 in',
      shaft_diameter_mm: '48',
      shaft_keyway_length_mm: '72',
    },
    choices: { length_rule: 'half key made up' },
  },
  heat: {
    cells: {
      bore: '60.02',
      interference: '.0012 in',
      clearance: '0.06',
      outside: '130',
      length: '90',
      shaft_c: '68 F',
      ambient_c: '20',
      ceiling_c: '180',
      carry: '0:45',
      air_c: '200',
      t0: '1:04',
      c0: '166',
    },
    choices: { material: 'cast iron', heater: 'oven' },
  },
  taper: {
    cells: {
      'shaft.large_mm': '60',
      'shaft.small_mm': '2.1 in',
      'shaft.length_mm': '80',
      'bore.large_mm': '60.01',
      'bore.stated': '12',
      'bore.length_mm': '80',
      interference: '0.07',
      hand_tight: '3.2',
      'try.hub': '140',
      'try.shaft': '20',
    },
    choices: {
      'bore.way': '1 in',
      contact: [
        [1, 0.5],
        [0, 1],
      ],
    },
  },
  runout: {
    cells: { at0: '0', at90: '0.02', at180: '.001 in', second0: '0', second90: '-0.01', second180: '0.01', apart: '80' },
    choices: { second: 'rim further along' },
    preset: { limit_mm: 0.05 },
  },
  softfoot: {
    cells: { 'rise.D.E. foot': '0.04', 'rise.tail': '.002 in', ...corners('D.E. foot', '.001 in') },
    choices: { feet: ['D.E. foot', 'tail'] },
    preset: { limit_mm: 0.05 },
  },
  gap: {
    cells: { at0: '3', at90: '3.02', at180: '.119 in', other0: '4', other90: '4', other180: '4.1', diameter: '160' },
    choices: { where: 'both ends of a spacer' },
  },
  straightedge: {
    cells: { at0: '0.10', at90: '.004 in', stationary: '160', movable: '160' },
    choices: { on90: 'stationary' },
  },
  alignment: {
    cells: {
      'rim.at0': '0',
      'rim.at90': '+.004 in',
      'rim.at180': '-0.20',
      'face.at0': '0',
      'face.at90': '0.05',
      'face.at180': '0.10',
      'rim.x': '30',
      'face.radius': '3 in',
      'rim.sag': '-0.04',
      'rise.D.E.': '.003 in',
      'warm.tail.height': '250',
      'warm.tail.cold': '20',
      'warm.tail.hot': '60',
      'room.D.E..shim': '0.5',
    },
    choices: { bracket_on: 'movable', positive: 'out', box: '.005 .010 in', 'under.tail': '0.50', 'stays.tail': true },
    preset: {
      movable_feet: [
        { name: 'D.E.', x_mm: 200 },
        { name: 'tail', x_mm: 500 },
      ],
      stationary_feet: [{ name: 'pump', x_mm: -200 }],
    },
  },
  tighten: {
    cells: { 'wrench.min': '20', 'wrench.max': '74 lb ft', 'wrench.length': '300', extension: '2 in', extension_angle: '90' },
    choices: {
      wrench: 'W3',
      calibrated_until: '2027-01-31',
      pulled_on: '2026-11-26',
      clicks: [{ pass: 1, bolt: 1, reached_nm: 40, reached_is: 'wrench' }],
    },
    preset: { bolts: 4, torque_nm: 80, passes: [0.5, 1], pattern: 'star' },
  },
}

Object.assign(TYPED, {
  fitted: {
    cells: { bolts: '6' },
    choices: { heads: 'all on the hub', first_head: 'spacer', log: [{ hole: 1, to: 'in' }] },
  },
  grease: {
    cells: { grams: '95' },
    choices: {
      holes: [0, 120, 240],
      turned: 30,
      routine: 'hole by hole',
      log: [{ hole: 2, what: 'plug out' }],
      product: 'Maltster blue',
      batch: '7',
    },
  },
  airgap: {
    cells: {
      driver0: '3.42',
      driver90: '.134 in',
      driver180: '3.30',
      load45: '2.58',
      load180: '2.60',
      diameter: '360',
      near: '380',
      far: '760',
    },
    choices: { 'driver.clocks': [0, 90, 180, 270], 'load.clocks': [0, 45, 90, 180, 270] },
    preset: { spread_max_mm: 0.3 },
  },
  backstop: { cells: {}, choices: { seen: 'output side', output: 'ccw', meshes: '2', on: 'input side' } },
  torque_arm: { cells: { power: '11', rpm: '68', arm: '550', angle: '84' } },
  wear: {
    cells: { v0: '3.0', v1: '.13 in', v2: '0.2', half: '0.1', limit: '4' },
    choices: { days: ['2026-01-03', '2026-02-03', '2026-03-04'], fresh: [2] },
  },
})

function corners(foot: string, text: string) {
  return Object.fromEntries([0, 1, 2, 3].map((i) => [`corner.${foot}.${i}`, text]))
}

const draftOf = ({ cells, choices = {} }: (typeof TYPED)[string]): Draft => ({
  cells: Object.fromEntries(Object.entries(cells).map(([cell, text]) => [cell, { text, unit: 'mm' as const }])),
  choices,
})

describe.each(ALL_BENCHES.map((bench) => bench.name))('what was entered on %s', (name) => {
  const bench = benchOf(name)!
  const given = TYPED[name]!
  const preset = given.preset ?? {}
  const first = bench.read(draftOf(given), preset)

  it('is whole, and comes back into its cells as it was typed', () => {
    expect(first.lacking).toBe('')
    const back = bench.restore({ inputs: { ...preset, ...first.input }, typed: first.typed }, 'all')
    const again = bench.read(back, preset)
    expect([again.input, again.typed]).toEqual([first.input, first.typed])
    expect(Object.keys(given.cells).filter((cell) => back.cells[cell] === undefined)).toEqual([])
  })
  it('says where each figure was typed', () => {
    const unplaced = Object.keys(first.typed).filter((path) => first.cellAt[path] === undefined)
    expect(unplaced.filter((path) => !path.startsWith('shims.'))).toEqual([]) // the box is a line, not cells
  })
})

it.each(['gap', 'alignment', 'softfoot', 'runout'])('new readings on %s begin with the set-up and no reading', (name) => {
  const bench = benchOf(name)!
  const { preset = {}, ...given } = TYPED[name]!
  const first = bench.read(draftOf(given), preset)
  const anew = bench.restore({ inputs: { ...preset, ...first.input }, typed: first.typed }, 'set-up')
  expect(bench.read(anew, preset).lacking).not.toBe('')
})

// Grease may be packed by hand: its bench answers before anything is done.
const LACKING = ALL_BENCHES.map((bench) => bench.name).filter((name) => name !== 'grease')

it.each(LACKING)('%s lacks something, and says what, while nothing is typed', (name) => {
  expect(benchOf(name)!.read({ cells: {}, choices: {} }, {}).lacking).not.toBe('')
})
