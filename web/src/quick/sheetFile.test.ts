import { expect, it } from 'vitest'
import { readSheet, writeSheet } from './sheetFile'

const DRAFT = { cells: { at0: { text: '.015', unit: 'in' as const } }, choices: { clocks: [0, 90] } }

it('opens what it wrote, with every figure as it was typed', () => {
  expect(readSheet('runout', writeSheet('runout', DRAFT, null))).toEqual(DRAFT)
})

it.each([
  ['', 'This file is not a bench sheet.'],
  ['null', 'This file is not a bench sheet.'],
  ['{"format":"young-anvil job","version":2}', 'This file is not a bench sheet.'],
  [writeSheet('gap', DRAFT, null), 'This file belongs to another bench: gap.'],
  [writeSheet('runout', DRAFT, null).replace('"in"', '"ell"'), 'This file is damaged: its cells cannot be read.'],
])('refuses %j', (text, says) => {
  expect(readSheet('runout', text)).toBe(says)
})
