import { describe, expect, it } from 'vitest'
import {
  type Field,
  lacking,
  NONE_HERE,
  readSheet,
  type SheetForm,
  startSheet,
  stillWrong,
  waitsFor,
  withChoice,
} from './sheet'

const field = (key: string, more: Partial<Field> = {}): Field => ({
  key,
  kind: 'tick',
  label: key,
  detail: '',
  of_register: '',
  unit: '',
  options: [],
  required: true,
  picture: '',
  none_of: '',
  beside: '',
  expected: null,
  expected_of: '',
  ...more,
})
const sheet = (ordered: boolean, ...fields: Field[]) =>
  ({ kind: 'sheet', fields, rows: [], suggested_rows: [], row_name: '', ordered }) satisfies SheetForm

describe('a sheet that is done in order', () => {
  const step = sheet(true, field('clean'), field('bolts', { kind: 'count' }), field('home'), field('light'))
  const at = (i: number) => step.fields[i]!

  it('lets nobody tick a line before the one above it', () => {
    expect([0, 2, 3].map((i) => waitsFor(step, at(i), {}))).toEqual(['', 'clean', 'clean'])
    expect([0, 2, 3].map((i) => waitsFor(step, at(i), { clean: true }))).toEqual(['', '', 'home'])
    expect(waitsFor(sheet(false, at(0), at(2)), at(2), {})).toBe('')
  })
  it('takes the ticks below along when one is taken back', () => {
    expect(withChoice(step, { clean: true, home: true, light: true }, 'home', false)).toEqual({
      clean: true,
      home: false,
      light: false,
    })
  })
})

describe('a tick that may not apply', () => {
  const step = sheet(false, field('key', { none_of: 'no key here' }))

  it('is answered by a word why there is none', () => {
    const none = { cells: {}, choices: { key: NONE_HERE, key_why: 'no key on this taper' } }
    const { inputs } = readSheet(step, none)
    expect(inputs).toEqual({ key: 'none', key_why: 'no key on this taper' })
    expect(lacking(step, inputs)).toEqual([])
    expect(lacking(step, { key: 'none', key_why: ' ' })).toEqual(['key'])
    expect(startSheet(step, inputs).choices).toEqual(none.choices)
  })
})

describe('a field of words', () => {
  const step = sheet(false, field('arrow', { kind: 'text' }))

  it('takes “none” as the word it is', () => {
    const { inputs } = readSheet(step, { cells: {}, choices: { arrow: NONE_HERE } })
    expect(inputs).toEqual({ arrow: 'none' })
    expect(lacking(step, inputs)).toEqual([])
  })
})

describe('counts and marks', () => {
  const step = sheet(false, field('bolts', { kind: 'count' }), field('match', { kind: 'marks', options: ['hub', 'unit'] }))

  it('are wanted until every one is there', () => {
    const draft = { cells: { bolts: { text: '6', unit: 'mm' as const } }, choices: { match: ['7', ''] } }
    const { inputs } = readSheet(step, draft)
    expect(inputs).toEqual({ bolts: 6, match: ['7', ''] })
    expect(lacking(step, inputs)).toEqual(['match'])
    expect(lacking(step, { bolts: 6, match: ['7', '7'] })).toEqual([])
  })
})

describe('what was wrong with a sheet', () => {
  const typed = (text: string) => ({ text, unit: 'mm' as const })
  const entered = { cells: { driver: typed('4.5'), driven: typed('99999') }, choices: { rows: [{ lock: '7' }] } }
  const problems = { driver: 'counted', driven: 'too many', 'rows.0.lock': 'too long' }

  it('is said of each place until that place is changed', () => {
    expect(stillWrong(problems, entered, entered)).toEqual(problems)
    expect(stillWrong(problems, entered, { ...entered, cells: { ...entered.cells, driver: typed('4') } })).toEqual({
      driven: 'too many',
      'rows.0.lock': 'too long',
    })
    expect(stillWrong(problems, entered, { ...entered, choices: { rows: [{ lock: '8' }] } })).toEqual({
      driver: 'counted',
      driven: 'too many',
    })
  })
})
