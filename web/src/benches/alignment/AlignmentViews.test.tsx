import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { onSheet } from '../../test/onSheet'
import { AlignmentViews } from './AlignmentViews'

type Drawn = Schemas['Drawn']
type View = Schemas['DrawnView']

const mm = (value: number, more: Partial<Schemas['Figure']> = {}) => ({
  value,
  unit: 'mm',
  places: 2,
  signed: false,
  bare: false,
  ...more,
})
const words = (template: string, values: Schemas['Words']['values'] = {}) => ({ template, values })
const view = (plane: View['plane'], more: Partial<View> = {}): View => ({
  plane,
  axis: { drop: 0, shear: 0 },
  cold: null,
  words: words('{offset} high', { offset: mm(0.254) }),
  moves: [],
  flex: [],
  ...more,
})
const drawn = (side: Partial<View>, more: Partial<Drawn> = {}): Drawn => ({
  layout: {
    movable_on: 'left',
    per_mm: 0.5,
    centre: 400,
    movable: { face: 0, near: -100, far: -320, feet: [-150, -300] },
    stationary: { face: 0, near: 100, far: 300, feet: [150] },
  },
  times: 200,
  band: null,
  views: [view('v', side), view('h')],
  ...more,
})
const NAMES = { movable: 'Motor', stationary: 'Fan' }
const sideView = (what: Drawn | null, unit: 'mm' | 'in' = 'mm') =>
  onSheet(<AlignmentViews names={NAMES} layout={undefined} drawn={what} />, unit).container.querySelector('svg[role=img]')!

describe('both views are drawn as they were worked out', () => {
  it('the moved machine lies where its axis lies, what must be is dashed', () => {
    const svg = sideView(drawn({ axis: { drop: -12, shear: 0.03 } }))
    expect(svg.querySelector('g[transform^=matrix]')!.getAttribute('transform')).toBe('matrix(1 0.03 0 1 0 -12)')
    expect(svg.querySelectorAll('path[stroke-dasharray="5 4"]')).toHaveLength(1)
  })
  it('an arrow stands beside its foot and points where it goes; a foot that stays has none', () => {
    const svg = sideView(
      drawn({
        moves: [
          { x: -150, points: 'up', words: words('{by}', { by: mm(0.3, { signed: true, bare: true }) }) },
          { x: -300, points: '', words: words('{by}', { by: mm(0, { bare: true }) }) },
        ],
      }),
    )
    const arrows = [...svg.querySelectorAll('path[marker-end]')]
      .map((path) => path.getAttribute('d')!)
      .filter((d) => d.includes('V'))
    const [, x, from, to] = arrows[0]!.match(/^M(-?\d+) (-?\d+)V(-?\d+)$/)!.map(Number)
    expect([arrows.length, x]).toEqual([1, -122])
    expect(to).toBeLessThan(from!) // SVG counts downward
    expect([...svg.querySelectorAll('text.figure')].map((text) => text.textContent)).toEqual(['+0.30', '0.00'])
  })
  it('feet are so far apart as they stand, from the middle of the coupling', () => {
    const texts = [...sideView(drawn({})).querySelectorAll('text.read')].map((text) => text.textContent)
    expect(texts.slice(-2)).toEqual(['300', '300'])
  })
  it('an inch sheet says inches', () => {
    expect(sideView(drawn({}), 'in').getAttribute('aria-label')).toBe('Side view: 0.0100 in high')
  })
  it('nothing read is said, and both machines stand there', () => {
    const svg = sideView(null)
    expect(svg.getAttribute('aria-label')).toBe('Side view: nothing read yet')
    expect([...svg.querySelectorAll('text')].map((text) => text.textContent)).toEqual(
      expect.arrayContaining(['Motor', 'Fan']),
    )
  })
})
