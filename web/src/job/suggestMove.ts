import type { Schemas } from '../api/client'
import type { Draft } from '../benches/draft'

type Alignment = Pick<Schemas['AlignmentResult'], 'plan' | 'feet' | 'stacks'>

/** The move worked out, its shims as the pieces from the box really make them. */
export function suggestMove(alignment: Alignment | null, feet: readonly string[]): Draft {
  const cells: Draft['cells'] = {}
  feet.forEach((name, i) => {
    const move = (alignment?.plan ?? alignment?.feet)?.find((m) => m.name === name)
    if (!move) return
    const shim = move.shim_mm + (alignment?.stacks.find((s) => s.name === name)?.misses_mm ?? 0)
    cells[`shim${i}`] = { text: shim.toFixed(2), unit: 'mm' }
    cells[`slide${i}`] = { text: move.slide_mm.toFixed(2), unit: 'mm' }
  })
  return { cells, choices: {} }
}
