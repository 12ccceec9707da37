import { expect, it } from 'vitest'
import { EMPTY } from '../benches/draft'
import { sayUnit } from '../units/say'
import { FIGURES, LEAKS, moved, nextStop, ON_DAY, readLook, type Stop } from './round'

const stop = (id: string, reads: string[] = []) => ({ id, name: id, reads, last: null, open_job: null }) as unknown as Stop

it('a look holds what was read and nothing else', () => {
  const draft = LEAKS.put({ ...EMPTY, cells: { wear_mm: { text: '0.2', unit: 'in' } } }, 'none')
  const { inputs, isEmpty } = readLook(stop('a', ['wear_mm']), draft, 'in')
  expect(inputs).toMatchObject({
    line_id: 'a',
    wear_mm: 5.08,
    leaks: 'none',
    noise: null,
    hours: null,
    typed: { wear_mm: '0.2 in' },
  })
  expect(isEmpty).toBe(false)
  expect(readLook(stop('a'), EMPTY, 'mm').isEmpty).toBe(true)
})

it('a round from paper keeps its own day', () => {
  const draft = ON_DAY.put({ ...EMPTY, cells: { hours: { text: '1200', unit: 'mm' } } }, '2026-11-03')
  expect(readLook(stop('a'), draft, 'mm').inputs.on).toBe('2026-11-03')
})

it('vibration is typed in the unit the sheet shows beside its cell', () => {
  const read = (text: string, unit: 'mm' | 'in') =>
    readLook(stop('a'), { ...EMPTY, cells: { vibration_mm_per_s: { text, unit } } }, unit).inputs.vibration_mm_per_s
  expect([sayUnit(FIGURES.vibration_mm_per_s.unit, 'in'), read('0.2', 'in')]).toEqual(['in/s', 5.08])
  expect([sayUnit(FIGURES.vibration_mm_per_s.unit, 'mm'), read('2.8', 'mm')]).toEqual(['mm/s', 2.8])
})

it('the walk goes on to the next line that was not looked at, round the end', () => {
  const stops = ['a', 'b', 'c'].map((id) => stop(id))
  const seen = (one: Stop) => one.id === 'c'
  expect(nextStop(stops, 'a', seen)?.id).toBe('b')
  expect(nextStop(stops, 'b', seen)?.id).toBe('a')
  expect(nextStop([stops[0]!], 'a', seen)).toBeUndefined()
  const inWork = [stops[0]!, { ...stops[1]!, open_job: 7 } as Stop, stops[2]!]
  expect(nextStop(inWork, 'a', () => false)?.id).toBe('c')
})

it('a line moves one place along the walk, and no further than its ends', () => {
  expect(moved(['a', 'b', 'c'], 'b', -1)).toEqual(['b', 'a', 'c'])
  expect(moved(['a', 'b', 'c'], 'c', 1)).toEqual(['a', 'b', 'c'])
})
