import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { rowsFor } from '../../drawing/rows'
import { MM_PER_INCH, showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { sayIn } from '../../units/say'
import type { Names } from '../bench'
import { Band, ColdAxis, FlexPlanes, SpacerTube } from './Overlays'

type Drawn = Schemas['Drawn']
type Layout = Schemas['Layout']
type Machine = Schemas['DrawnMachine']
type Plane = Schemas['DrawnView']['plane']

const WIDTH = 740
const HALF = 30 // half the height a machine is drawn with
const ROOM = 20 // how far the largest displacement is drawn
const FOOT = 12
const ROW = 18 // from one row of distances to the next
const VIEW = { v: { height: 178, axis: 86 }, h: { height: 140, axis: 74 } }
const TITLES = { v: 'Side view', h: 'Plan' }

/** Two machines of the usual reach, where nobody has said yet where their feet stand. */
const UNPLACED: Layout = {
  movable_on: 'left',
  per_mm: 1.302,
  centre: 370,
  movable: { face: 0, near: -150, far: -331, feet: [] },
  stationary: { face: 0, near: 150, far: 331, feet: [] },
}

interface ViewsProps {
  names: Names
  /** Where they stand, until something is read. */
  layout: Layout | undefined
  drawn: Drawn | null
}

/** Side view over plan: along the shaft to scale, across exaggerated; dashed is where the machine must end up. */
export function AlignmentViews({ names, layout: placed, drawn }: ViewsProps) {
  const layout = drawn?.layout ?? placed ?? UNPLACED
  const unit = useUnit()
  const [bars, inMm] = unit === 'mm' ? [[500, 200, 100, 50, 20], 1] : [[20, 10, 5, 2, 1], MM_PER_INCH]
  const bar = bars.find((long) => long * inMm * layout.per_mm < 105) ?? bars.at(-1)!
  const barPx = bar * inMm * layout.per_mm
  const common = { names, layout, drawn }
  const seenFrom = layout.movable_on === 'left' ? 3 : 9
  return (
    <Views>
      <View
        {...common}
        plane="v"
        note={`from the ${seenFrom} o’clock side. Dashed: where the ${names.movable.toLowerCase()} must sit.`}
      />
      <View {...common} plane="h" note="from above" />
      <p>
        {drawn && `Across drawn × ${drawn.times.toLocaleString('en')}, along`}
        {!drawn && 'Along'} the shaft to scale
        <svg viewBox="0 0 110 14" aria-hidden="true">
          <path d={`M1 2V12M${1 + barPx} 2V12`} stroke="var(--ink)" strokeWidth="1.25" />
          <path d={`M1 7H${1 + barPx}`} stroke="var(--ink)" strokeWidth="3" />
        </svg>
        {bar} {unit}
      </p>
    </Views>
  )
}

interface ViewProps {
  names: Names
  layout: Layout
  drawn: Drawn | null
  plane: Plane
  note: string
}

const IN_LINE = { drop: 0, shear: 0 }

function View({ names, layout, drawn, plane, note }: ViewProps) {
  const hatch = useHatch()
  const unit = useUnit()
  const { movable, stationary, movable_on } = layout
  const { height: one, axis } = VIEW[plane]
  const rows = rowsFor(movable.feet.length)
  const height = plane === 'v' ? one + (rows - 1) * ROW : one
  const floor = axis + HALF + FOOT + ROOM + 4
  const view = drawn?.views.find((v) => v.plane === plane)
  const { drop, shear } = view?.axis ?? IN_LINE
  const at = (x: number) => drop + shear * x
  const middle = (machine: Machine) => (machine.near + machine.far) / 2
  return (
    <figure>
      <figcaption>
        <b>{TITLES[plane]}</b> {note}
        {view && <em>{sayIn(view.words, unit)}</em>}
      </figcaption>
      <Drawing
        along
        paper={[0, 0, WIDTH, height]}
        says={`${TITLES[plane]}: ${view ? sayIn(view.words, unit) : 'nothing read yet'}`}
      >
        {hatch.defs}
        {plane === 'h' && (
          <>
            <text x={WIDTH - 4} y={15} textAnchor="end" fontSize="var(--fs-note)" fill="var(--ink-2)">
              {movable_on === 'left' ? '9' : '3'} o’clock side
            </text>
            <text x={WIDTH - 4} y={height - 4} textAnchor="end" fontSize="var(--fs-note)" fill="var(--ink-2)">
              {movable_on === 'left' ? '3' : '9'} o’clock side
            </text>
          </>
        )}
        {plane === 'v' && (
          <>
            <path d={`M8 ${floor}H${WIDTH - 8}V${floor + 6}H8Z`} fill={hatch.fixed} />
            <path d={`M8 ${floor}H${WIDTH - 8}`} stroke="var(--ink)" strokeWidth="2" />
          </>
        )}
        <g transform={`translate(${layout.centre} ${axis})`}>
          <Outline machine={stationary} fill={hatch.fixed} plane={plane} footing={ROOM + 4} />
          <path d={`M${stationary.far * 1.05} 0H${movable.far * 1.05}`} stroke="var(--ink)" strokeDasharray="18 4 3 4" />
          {view && <Outline machine={movable} plane={plane} dashed />}
          <g transform={`matrix(1 ${shear} 0 1 0 ${drop})`}>
            <Outline machine={movable} fill="var(--paper)" plane={plane} />
            <path d={`M${movable.far * 1.08} 0H${movable.face}`} stroke="var(--ink)" strokeDasharray="18 4 3 4" />
          </g>
          {drawn?.band && <Band band={drawn.band} far={movable.far} />}
          {view?.cold && <ColdAxis cold={view.cold} far={movable.far} />}
          {movable.face !== 0 && <SpacerTube from={stationary.face} to={movable.face} drop={at(movable.face)} />}
          {view && <FlexPlanes flex={view.flex} />}
          <Halo x={middle(stationary)} y={5} words={names.stationary} />
          <Halo x={middle(movable)} y={5 + at(middle(movable))} words={names.movable} />
          {view?.moves.map(({ x, points, words }) => {
            const y = plane === 'v' ? HALF + FOOT + ROOM - 8 : HALF + FOOT + 14
            const [from, to] = points === 'up' ? [y + 12, y - 12] : [y - 12, y + 12]
            return (
              <g key={x}>
                {points && <path d={`M${x + 28} ${from}V${to}`} stroke="var(--ink)" strokeWidth="3" markerEnd={hatch.move} />}
                <text x={x + 38} y={y + 6} className="figure">
                  {sayIn(words, unit)}
                </text>
              </g>
            )
          })}
          {view && (
            <text
              x={0}
              y={-HALF - (plane === 'v' ? 24 : 16)}
              textAnchor="middle"
              fontSize="var(--fs-sub)"
              fontWeight="600"
              className="halo words"
            >
              {sayIn(view.words, unit)}
            </text>
          )}
        </g>
        {plane === 'v' && <Distances layout={layout} y={floor + 18} />}
      </Drawing>
    </figure>
  )
}

/** How far apart the feet stand along the shaft, from the middle of the coupling on. */
function Distances({ layout, y }: { layout: Layout; y: number }) {
  const hatch = useHatch()
  const unit = useUnit()
  const places = [0, ...layout.movable.feet].sort((a, b) => Math.abs(a) - Math.abs(b))
  const rows = rowsFor(layout.movable.feet.length)
  return (
    <g transform={`translate(${layout.centre} ${y})`} stroke="var(--ink)" strokeWidth=".75">
      {places.slice(1).map((to, i) => {
        const from = places[i]!
        const row = (i % rows) * ROW
        return (
          <g key={to}>
            <path d={`M${to} -14V${row + 5}M${from} -14V${row + 5}`} />
            <path d={`M${from} ${row}H${to}`} markerStart={hatch.arrow} markerEnd={hatch.arrow} />
            <text
              x={(to + from) / 2}
              y={row + 5}
              textAnchor="middle"
              className="read halo"
              style={{ strokeWidth: 8 }}
              fontSize="var(--fs-small)"
            >
              {showLength(Math.abs(to - from) / layout.per_mm, unit, 0)}
            </text>
          </g>
        )
      })}
    </g>
  )
}

interface OutlineProps {
  machine: Machine
  plane: Plane
  fill?: string
  dashed?: boolean
  /** How much further down the feet of the machine that stays reach: to the floor. */
  footing?: number
}

const HUB = [2, 26] as const // where a hub begins and ends, beyond its face

/** A plain scheme of a machine: hub, shaft, body, feet. */
function Outline({ machine, plane, fill = 'none', dashed, footing = 0 }: OutlineProps) {
  const { face, near: n, far: f, feet } = machine
  const s = Math.sign(n)
  const [h, b] = [face + HUB[0] * s, face + HUB[1] * s]
  const cover = (n + f) / 2 + (n - f) * 0.36
  const d = [
    `M${h} -18H${b}V-7H${n}V-${HALF - 8}H${cover}V-${HALF}H${f}V${HALF}H${cover}V${HALF - 8}H${n}V7H${b}V18H${h}Z`,
    ...feet.map((at) =>
      plane === 'v'
        ? `M${at - 20} ${HALF}L${at - 15} ${HALF + FOOT + footing}H${at + 15}L${at + 20} ${HALF}`
        : `M${at - 14} ${HALF}V${HALF + 10}H${at + 14}V${HALF}M${at - 14} -${HALF}V-${HALF + 10}H${at + 14}V-${HALF}`,
    ),
  ].join('')
  return (
    <path
      d={d}
      fill={dashed ? 'none' : fill}
      stroke={dashed ? 'var(--line)' : 'var(--ink)'}
      strokeWidth={dashed ? 1.25 : 2}
      strokeDasharray={dashed ? '5 4' : undefined}
      strokeLinejoin="round"
    />
  )
}

function Halo({ x, y, words }: { x: number; y: number; words: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" fontWeight="600" fontSize="var(--fs-body)" className="halo">
      {words}
    </text>
  )
}

const Views = styled.div`
  padding: 6px 16px 0;
  figure { position: relative; }
  figure + figure { border-top: 1.25px solid var(--line); margin-top: 4px; padding-top: 2px; }
  figcaption { position: absolute; font-size: var(--fs-small); color: var(--ink-2); }
  figcaption b { font-size: var(--fs-body); color: var(--ink); margin-right: 8px; }
  figcaption em { display: none; }
  @media (max-width: 700px) {
    figcaption { position: static; line-height: 1.2; }
    figcaption em { display: block; font: 600 var(--fs-body) var(--text); color: var(--ink); padding-top: 4px; }
    .words { display: none; }
  }
  .read { font-family: var(--read); font-weight: 500; }
  .figure { font-family: var(--read); font-weight: 600; font-size: var(--fs-sub); paint-order: stroke; stroke: var(--paper); stroke-width: 5px; }
  @media (max-width: 700px) { .figure { font-size: var(--fs-note); } }
  p { font-size: var(--fs-note); color: var(--ink-2); display: flex; gap: 10px; align-items: center; justify-content: flex-end; }
  p svg { width: 14.86%; min-width: 60px; height: 14px; }
`
