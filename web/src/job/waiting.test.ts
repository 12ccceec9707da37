import { describe, expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import type { Kept } from '../api/outbox'
import type { Job, Step } from './context'
import { isEntered, withWaiting } from './waiting'

const step = (key: string, more: Partial<Step> = {}) =>
  ({ key, state: 'blocked', blocked_by: [], hold: null, optional: false, current: null, heat_run: null, ...more }) as Step
const first = (key: string) => ({ words: `First: ${key}`, step: key })
const MISSING = { words: 'Value missing: gap.', step: '' }
const job = (...steps: Step[]) => ({ id: 'j', steps, entries: [], ledger: [], next: steps[0]!.key }) as unknown as Job
const kept = (at: string, kind: string, more: Partial<Kept> = {}) =>
  ({ id: at + kind, jobId: 'j', step: at, at: 1, waits: 'no server', body: { kind, inputs: {} }, ...more }) as Kept
const states = (found: Job) => found.steps.map((s) => (s.waits ? 'not sent' : s.state))

describe('without the server', () => {
  const three = job(
    step('clean', { state: 'open' }),
    step('fit', { blocked_by: [first('clean')] }),
    step('gap', { blocked_by: [first('fit'), MISSING] }),
  )
  it('a step whose reading waits holds up what comes after it no longer; what else holds it up does', () => {
    const found = withWaiting(three, [kept('clean', 'reading')])
    expect([states(found), found.next]).toEqual([['not sent', 'open', 'blocked'], 'fit'])
    const further = withWaiting(three, [kept('clean', 'reading'), kept('fit', 'reading')])
    expect([states(further), further.steps[2]!.blocked_by]).toEqual([['not sent', 'not sent', 'blocked'], [MISSING]])
  })
  it('what is only on its way, or another job’s, changes nothing', () => {
    expect(withWaiting(three, [kept('clean', 'reading', { waits: '' })])).toBe(three)
    expect(withWaiting(three, [kept('clean', 'reading', { jobId: 'other' })])).toBe(three)
  })
  it('nothing goes on past a step that wants a signature', () => {
    const locked = job(step('lock', { state: 'open', hold: 'millwright' }), step('fit', { blocked_by: [first('lock')] }))
    expect(states(withWaiting(locked, [kept('lock', 'reading')]))).toEqual(['not sent', 'blocked'])
  })
  it('a move makes what was read before it stale, until it is read again', () => {
    const aligned = job(step('align', { state: 'over', current: 'e1', moves: true }))
    const moved = withWaiting(aligned, [kept('align', 'move', { at: 5 })])
    expect([states(moved), moved.movesWaiting]).toEqual([['stale'], 1])
    expect(states(withWaiting(aligned, [kept('align', 'reading', { at: 4 }), kept('align', 'move', { at: 5 })]))).toEqual([
      'stale',
    ])
    expect(states(withWaiting(aligned, [kept('align', 'move', { at: 5 }), kept('align', 'reading', { at: 6 })]))).toEqual([
      'not sent',
    ])
  })
  it('the ledger counts what waits', () => {
    const line = { line: 'x', what: 'strap', goes: 'temporary, must come out', out: 2, back: 0, open: true } as const
    const counted = (inputs: Schemas['LedgerCount']) => ({ step: 's', kind: 'ledger', inputs }) as const
    const with2 = { ...three, ledger: [line] } as unknown as Job
    const back = counted({ line: 'x', what: 'strap', goes: line.goes, counted: 'back', count: 1 })
    const out = counted({ line: 'y', what: 'eye bolt', goes: line.goes, counted: 'out', count: 4 })
    const found = withWaiting(with2, [kept('a', 'ledger', { body: back }), kept('b', 'ledger', { body: back })])
    expect(found.ledger).toMatchObject([{ line: 'x', out: 2, back: 2, open: false }])
    expect(withWaiting(with2, [kept('a', 'ledger', { body: out })]).ledger[1]).toMatchObject({
      what: 'eye bolt',
      out: 4,
      open: true,
    })
  })
  it('the clocks of a hot hub run by the plan from when it happened', () => {
    const may = {
      cold: [{ event: 'on the heater', words: '', to: 'on the heater' }],
      'on the heater': [{ event: 'out of the heater', words: '', to: 'on its way' }],
      'on its way': [{ event: 'on the shaft', words: '', to: 'on the shaft' }],
    }
    const plan = { heating_s: 600, carry_s: 40, window_s: 90, grips_least_s: 7, grips_most_s: 9, cooling_s: 3600 }
    const run = { phase: 'cold', tries: 0, may, ...plan } as unknown as Step['heat_run']
    const noted = (event: Schemas['HeatEvent']['event'], happenedAt: number) =>
      kept('hot', 'event', { happenedAt, body: { step: 'hot', kind: 'event', inputs: { event } } })
    const runOf = (...events: Kept[]) => withWaiting(job(step('hot', { heat_run: run })), events).steps[0]!.heat_run!
    const heater = runOf(noted('on the heater', 0))
    expect([heater.phase, heater.ready_at]).toEqual(['on the heater', new Date(600_000).toISOString()])
    const out = runOf(noted('on the heater', 0), noted('out of the heater', 610_000))
    expect([out.phase, out.tries, out.closes_at]).toEqual(['on its way', 1, new Date(700_000).toISOString()])
    expect(out.carry_until).toBe(new Date(650_000).toISOString())
    const on = runOf(noted('on the heater', 0), noted('out of the heater', 610_000), noted('on the shaft', 640_000))
    expect([on.grips_from, on.grips_by]).toEqual([new Date(647_000).toISOString(), new Date(649_000).toISOString()])
    expect(runOf(noted('on the shaft', 0)).phase).toBe('cold') // what cannot have happened is passed over
    expect(runOf({ ...noted('on the heater', 0), waits: '' }).phase).toBe('on the heater') // counts from the press
  })
  it('what stands on the sheet is what was entered until something is typed on top of it', () => {
    const typedAt = { place: 'j.s', draft: { cells: { gap: '30.4' } } }
    const waiting = step('s', { waits: kept('s', 'reading', { typedAt }) })
    expect(isEntered(waiting, { cells: { gap: '30.4' } })).toBe(true)
    expect(isEntered(waiting, { cells: { gap: '30.5' } })).toBe(false)
  })
})
