import { expect, it } from 'vitest'
import { onSheet } from '../test/onSheet'
import { LineDrawing } from './LineDrawing'
import { draftOf, drawable, specOf } from './lineDraft'

/** A line with feet at these distances from the coupling. */
function line(driver: number[], driven: number[]) {
  const draft = draftOf('', null)
  for (const [side, places] of [
    ['driver', driver],
    ['driven', driven],
  ] as const)
    for (const [i, from] of places.entries()) draft.cells[`${side}.foot${i}`] = { text: String(from), unit: 'mm' }
  return drawable(specOf(draft).spec)
}

/** Where the feet stand, as drawn, in the order they are drawn. */
function feet(spec: ReturnType<typeof line>) {
  const { container } = onSheet(<LineDrawing spec={spec} />)
  return [...container.querySelectorAll('path')]
    .map((path) => path.getAttribute('d')!.match(/^M([\d.]+) 105L([\d.]+) 140H([\d.]+)L([\d.]+) 105$/))
    .filter((found) => found !== null)
    .map(([, from, , , to]) => (Number(from) + Number(to)) / 2)
}

it('feet stand to scale along the shaft, the driver’s left of the coupling and the driven machine’s right', () => {
  for (const far of [500, 600]) {
    const [near, out, other] = feet(line([300, far], [300])) as [number, number, number]
    const centre = (near + other) / 2
    expect(near).toBeLessThan(centre)
    expect((centre - out) / (centre - near)).toBeCloseTo(far / 300, 6)
  }
})

it('distances are written from foot to foot, in the unit of the sheet', () => {
  expect(onSheet(<LineDrawing spec={line([300, 600], [300])} />, 'in').container.textContent).toContain('11.81')
})
