import { describe, expect, it } from 'vitest'
import table from '../../../tests/figures.json'
import { sayFigure, sayIn, sayProblem } from './say'

describe('a figure of the core is shown in the sheet’s unit', () => {
  for (const { figure, mm, in: inches } of table.figures)
    it(`${figure.value} ${figure.unit}`, () => {
      expect([sayFigure(figure, 'mm'), sayFigure(figure, 'in')]).toEqual([mm, inches])
    })
})

describe('a text', () => {
  const far = { value: 0.4, unit: 'mm', places: 2, signed: false, bare: false }
  it('has its figures filled in, and what somebody named {that way} stays a name', () => {
    expect(sayIn({ template: 'Put {shim} under {rear}.', values: { shim: far } }, 'in')).toBe('Put 0.0157 in under {rear}.')
  })
  it('of a refusal follows the sheet, where it holds figures', () => {
    const says = { template: 'No more than {far}.', values: { far } }
    expect(sayProblem({ path: '', message: 'No more than 0.40 mm.', says }, 'in')).toBe('No more than 0.0157 in.')
    expect(sayProblem({ path: '', message: 'Sign in first.' }, 'in')).toBe('Sign in first.')
  })
})
