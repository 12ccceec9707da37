import { expect, it } from 'vitest'
import { onSheet } from '../../test/onSheet'
import { BlowFromAbove } from './BlowFromAbove'

const words = (highDeg: number, isOver = true) =>
  onSheet(<BlowFromAbove highDeg={highDeg} isOver={isOver} />)
    .container.querySelector('svg')!
    .getAttribute('aria-label')

it('the high spot is turned to the top by the shorter way', () => {
  expect(words(90)).toBe('Turn it 90° back, then one blow with the soft mallet')
  expect(words(270)).toBe('Turn it 90° on, then one blow with the soft mallet')
})

it('nobody hits a hub that runs true', () => {
  expect(words(90, false)).toBe('No blow: it runs true')
})

it('the high spot is marked where it is: at 3 to the right, at 6 below', () => {
  const mark = (deg: number) => {
    const circle = onSheet(<BlowFromAbove highDeg={deg} isOver />).container.querySelector('circle[r="7"][stroke-dasharray]')!
    return [Math.round(Number(circle.getAttribute('cx'))), Math.round(Number(circle.getAttribute('cy')))]
  }
  expect(mark(90)).toEqual([66, -0])
  expect(mark(180)).toEqual([0, 66])
})
