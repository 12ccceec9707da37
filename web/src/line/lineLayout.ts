import type { LineSpec, Side } from './lineDraft'

export const WIDTH = 1000
export const AXIS = 80
export const FLOOR = 140
const LEAST_REACH_MM = 260
const NEXT_LEVEL = 50 // from one line of dimensions to the one below it

/** Where a line stands on its drawing: x along the shaft to scale, the machine ends, a dimension for each foot. */
export function layoutOf(spec: LineSpec) {
  const reach = (side: Side) => Math.max(LEAST_REACH_MM, ...spec[side].feet.map((f) => f.from_coupling_mm)) * 1.12
  const scale = (WIDTH - 40) / (reach('driver') + reach('driven'))
  const centre = 20 + reach('driver') * scale
  const side = (which: Side) => {
    const way = which === 'driver' ? -1 : 1
    return { way, end: centre + way * reach(which) * scale, near: centre + way * 30 }
  }
  return { scale, centre, driver: side('driver'), driven: side('driven') }
}

/** How far down the line of dimensions of the n-th foot lies, where each is measured from the coupling. */
export const levelOf = (n: number) => FLOOR + 36 + n * NEXT_LEVEL
