import type { Draft } from '../draft'

/** How one dial of a method is set up. `side` says on which side of the coupling its stem touches. */
export interface DialSetUp {
  name: string
  kind: 'rim' | 'face'
  bracket_on: 'stationary' | 'movable'
  side: 1 | -1
  sags: boolean
}

const RIM: DialSetUp = { name: 'Rim', kind: 'rim', bracket_on: 'stationary', side: 1, sags: true }

export const METHODS = {
  'rim and face': [RIM, { name: 'Face', kind: 'face', bracket_on: 'stationary', side: 1, sags: false }],
  'two rims': [
    { ...RIM, name: 'Rim, movable hub' },
    { name: 'Rim, stationary hub', kind: 'rim', bracket_on: 'movable', side: -1, sags: true },
  ],
} as const satisfies Record<string, readonly DialSetUp[]>

export type Method = keyof typeof METHODS
export const METHOD_WORDS: Record<Method, string> = { 'rim and face': 'Rim & face', 'two rims': 'Two rims' }
export const TURNED = ['both', 'bracket shaft', 'touched shaft'] as const

/** The method chosen on a draft; rim and face at first. */
export function methodOf(draft: Draft): Method {
  return (draft.choices.method as Method | undefined) ?? 'rim and face'
}
