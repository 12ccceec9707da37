const ACROSS = 128
const ALONG = 124

/** Foot bolts in two rows, numbered clockwise from above: along the upper row to the right, back along the lower. */
export function feetPlaces(bolts: number): { x: number; y: number }[] {
  const upper = Math.ceil(bolts / 2)
  const row = (count: number, y: number) =>
    Array.from({ length: count }, (_, i) => ({ x: count === 1 ? 0 : -ALONG + (2 * ALONG * i) / (count - 1), y }))
  return [...row(upper, -ACROSS), ...row(bolts - upper, ACROSS).reverse()]
}
