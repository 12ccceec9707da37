import type { Schemas } from '../../api/client'
import { useHatch } from '../../drawing/Hatch'

type State = NonNullable<Schemas['Hole']['state']>

/** How far the bolt is through, in drawing units, and what is on its thread. */
const SHOWN: Record<State, { through: number; nut: boolean; ring: boolean; words: string }> = {
  in: { through: 0, nut: false, ring: false, words: 'in by hand, as far as it goes' },
  'drawn bare': { through: 34, nut: true, ring: false, words: 'drawn until the thread runs out' },
  'nut off': { through: 34, nut: false, ring: false, words: 'nut off' },
  'ring on': { through: 34, nut: false, ring: true, words: 'catch ring on' },
  'head seated': { through: 48, nut: true, ring: true, words: 'drawn on until the head seats' },
  'ring off': { through: 48, nut: false, ring: false, words: 'nut and catch ring off' },
  'tapped out': { through: 0, nut: false, ring: false, words: 'tapped at its end, on its way out' },
}
const HEAD_AT = -112 // the flange face the head seats on is at −64

/** Flange, pack and flange in section with one close-fit bolt: where its head, nut and catch ring are in this state. */
export function BoltInSection({ state }: { state: State }) {
  const hatch = useHatch()
  const { through, nut, ring, words } = SHOWN[state]
  const head = HEAD_AT + through
  const end = head + 176
  return (
    <svg viewBox="-140 -76 280 160" width="100%" role="img" aria-label={`Close-fit bolt: ${words}`}>
      {hatch.defs}
      {[-1, 1].map((side) => (
        <g key={side} transform={`scale(1 ${side})`}>
          <path d="M-64 16H-26V64H-64Z" fill={hatch.fixed} stroke="var(--ink)" strokeWidth="1.6" />
          <path d="M-24 16H-12V58H-24ZM-10 16H2V58H-10Z" fill="var(--leaf)" stroke="var(--ink)" strokeWidth="1.2" />
          <path d="M4 16H46V64H4Z" fill={hatch.other} stroke="var(--ink)" strokeWidth="1.6" />
        </g>
      ))}
      <path
        d={`M${head} -26H${head + 18}V-15H${end - 50}V-11H${end}V11H${end - 50}V15H${head + 18}V26H${head}Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      {[0, 8, 16, 24, 32, 40].map((at) => (
        <path key={at} d={`M${end - 46 + at} -11V11`} stroke="var(--ink)" strokeWidth=".75" />
      ))}
      {ring && <path d="M46 -22H58V-11H46ZM46 11H58V22H46Z" fill="var(--blue-wash)" stroke="var(--blue)" strokeWidth="2" />}
      {nut && (
        <path
          d={`M${ring ? 58 : 46} -26h20V-11h-20ZM${ring ? 58 : 46} 11h20V26h-20Z`}
          fill="var(--leaf)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
      )}
      <path d="M-136 0H136" stroke="var(--ink)" strokeWidth=".75" strokeDasharray="14 3 3 3" />
      <text x="-11" y="-64" textAnchor="middle" fontSize="var(--fs-note)">
        pack
      </text>
      <text
        x={head + 9}
        y="-34"
        textAnchor="middle"
        fontSize="var(--fs-note)"
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        head
      </text>
      {nut && (
        <text x={ring ? 70 : 58} y="-34" textAnchor="middle" fontSize="var(--fs-note)">
          nut
        </text>
      )}
      {ring && (
        <text x="52" y="42" textAnchor="middle" fontSize="var(--fs-note)" fill="var(--blue)">
          ring
        </text>
      )}
      <text y="80" textAnchor="middle" fontSize="var(--fs-small)" fontWeight="600">
        {words}
      </text>
    </svg>
  )
}
