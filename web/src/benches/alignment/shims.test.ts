import { describe, expect, it } from 'vitest'
import { readThicknesses, sayPieces, unreadable, writeThicknesses } from './shims'

const mm = (line: string) => readThicknesses(line).map((piece) => piece.mm)

describe('thicknesses on a line', () => {
  it('are millimetres, with point or comma, however they are parted', () => {
    expect(mm('0.50 1,00;2 + 0.1')).toEqual([0.5, 1, 2, 0.1])
  })
  it('are inches or thou where the line ends with that, and are kept as typed', () => {
    expect(readThicknesses('.005 .010 in')).toEqual([
      { mm: 0.127, typed: '.005 in' },
      { mm: 0.254, typed: '.010 in' },
    ])
    expect(mm('5 10 thou')).toEqual([0.127, 0.254])
  })
  it('thinner than any shim are asked about: inches written as millimetres', () => {
    expect(unreadable('.005 .010')).toContain('“.005” mm is thinner than any shim. In inches?')
    expect(mm('.005 0.5')).toEqual([0.5])
  })
  it('that are none are named', () => {
    expect(unreadable('0.50 thick')).toBe('“thick” is no thickness. Write them like 0.50 1.00, or .005 .010 in.')
    expect(unreadable('0.50 1.00')).toBeUndefined()
    expect(unreadable('')).toBeUndefined()
  })
  it('come back on the line as they were typed', () => {
    const typed = ['.005 in', '.010 in']
    expect(writeThicknesses([0.127, 0.254], (i) => typed[i])).toBe('.005 .010 in')
    expect(writeThicknesses([0.5, 0.127])).toBe('0.50 0.127')
  })
})

describe('pieces are said in the unit of the sheet', () => {
  it('and as they are marked where their box is in the other one', () => {
    expect(sayPieces([0.5, 0.1], 'in')).toBe('0.0197 + 0.0039 in = 0.50 + 0.10 mm')
    expect(sayPieces([0.254, 0.127], 'mm')).toBe('0.254 + 0.127 mm = 0.0100 + 0.0050 in')
  })
  it('and once where it is the same', () => {
    expect(sayPieces([0.5, 0.1], 'mm')).toBe('0.50 + 0.10 mm')
    expect(sayPieces([0.254, 0.127], 'in')).toBe('0.0100 + 0.0050 in')
  })
})
