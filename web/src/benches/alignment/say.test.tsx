import { render } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { alignment } from '../../test/alignment'
import { alignmentBench } from './AlignmentBench'

const foot = (name: string, shim_mm: number, slide_mm: number) => ({
  name,
  shim_mm,
  slide_mm,
  shim_sigma_mm: null,
  slide_sigma_mm: null,
})
const moves = (result: ReturnType<typeof alignment>, unit: 'mm' | 'in' = 'mm') =>
  alignmentBench.say(result, unit, null).moves.map((move) => render(<p>{move}</p>).container.textContent)

describe('the note says where the machine lies', () => {
  it('high and toward 3 where both are positive', () => {
    const { note } = alignmentBench.say(alignment({ offset_v_mm: 0.12, offset_h_mm: 0.05 }), 'mm', null)
    expect(note).toBe('The movable machine is 0.12 mm high and 0.05 mm toward 3.')
  })
  it('low and toward 9 where both are negative', () => {
    const { note } = alignmentBench.say(alignment({ offset_v_mm: -0.12, offset_h_mm: -0.05 }), 'mm', null)
    expect(note).toBe('The movable machine is 0.12 mm low and 0.05 mm toward 9.')
  })
})

describe('the moves', () => {
  it('add and take out shims, slide to 3 and to 9', () => {
    const feet = [foot('near', 0.3, 0.1), foot('far', -0.2, -0.4)]
    expect(moves(alignment({ feet: feet as never }))).toEqual([
      'Near: add 0.30 mm, slide 0.10 mm to 3',
      'Far: take out 0.20 mm, slide 0.40 mm to 9',
    ])
  })
  it('name the shims with their unit, on an inch sheet in both', () => {
    const stacks = [{ name: 'near', was_mm: [], pieces_mm: [0.5, 0.1], misses_mm: 0.016 }]
    const result = alignment({ feet: [foot('near', 0.584, 0)] as never, stacks })
    expect(moves(result)).toEqual(['Near: add 0.58 mm (shims 0.50 + 0.10 mm)'])
    expect(moves(result, 'in')).toEqual(['Near: add 0.0230 in (shims 0.0197 + 0.0039 in = 0.50 + 0.10 mm)'])
  })
  it('say what lies under a foot after it, where it is known what lies there now', () => {
    const stacks = [{ name: 'near', was_mm: [0.5], pieces_mm: [1, 0.1], misses_mm: 0 }]
    expect(moves(alignment({ feet: [foot('near', 0.6, 0)] as never, stacks }))).toEqual([
      'Near: add 0.60 mm, then 1.00 + 0.10 mm under it',
    ])
  })
  it('are none where it is within its limits', () => {
    expect(moves(alignment({ verdict: 'inside', feet: [foot('near', 0.3, 0)] as never }))).toEqual([])
  })
})
