import { describe, expect, it } from 'vitest'
import { type Figure, readFigureDraft, showFigureDraft, showOnCard, typedForRecord, unitOnCard } from './figure'

const stands = (mm: number): Figure => ({ stands: mm, typed: null })

describe('a figure of the value card on an inch sheet', () => {
  it('is shown and opened in inches', () => {
    expect(showOnCard(0.0762, 'mm', 'in')).toBe('0.003')
    expect(showFigureDraft(stands(0.0762), 'mm', 'in')).toBe('0.003')
    expect(unitOnCard('mm', 'in')).toBe('in')
  })
  it('opened and put back untouched is the very same figure, however often', () => {
    let mm = 0.0762
    for (let i = 0; i < 5; i++) mm = readFigureDraft(stands(mm), 'mm')!
    expect(mm).toBe(0.0762)
  })
  it('typed anew is read in inches and kept as it was typed', () => {
    const figure: Figure = { stands: 0.0762, typed: { text: '.002', unit: 'in' } }
    expect(readFigureDraft(figure, 'mm')).toBe(0.0508)
    expect(typedForRecord(figure, 'mm')).toBe('.002 in')
  })
  it('typed in one unit and looked at in the other is converted, not read anew', () => {
    const figure: Figure = { stands: null, typed: { text: '1', unit: 'in' } }
    expect(showFigureDraft(figure, 'mm', 'mm')).toBe('25.400')
    expect(readFigureDraft(figure, 'mm')).toBe(25.4)
  })
})

describe('a figure that is no length', () => {
  it('has no inches: one percent is one percent', () => {
    const figure: Figure = { stands: null, typed: { text: '1', unit: 'in' } }
    expect(readFigureDraft(figure, 'percent of the gap')).toBe(1)
    expect(typedForRecord(figure, 'percent of the gap')).toBe('')
    expect(showOnCard(1, 'percent of the gap', 'in')).toBe('1')
    expect(unitOnCard('N·m', 'in')).toBe('N·m')
  })
})

it('an emptied field is no figure', () => {
  expect(readFigureDraft({ stands: 3, typed: { text: '', unit: 'mm' } }, 'mm')).toBeNull()
})
