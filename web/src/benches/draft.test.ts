import { describe, expect, it } from 'vitest'
import { asRead, clocksOf, type Draft, DraftFiller, DraftReader, readClock } from './draft'

const cells = (texts: Record<string, string>, unit: 'mm' | 'in' = 'mm'): Draft => ({
  cells: Object.fromEntries(Object.entries(texts).map(([cell, text]) => [cell, { text, unit }])),
  choices: {},
})

describe('cells read into an input', () => {
  it('an empty cell is nothing, never 0, and a zero is a reading', () => {
    const reader = new DraftReader(cells({ a: '', b: '0' }))
    expect([reader.length('a', 'a'), reader.length('b', 'b'), reader.length('c', 'c')]).toEqual([null, 0, null])
  })
  it('what cannot be read makes the whole unusable, and is said', () => {
    const reader = new DraftReader(cells({ a: 'about 1' }))
    reader.length('a', 'a')
    expect(reader.done({})).toMatchObject({ input: null, lacking: 'A figure cannot be read.' })
  })
  it('remembers where each went, and what was typed where that was not plain millimetres', () => {
    const reader = new DraftReader(cells({ a: '.002', t: '330 F' }, 'in'))
    expect(reader.length('a', 'rows.0.value_mm')).toBe(0.0508)
    reader.temperature('t', 'hub_c')
    expect(reader.done({})).toMatchObject({
      typed: { 'rows.0.value_mm': '.002 in', hub_c: '330 F' },
      cellAt: { 'rows.0.value_mm': 'a', hub_c: 't' },
    })
  })
  it('a ring is read clockwise, its empty places left out', () => {
    const draft = cells({ at180: '0.6', at0: '0', at90: '' })
    expect(readClock(new DraftReader(draft), [180, 0, 90], 'at', 'readings')).toEqual([
      { clock: 0, value_mm: 0 },
      { clock: 180, value_mm: 0.6 },
    ])
  })
  it('a ring has four places until others are chosen', () => {
    expect(clocksOf(cells({}))).toEqual([0, 90, 180, 270])
    expect(clocksOf({ cells: {}, choices: { clocks: [0, 120, 240] } })).toEqual([0, 120, 240])
  })
})

describe('an entry back in its cells', () => {
  const inputs = {
    readings: [
      { clock: 0, value_mm: 0.05 },
      { clock: 120, value_mm: -0.3 },
    ],
    bar_mm: 6.35,
  }
  it('shows what was typed, else the figure as an instrument shows it, a dial with its sign', () => {
    const filler = new DraftFiller({ inputs, typed: { bar_mm: '1/4 in' } })
    filler.cell('bar', 'bar_mm')
    filler.ring('all', 'readings', { signed: true })
    expect(filler.draft.cells.bar!.text).toBe('1/4 in')
    expect(filler.draft.cells.at0!.text).toBe('+0.05')
    expect(filler.draft.cells.at120!.text).toBe('-0.30')
    expect(filler.draft.choices.clocks).toEqual([0, 120])
  })
  it('to read again keeps the places and empties the readings', () => {
    const filler = new DraftFiller({ inputs, typed: {} })
    filler.ring('set-up', 'readings')
    expect(filler.draft).toEqual({ cells: {}, choices: { clocks: [0, 120] } })
  })
  it('two places, more only where there are more', () => {
    expect([asRead(0.1), asRead(0.127), asRead(48.012, 3)]).toEqual(['0.10', '0.127', '48.012'])
  })
})

it('what was chosen of another kind, out of a file or an earlier version, is nothing chosen', () => {
  for (const clocks of ['noon', 4, { 0: 90 }, null])
    expect(clocksOf({ cells: {}, choices: { clocks } })).toEqual([0, 90, 180, 270])
  expect(clocksOf({ cells: {}, choices: { clocks: [0, 120, 240] } })).toEqual([0, 120, 240])
})
