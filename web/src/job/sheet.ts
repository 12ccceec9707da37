import type { Schemas } from '../api/client'
import { type Draft, DraftReader, slot } from '../benches/draft'

export type SheetForm = Schemas['SheetFormOut']
export type Field = Schemas['FieldOut']
export type Rows = Record<string, string>[]
/** The rows of a sheet as they are typed. */
export const ROWS = slot<Rows>('rows', [])
type Answers = Schemas['SheetAnswers']
/** What was ticked, chosen or written at a field that is no cell. */
const answerAt = (key: string) => slot<Answers[string]>(key, null)
export const wordsAt = (key: string) => slot<string | null>(key, null)
export const marksAt = (key: string) => slot<readonly string[]>(key, [])

/** Answer of a tick that does not apply here; why stands under `whyKey`. */
export const NONE_HERE = 'none'
export const whyKey = (field: Field) => `${field.key}_why`
/** There is nothing of it here, of a field that may say so; in a field of words “none” is a word. */
const saysNone = (field: Field, value: unknown) => field.none_of !== '' && value === NONE_HERE
const FIGURES = ['length', 'number', 'count']

export const article = (name: string) => `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`

/** A sheet as it was last entered, or as it is suggested. */
export function startSheet(form: SheetForm, entered: Answers | undefined): Draft {
  const draft: Draft = { cells: {}, choices: {} }
  if (form.rows.length) draft.choices.rows = entered?.rows ?? form.suggested_rows
  for (const field of form.fields) {
    const value = entered?.[field.key]
    if (value === undefined || value === null) continue
    if (FIGURES.includes(field.kind)) draft.cells[field.key] = { text: String(value), unit: 'mm' }
    else draft.choices[field.key] = value
    if (saysNone(field, value)) draft.choices[whyKey(field)] = entered?.[whyKey(field)] ?? ''
  }
  return draft
}

/** What was ticked, chosen and typed, as it is sent. */
export function readSheet(form: SheetForm, draft: Draft) {
  const reader = new DraftReader(draft)
  const inputs: Answers = {}
  if (form.rows.length) inputs.rows = ROWS.of(draft)
  for (const field of form.fields) {
    const value =
      field.kind === 'length'
        ? reader.length(field.key, field.key)
        : field.kind === 'number' || field.kind === 'count'
          ? reader.number(field.key, field.key)
          : answerAt(field.key).of(draft)
    if (value !== null && value !== '') inputs[field.key] = value
    if (saysNone(field, value)) inputs[whyKey(field)] = answerAt(whyKey(field)).of(draft) ?? ''
  }
  return { inputs, typed: reader.typed, unreadable: reader.unreadable }
}

/** What is still wanted of a sheet, in words. */
export function lacking(form: SheetForm, inputs: Answers, rows: Rows = []): string[] {
  const fields = form.fields.filter((f) => f.required && isMissing(f, inputs)).map((f) => f.label)
  const holes = rows.flatMap((row, i) =>
    form.rows.filter((c) => c.required && !row[c.key]?.trim()).map((c) => `${c.label.toLowerCase()} in row ${i + 1}`),
  )
  return [...holes, ...(form.rows.length && !rows.length ? [article(form.row_name)] : []), ...fields]
}

function isMissing(field: Field, inputs: Answers): boolean {
  const value = inputs[field.key]
  if (saysNone(field, value)) return String(inputs[whyKey(field)] ?? '').trim() === ''
  if (field.kind === 'tick') return value !== true
  if (field.kind === 'marks') return !Array.isArray(value) || field.options.some((_, i) => !String(value[i] ?? '').trim())
  return value === undefined
}

/** Of what was wrong with a sheet as it was entered, what still stands there as it did. */
export function stillWrong(problems: Record<string, string>, entered: Draft, draft: Draft): Record<string, string> {
  const stands = (path: string) => {
    const key = path.split('.')[0]!
    return entered.cells[key] === draft.cells[key] && entered.choices[key] === draft.choices[key]
  }
  return Object.fromEntries(Object.entries(problems).filter(([path]) => stands(path)))
}

/** On a sheet that is done in order, the sentence above that is not ticked yet; empty where this one may be. */
export function waitsFor(form: SheetForm, field: Field, choices: Record<string, unknown>): string {
  if (!form.ordered || field.kind !== 'tick') return ''
  const above = form.fields.slice(0, form.fields.indexOf(field)).filter((f) => f.kind === 'tick')
  return above.find((f) => choices[f.key] !== true && !saysNone(f, choices[f.key]))?.label ?? ''
}

/** Choices with one changed; on a sheet that is done in order, a tick taken back takes those below it along. */
export function withChoice(form: SheetForm, choices: Record<string, unknown>, key: string, value: unknown) {
  const next = { ...choices, [key]: value }
  if (!form.ordered || value === true || value === NONE_HERE) return next
  const fields = form.fields
  const at = fields.findIndex((f) => f.key === key)
  if (at < 0 || fields[at]!.kind !== 'tick') return next
  for (const below of fields.slice(at + 1)) if (below.kind === 'tick') next[below.key] = false
  return next
}
