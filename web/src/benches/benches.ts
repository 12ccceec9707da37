import { alignmentBench } from './alignment/AlignmentBench'
import type { BenchClient } from './bench'
import { clockBench } from './clock/ClockBench'
import { fitBench } from './fit/FitBench'
import { gapBench } from './gap/GapBench'
import { heatBench } from './heat/HeatBench'
import { keyBench } from './key/KeyBench'
import { runoutBench } from './runout/RunoutBench'
import { softFootBench } from './softfoot/SoftFootBench'
import { straightedgeBench } from './straightedge/StraightedgeBench'
import { taperBench } from './taper/TaperBench'
import { tightenBench } from './tighten/TightenBench'

/** Every bench of the client by the core's name. Add a bench here. */
export const BENCHES = Object.fromEntries(
  [
    fitBench,
    keyBench,
    heatBench,
    taperBench,
    runoutBench,
    softFootBench,
    gapBench,
    straightedgeBench,
    alignmentBench,
    tightenBench,
    clockBench,
  ].map((bench) => [bench.name, bench as unknown as BenchClient]),
)
