import { type Draft, oneOf } from '../draft'

/** How one dial of a method is set up. `side` says on which side of the coupling its stem touches. */
export interface DialSetUp {
  /** What its cells are called: the same dial in another method keeps what was typed, another dial has its own. */
  id: 'rim' | 'face' | 'other' | 'near' | 'far'
  name: string
  kind: 'rim' | 'face'
  bracket_on: 'stationary' | 'movable'
  side: 1 | -1
  sags: boolean
  /** A second face plunger half a turn away, read at the same moments: the shaft's float drops out. */
  opposite?: boolean
  /** Where its stem stands until somebody types it, mm from the coupling. */
  from: string
}

const RIM: DialSetUp = { id: 'rim', name: 'Rim', kind: 'rim', bracket_on: 'stationary', side: 1, sags: true, from: '20' }
const FACE: DialSetUp = { id: 'face', name: 'Face', kind: 'face', bracket_on: 'stationary', side: 1, sags: false, from: '20' }
const PLANE: DialSetUp = { ...RIM, sags: false, from: '100' }

export const METHODS = {
  'rim and face': [RIM, FACE],
  'rim and two faces': [RIM, { ...FACE, opposite: true }],
  'two rims': [
    { ...RIM, name: 'Rim, movable hub' },
    { ...RIM, id: 'other', name: 'Rim, stationary hub', bracket_on: 'movable', side: -1 },
  ],
  'three dials': [RIM, FACE, { ...RIM, id: 'other', name: 'Far rim', bracket_on: 'movable', side: -1 }],
  laser: [
    { ...PLANE, id: 'near', name: 'Plane on the movable shaft' },
    { ...PLANE, id: 'far', name: 'Plane on the stationary shaft', side: -1 },
  ],
  'off a screen': [],
} as const satisfies Record<string, readonly DialSetUp[]>

export type Method = keyof typeof METHODS
export const METHOD_WORDS: Record<Method, string> = {
  'rim and face': 'Rim & face',
  'rim and two faces': 'Two faces',
  'two rims': 'Two rims',
  'three dials': 'Three dials',
  laser: 'Laser',
  'off a screen': 'From a display',
}
/** What each method proves, and what gets into it. */
export const METHOD_PROVES: Record<Method, string> = {
  'rim and face': 'Offset from the rim, angle from the face. The shaft’s float gets into the face.',
  'rim and two faces': 'Offset and angle, rid of the shaft’s float.',
  'two rims': 'Offset and angle from two rims: the further apart, the surer the angle. No float in it.',
  'three dials': 'One dial more than it takes: a bad dial shows itself.',
  laser: 'Offset and angle from two planes. For machines far apart, and for shafts that float.',
  'off a screen': 'Offset and angle as another instrument worked them out. How sure they are, it has to say.',
}
export const METHOD_NAMES = ['rim and face', 'rim and two faces', 'two rims', 'three dials', 'laser', 'off a screen'] as const
export const METHOD = oneOf<Method, Method>('method', METHOD_NAMES, 'rim and face')
export const TURNS = ['both', 'bracket shaft', 'touched shaft'] as const
export const TURNED = oneOf('turned', TURNS, 'both')
export const WAYS = ['in', 'out'] as const
export const POSITIVE = oneOf('positive', WAYS, 'in')

/** Methods whose bracket can stand on either machine. */
const EITHER: readonly Method[] = ['rim and face', 'rim and two faces', 'three dials']
export const BRACKET_ON = ['stationary', 'movable'] as const
export type BracketOn = (typeof BRACKET_ON)[number]
export const BRACKET = oneOf<BracketOn, BracketOn>('bracket_on', BRACKET_ON, 'stationary')

/** Where the bracket stands, null where the method leaves no choice. */
export function bracketOf(draft: Draft): BracketOn | null {
  return EITHER.includes(METHOD.of(draft)) ? BRACKET.of(draft) : null
}

/** The dials of the method chosen, their brackets on the machine that was chosen: the stem is across from the bracket. */
export function dialsOf(draft: Draft): readonly DialSetUp[] {
  const dials: readonly DialSetUp[] = METHODS[METHOD.of(draft)]
  if (bracketOf(draft) !== 'movable') return dials
  return dials.map((dial) => ({
    ...dial,
    bracket_on: dial.bracket_on === 'stationary' ? 'movable' : 'stationary',
    side: dial.side === 1 ? -1 : 1,
  }))
}
