import { describe, expect, it } from 'vitest'
import { figuresIn, filledFrom } from './paste'

describe('what is pasted', () => {
  it.each([
    ['0\n0.12\n-0.05\n', ['0', '0.12', '-0.05']],
    ['0,02\t−0,10\t0,3', ['0,02', '−0,10', '0,3']],
    ['1 1/4 in\r\n1 3/8 in', ['1 1/4 in', '1 3/8 in']],
    ['.001 -.002 .0005', ['.001', '-.002', '.0005']],
    ['30.2', []],
    ['1 1/4 in', []],
    ['about 0.6', []],
    ['clock\nvalue', []],
  ])('%j is %j', (text, figures) => expect(figuresIn(text)).toEqual(figures))

  it('goes into the cell it was pasted in and those after it, round the ring', () => {
    const filled = filledFrom(['at0', 'at90', 'at180', 'at270'], 'at180', ['1', '2', '3'], 'mm')
    expect(Object.entries(filled!).map(([cell, typed]) => [cell, typed.text])).toEqual([
      ['at180', '1'],
      ['at270', '2'],
      ['at0', '3'],
    ])
    expect(filledFrom(['at0', 'at90'], 'at0', ['1', '2', '3'], 'mm')).toBeNull()
  })
})
