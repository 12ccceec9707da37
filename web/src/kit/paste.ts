import type { Typed } from '../units/length'

const PLAIN = /^[-+−–]?[\d.,]+$/

/**
 * Figures out of what was pasted: a column, a row, or one after the other with spaces. One figure, or words, is none:
 * then it is pasted as text is.
 */
export function figuresIn(pasted: string): string[] {
  const parts = pasted
    .trim()
    .split(/[\r\n\t;]+/)
    .map((part) => part.trim())
    .filter(Boolean)
  const found = parts.length === 1 ? parts[0]!.split(/\s+/) : parts
  const isFigures = parts.length > 1 ? found.every((part) => /\d/.test(part)) : found.every((part) => PLAIN.test(part))
  return found.length > 1 && isFigures ? found : []
}

/** Figures in these cells from one of them on, and round to the first. None where there are more figures than cells. */
export function filledFrom(
  cells: readonly string[],
  from: string,
  figures: readonly string[],
  unit: Typed['unit'],
): Record<string, Typed> | null {
  const first = cells.indexOf(from)
  if (first < 0 || figures.length > cells.length) return null
  return Object.fromEntries(figures.map((text, i) => [cells[(first + i) % cells.length]!, { text, unit }]))
}
