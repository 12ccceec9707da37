/** Round factor (1, 2, 5 × 10ⁿ) that draws `largestMm` within `room` drawing units at `scale` units a mm. */
export function exaggeration(largestMm: number, scale: number, room: number): number {
  if (largestMm < 1e-6) return 100
  const wanted = room / (largestMm * scale)
  const power = 10 ** Math.floor(Math.log10(wanted))
  const step = wanted / power >= 5 ? 5 : wanted / power >= 2 ? 2 : 1
  return Math.min(500, Math.max(1, step * power))
}
