import type { Entry } from './context'

/** Pyrometer readings since the hub left the heater, by when they were taken and not by when they came in. */
export function readSinceItLeft(
  entries: readonly (Entry | Pick<Extract<Entry, { kind: 'event' }>, 'kind' | 'at' | 'inputs'>)[],
  outAt: string | null,
) {
  if (!outAt) return []
  return entries.flatMap((entry) => {
    if (entry.kind !== 'event') return []
    const { event, hub_c = null, ago_s = 0 } = entry.inputs
    const after = (Date.parse(entry.at) - Date.parse(outAt)) / 1000 - ago_s
    return event === 'hub temperature' && hub_c !== null && after >= 0 ? [{ after_s: after, hub_c }] : []
  })
}
