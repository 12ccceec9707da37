import { type LengthUnit, readLengthMm, showLength } from '../../units/length'
import { asRead } from '../draft'

/** A usual box, until somebody says what is in theirs. */
export const USUAL_BOX = '0.05 0.10 0.20 0.25 0.50 1.00 2.00'
const THINNEST_MM = 0.01 // thinner than any shim: inches typed as millimetres
const THICKEST_MM = 100
const LAST_UNIT = /(mm|in|inch|inches|"|thou)\s*$/i

interface Written {
  /** As it is kept beside the value. */
  text: string
  mm: number | null
}

/** Thicknesses written on a line: 0.50 1.00, or 0,5; 1, or .005 .010 in. The unit at the end holds for all; none is mm. */
function written(line: string): Written[] {
  const unit = line.match(LAST_UNIT)?.[1]?.toLowerCase() ?? 'mm'
  const words = line
    .replace(LAST_UNIT, '')
    .split(/[\s;+]+/)
    .filter(Boolean)
  return words.map((word) => ({ text: `${word} ${unit}`, mm: readLengthMm({ text: `${word} ${unit}`, unit: 'mm' }) }))
}

const isThickness = (mm: number | null): mm is number => mm !== null && mm >= THINNEST_MM && mm <= THICKEST_MM

/** The thicknesses of a line that can be read, mm, and what was typed for each where that was not plain mm. */
export function readThicknesses(line: string): { mm: number; typed: string | null }[] {
  return written(line).flatMap(({ text, mm }) => (isThickness(mm) ? [{ mm, typed: text.endsWith(' mm') ? null : text }] : []))
}

/** What is wrong with thicknesses on a line; nothing where they can all be read. */
export function unreadable(line: string): string | undefined {
  const bad = written(line).find(({ mm }) => !isThickness(mm))
  if (bad === undefined) return undefined
  const word = bad.text.replace(/ \S+$/, '')
  if (bad.mm !== null && bad.mm > 0 && bad.mm < THINNEST_MM)
    return `“${word}” mm is thinner than any shim. In inches? Write “in” at the end of the line.`
  return `“${word}” is no thickness. Write them like 0.50 1.00, or .005 .010 in.`
}

/** Thicknesses back on a line, as they were typed where they were typed in another unit. */
export function writeThicknesses(pieces: readonly number[], typedAt: (i: number) => string | undefined = () => undefined) {
  const typed = pieces.map((_, i) => typedAt(i))
  const unit = typed[0]?.split(' ').pop()
  if (unit && typed.every((text) => text?.endsWith(` ${unit}`)))
    return `${typed.map((text) => text!.slice(0, -unit.length - 1)).join(' ')} ${unit}`
  return pieces.map((mm) => asRead(mm)).join(' ')
}

const HALF_A_THOU_MM = 0.0127

/** Pieces of a stack in the sheet's unit, and as it is marked on them where their box is in the other one. */
export function sayPieces(pieces: readonly number[], unit: LengthUnit): string {
  const inMm = `${pieces.map((mm) => asRead(mm)).join(' + ')} mm`
  const inInches = `${pieces.map((mm) => showLength(mm, 'in')).join(' + ')} in`
  const fromInchBox = pieces.every((mm) => Math.abs(mm / HALF_A_THOU_MM - Math.round(mm / HALF_A_THOU_MM)) < 1e-6)
  if (unit === 'mm') return fromInchBox ? `${inMm} = ${inInches}` : inMm
  return fromInchBox ? inInches : `${inInches} = ${inMm}`
}
