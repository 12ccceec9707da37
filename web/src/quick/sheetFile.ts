import type { Draft } from '../benches/draft'

const FORMAT = 'young-anvil bench sheet'

/** A quick bench with what was typed, as a file; `input` is what the bench was given, for other tools. */
interface SheetFile {
  format: typeof FORMAT
  version: 1
  bench: string
  draft: Draft
  input: object | null
}

export function writeSheet(bench: string, draft: Draft, input: object | null): string {
  const sheet: SheetFile = { format: FORMAT, version: 1, bench, draft, input }
  return JSON.stringify(sheet, null, 2)
}

/** What was typed, out of a file of this bench; else what is wrong with the file, in words. */
export function readSheet(bench: string, text: string): Draft | string {
  let found: Partial<SheetFile> | null
  try {
    found = JSON.parse(text)
  } catch {
    return 'This file is not a bench sheet.'
  }
  if (found?.format !== FORMAT || found.version !== 1) return 'This file is not a bench sheet.'
  if (found.bench !== bench) return `This file belongs to another bench: ${found.bench}.`
  const { cells, choices } = found.draft ?? {}
  const isWhole = isCells(cells) && isRecord(choices)
  return isWhole ? { cells, choices } : 'This file is damaged: its cells cannot be read.'
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

function isCells(value: unknown): value is Draft['cells'] {
  const isTyped = (cell: unknown) =>
    isRecord(cell) && typeof cell.text === 'string' && (cell.unit === 'mm' || cell.unit === 'in')
  return isRecord(value) && Object.values(value).every(isTyped)
}
