import type { Schemas } from '../api/client'

type Result = Schemas['AlignmentResult']

/** An alignment's result as the core would say it, with what matters to a test put in. */
export function alignment(some: Partial<Result> = {}): Result {
  return {
    bench: 'alignment',
    verdict: 'over',
    checks: [],
    advice: [],
    working: [],
    offset_v_mm: 0,
    offset_h_mm: 0,
    slope_v_mm_per_m: 0,
    slope_h_mm_per_m: 0,
    left_offset_v_mm: some.offset_v_mm ?? 0,
    left_offset_h_mm: some.offset_h_mm ?? 0,
    left_slope_v_mm_per_m: some.slope_v_mm_per_m ?? 0,
    left_slope_h_mm_per_m: some.slope_h_mm_per_m ?? 0,
    offset_v_sigma_mm: null,
    offset_h_sigma_mm: null,
    feet: [],
    stacks: [],
    flex: [],
    growth_mm: {},
    target_readings: [],
    plan: null,
    ...some,
  } as unknown as Result
}
