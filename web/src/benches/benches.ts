import { airGapBench } from './airgap/AirGapBench'
import { alignmentBench } from './alignment/AlignmentBench'
import { armBench } from './arm/ArmBench'
import { backstopBench } from './backstop/BackstopBench'
import type { BenchClient } from './bench'
import { clockBench } from './clock/ClockBench'
import { fitBench } from './fit/FitBench'
import { fittedBench } from './fitted/FittedBench'
import { gapBench } from './gap/GapBench'
import { greaseBench } from './grease/GreaseBench'
import { heatBench } from './heat/HeatBench'
import { keyBench } from './key/KeyBench'
import { runoutBench } from './runout/RunoutBench'
import { softFootBench } from './softfoot/SoftFootBench'
import { straightedgeBench } from './straightedge/StraightedgeBench'
import type { BenchName } from './table'
import { taperBench } from './taper/TaperBench'
import { tightenBench } from './tighten/TightenBench'
import { wearBench } from './wear/WearBench'

/** Every bench of the client by the core's name. Add a bench here. */
const BENCHES: { readonly [N in BenchName]?: BenchClient<N> } = {
  fit: fitBench,
  key: keyBench,
  heat: heatBench,
  taper: taperBench,
  runout: runoutBench,
  softfoot: softFootBench,
  gap: gapBench,
  straightedge: straightedgeBench,
  alignment: alignmentBench,
  fitted: fittedBench,
  tighten: tightenBench,
  grease: greaseBench,
  airgap: airGapBench,
  backstop: backstopBench,
  torque_arm: armBench,
  wear: wearBench,
  clock: clockBench,
}

/** All of them, in the order of the work. */
export const ALL_BENCHES = Object.values(BENCHES)

/** One by its name. From here on it is any bench: whoever asked for it gives it the step, or the result, of that name. */
export function benchOf(name: string): BenchClient | undefined {
  return ALL_BENCHES.find((bench) => bench.name === name) as unknown as BenchClient | undefined
}
