import { describe, expect, it } from 'vitest'
import { outdatedBecause, sayOutdated } from './outdated'
import { readSinceItLeft } from './readSinceItLeft'

const plain = (template: string) => ({ template, values: {} })

describe('what stands here says nothing any more', () => {
  it('once the machines were moved after it was entered', () => {
    const because = outdatedBecause({ stale_because: plain('Since this was read, the machines were moved') }, false)
    expect(sayOutdated(because!, 'mm')).toEqual({
      title: 'Read again.',
      note: 'Since this was read, the machines were moved. What it said no longer counts.',
      moves: [],
    })
  })
  it('and a value that was changed on the card is said in the unit of the sheet', () => {
    const mm = (value: number) => ({ value, unit: 'mm', places: null, signed: false, bare: false })
    const why = {
      template: '“Run-out” on the card was changed from {was} to {now}',
      values: { was: mm(0.0508), now: mm(0.0762) },
    }
    expect(sayOutdated(why, 'in').note).toContain('changed from 0.002 in to 0.003 in')
  })
  it('once a move came in while it was being typed', () => {
    expect(outdatedBecause({ stale_because: plain('') }, true, 1, 2)?.template).toBe(
      'Since these readings were typed, a move was recorded',
    )
  })
  it('but what is typed after the move counts, also on a step that was stale', () => {
    expect(outdatedBecause({ stale_because: plain('Since this was read, the machines were moved') }, true, 2, 2)).toBeNull()
    expect(outdatedBecause({ stale_because: plain('') }, true, undefined, 3)).toBeNull()
  })
})

describe('pyrometer readings since the hub left the heater', () => {
  type Event = Extract<Parameters<typeof readSinceItLeft>[0][number], { kind: 'event' }>
  const event = (at: string, inputs: Event['inputs']): Pick<Event, 'kind' | 'at' | 'inputs'> => ({
    kind: 'event',
    at,
    inputs,
  })
  const read = (at: string, hub_c: number, ago_s = 0) => event(at, { event: 'hub temperature', hub_c, ago_s })
  it('stand where they were taken: one sent late is not dated forward', () => {
    const entries = [read('2026-05-04T10:05:00Z', 150, 180), event('2026-05-04T10:01:00Z', { event: 'on the shaft' })]
    expect(readSinceItLeft(entries, '2026-05-04T10:00:00Z')).toEqual([{ after_s: 120, hub_c: 150 }])
  })
  it('leave out what was read before, and everything while it is on the heater', () => {
    expect(readSinceItLeft([read('2026-05-04T09:59:00Z', 160)], '2026-05-04T10:00:00Z')).toEqual([])
    expect(readSinceItLeft([read('2026-05-04T10:01:00Z', 160)], null)).toEqual([])
  })
})
