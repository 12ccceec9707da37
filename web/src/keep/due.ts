import type { Schemas } from '../api/client'
import { dayOf, sayDay } from '../drawing/overTime'

export type Due = Schemas['DueOut']

/** What a due thing is called on the list: short, as one says it. */
export const DUE_WORDS: Record<Schemas['DueKind'], string> = {
  'pull the bolts again': 'Pull the bolts again',
  'grease it': 'Grease it',
  'first inspection': 'First inspection',
  'look it over': 'Look it over',
  round: 'Round',
  'seen on the round': 'Seen on the round',
  'read wear and play': 'Read wear and play',
  'measure it closed': 'Measure it closed',
  'read the alignment': 'Read the alignment',
  'packing nuts': 'Follow up the packing nuts',
  'packing rings': 'Renew the packing rings',
  'oil of the gear unit': 'Change the oil',
  'worn to its limit': 'Change the element',
  'look at its wear': 'Look at its wear',
  calibration: 'Calibrate',
}

export const GROUPS = ['No day', 'Overdue', 'Today', 'Within a week', 'Within a month', 'Later'] as const
export type Group = (typeof GROUPS)[number]
const WEEK = 7
const MONTH = 31

/** In how many days it is due; below 0 it is late. */
export function daysTo(on: string, today: string): number {
  return Math.round(dayOf(on) - dayOf(today))
}

/** Where it stands on the list. */
export function groupOf(due: Pick<Due, 'on'>, today: string): Group {
  if (due.on === null) return 'No day'
  const days = daysTo(due.on, today)
  if (days < 0) return 'Overdue'
  if (days === 0) return 'Today'
  return days <= WEEK ? 'Within a week' : days <= MONTH ? 'Within a month' : 'Later'
}

/** How late, or how long there is. */
export function sayDays(on: string | null, today: string): string {
  if (on === null) return 'no day'
  const days = daysTo(on, today)
  if (days === 0) return 'today'
  const size = Math.abs(days)
  const said = size < 60 ? (size === 1 ? '1 day' : `${size} days`) : `${Math.round(size / 30.4375)} months`
  return days < 0 ? `${said} late` : `in ${said}`
}

/** The day it was due before the lead put it off, and who did. */
export function sayPutOff(due: Pick<Due, 'was' | 'postponed_by' | 'postponed_because'>): string {
  return due.was ? `Due ${sayDay(due.was)}; put off by ${due.postponed_by}: ${due.postponed_because}` : ''
}
