import type { Schemas } from '../api/client'
import {
  forRecord,
  inUnit,
  type LengthUnit,
  READ_CELL,
  readLengthMm,
  readNumber,
  showTyped,
  type Typed,
} from '../units/length'

/** A figure of the value card on the sheet: what stands on the card, and what a hand has typed over it since. */
export interface Figure {
  /** On the card, in its own unit (a length in mm); null on an empty line. */
  stands: number | null
  /** Null while nobody typed: then what stands goes back as it is. */
  typed: Typed | null
}

/** How a figure is read, by its unit on the card; every other one is a plain number. */
const READERS: Record<string, (typed: Typed) => number | null> = {
  mm: readLengthMm,
  N·m: READ_CELL.torque,
  '°C': READ_CELL.temperature,
  '°': READ_CELL.degrees,
  'mm/m': READ_CELL.slope,
}
const INCH_PLACES = 5 // a hundredth of a thou

/** A figure of the card in the sheet's unit, where it is a length. */
export function showOnCard(value: number, figureUnit: string, sheet: LengthUnit): string {
  if (figureUnit !== 'mm' || sheet === 'mm') return String(value)
  return String(Number(inUnit(value, sheet).toFixed(INCH_PLACES)))
}

/** The unit a figure of the card is shown in. */
export function unitOnCard(figureUnit: string, sheet: LengthUnit): string {
  return figureUnit === 'mm' ? sheet : figureUnit
}

/** What the field shows. */
export function showFigureDraft({ stands, typed }: Figure, figureUnit: string, sheet: LengthUnit): string {
  if (typed) return figureUnit === 'mm' ? showTyped(typed, sheet) : typed.text
  return stands === null ? '' : showOnCard(stands, figureUnit, sheet)
}

/** The figure in its own unit; null where there is none, or the text is none. */
export function readFigureDraft({ stands, typed }: Figure, figureUnit: string): number | null {
  if (!typed) return stands
  return READERS[figureUnit]?.(typed) ?? (READERS[figureUnit] ? null : readNumber(typed.text))
}

type Kind = Schemas['ValueKindOut']

/** What is wrong with a line of the card as it is typed: no figure, or not said what it means; nothing where it can be saved. */
export function wrongWith(kind: Kind, figure: Figure, means: string, sheet: LengthUnit): string | undefined {
  const figureUnit = kind.unit_by_means[means] ?? kind.unit
  if (readFigureDraft(figure, figureUnit) === null) {
    return `Enter a figure in ${figureUnit === 'mm' && sheet === 'in' ? 'inches' : unitOnCard(figureUnit, sheet) || 'numbers'}.`
  }
  if (kind.written && !means.trim()) return `${kind.ask}?`
  return kind.means.length > 0 && !means ? `${kind.ask}: ${kind.means.join(' or ')}?` : undefined
}

/** What was typed, for the record; nothing where it is plain millimetres, or no length. */
export function typedForRecord({ typed }: Figure, figureUnit: string): string {
  if (!typed) return ''
  if (figureUnit === 'mm') return forRecord(typed) ?? ''
  return READERS[figureUnit] && readNumber(typed.text) === null ? typed.text.trim() : ''
}
