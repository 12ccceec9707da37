import type { Entry } from './context'

/** Pyrometer readings since the hub left the heater, by when they were taken and not by when they came in. */
export function readSinceItLeft(entries: readonly Pick<Entry, 'at' | 'inputs'>[], outAt: string | null) {
  if (!outAt) return []
  return entries.flatMap(({ at, inputs }) => {
    const { event, hub_c, ago_s } = inputs as { event?: string; hub_c?: number; ago_s?: number }
    const after = (Date.parse(at) - Date.parse(outAt)) / 1000 - (ago_s ?? 0)
    return event === 'hub temperature' && hub_c !== undefined && after >= 0 ? [{ after_s: after, hub_c }] : []
  })
}
