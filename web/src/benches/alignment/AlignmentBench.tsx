import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { sayLength, showLength } from '../../units/length'
import { type BenchClient, type BenchProps, namesOf } from '../bench'
import { RingReadings } from '../ringReadings'
import type { ResultOf } from '../table'
import { AlignmentSetUp } from './AlignmentSetUp'
import { AlignmentViews } from './AlignmentViews'
import { bracketIn } from './Brackets'
import { read, restore, start, streamAt } from './draft'
import { LaserSweep } from './LaserSweep'
import { MovePanels } from './MovePanels'
import { type BracketOn, dialsOf, METHOD } from './methods'
import { ScreenFigures } from './ScreenFigures'
import { sayPieces } from './shims'

type Result = ResultOf<'alignment'>

const SHOWN_FROM_MM = 0.005

/** Rim and face, or two rims, at any clock places: cells on the rings, both views moving with each key. */
function AlignmentDrawing(props: BenchProps<'alignment'>) {
  const { draft, change, hints, result, problems, spec, stream } = props
  const method = METHOD.of(draft)
  const dials = dialsOf(draft)
  const names = namesOf(spec)
  const where = (on: BracketOn) => names[on].toLowerCase()
  return (
    <div>
      <AlignmentViews names={names} layout={hints.layout ?? undefined} drawn={result?.drawn ?? null} />
      <Entry>
        {method === 'laser' && <LaserSweep draft={draft} change={change} stream={stream} result={result} />}
        {method === 'off a screen' && <ScreenFigures draft={draft} change={change} problems={problems} />}
        {(method === 'laser' && streamAt(0).of(draft).length > 0 ? [] : dials).map((dial) => {
          const name = dial.name
          return (
            <div key={dial.id}>
              <RingReadings
                signed
                name={name}
                note={dial.kind === 'face' ? 'on the face' : 'as read'}
                prefix={`${dial.id}.at`}
                placesKey={`${dial.id}.clocks`}
                draft={draft}
                change={change}
                problems={problems}
              />
              {dial.opposite && (
                <RingReadings
                  signed
                  name="Second face"
                  note="half a turn on"
                  prefix={`${dial.id}.far`}
                  placesKey={`${dial.id}.clocks`}
                  draft={draft}
                  change={change}
                  problems={problems}
                />
              )}
            </div>
          )
        })}
        <AlignmentSetUp {...props} machines={{ movable: where('movable'), stationary: where('stationary') }} />
      </Entry>
      <MovePanels {...props} />
    </div>
  )
}

const bothMove = (result: Result) =>
  result.plan?.some((m) => m.machine === 'stationary' && Math.max(Math.abs(m.shim_mm), Math.abs(m.slide_mm)) >= SHOWN_FROM_MM)

/** How sure a move is, where it can be told. */
function plusMinus(by: number | null | undefined, unit: 'mm' | 'in') {
  return by !== null && by !== undefined && <small> ±{showLength(by, unit)}</small>
}

/** The pieces for a foot from the box; where it is known what lies there now, the whole stack after the move. */
function stackOf(result: Result, name: string, unit: 'mm' | 'in') {
  const stack = result.stacks.find((s) => s.name === name)
  if (!stack?.pieces_mm) return stack && <small> (no shims in the box for it)</small>
  const { pieces_mm: pieces, was_mm: was } = stack
  if (was.length > 0) return <small>, then {pieces.length > 0 ? sayPieces(pieces, unit) : 'nothing'} under it</small>
  return pieces.length > 0 && <small> (shims {sayPieces(pieces, unit)})</small>
}

function say(result: Result, unit: 'mm' | 'in', spec: Schemas['LineSpec'] | null) {
  const name = spec ? spec[spec.movable].name.toLowerCase() : 'movable machine'
  const over = result.verdict === 'over'
  const moves = (result.plan ?? result.feet).flatMap((foot) => {
    const sure = result.feet.find((f) => f.name === foot.name)
    const shim = Math.abs(foot.shim_mm) >= SHOWN_FROM_MM && (
      <span key="shim">
        {foot.shim_mm > 0 ? 'add' : 'take out'} <b>{showLength(Math.abs(foot.shim_mm), unit)}</b>
        {plusMinus(sure?.shim_plus_minus_mm, unit)} {unit}
      </span>
    )
    const slide = Math.abs(foot.slide_mm) >= SHOWN_FROM_MM && (
      <span key="slide">
        slide <b>{showLength(Math.abs(foot.slide_mm), unit)}</b>
        {plusMinus(sure?.slide_plus_minus_mm, unit)} {unit} to {foot.slide_mm > 0 ? 3 : 9}
      </span>
    )
    if (!shim && !slide) return []
    return [
      <>
        {foot.name[0]!.toUpperCase() + foot.name.slice(1)}: {shim}
        {shim && slide && ', '}
        {slide}
        {shim && stackOf(result, foot.name, unit)}
      </>,
    ]
  })
  const title = over
    ? bothMove(result)
      ? 'Misaligned: move both machines.'
      : `Misaligned: move the ${name}.`
    : result.verdict === 'close'
      ? 'Within tolerance, near the limit.'
      : result.verdict === 'inside'
        ? 'Within both limits.'
        : 'Read. Limits are missing.'
  const v = result.left_offset_v_mm
  const h = result.left_offset_h_mm
  return {
    title,
    note: `The ${name} is ${sayLength(Math.abs(v), unit)} ${v >= 0 ? 'high' : 'low'} and ${sayLength(Math.abs(h), unit)} toward ${h >= 0 ? 3 : 9}.`,
    moves: over || result.verdict === 'close' ? moves : [],
  }
}

export const alignmentBench: BenchClient<'alignment'> = {
  name: 'alignment',
  title: 'Align',
  answers: 'Offset, angle and foot moves, from dials, a laser or a screen',
  start,
  read,
  restore,
  named: bracketIn,
  say,
  Drawing: AlignmentDrawing,
  quickLimits: [
    { cell: 'offset', label: 'Coupling, offset limit', kind: 'length', unit: '' },
    { cell: 'angle', label: 'Coupling, angle limit', kind: 'degrees', unit: '°' },
  ],
  quickPreset: ({ offset, angle }) =>
    offset === undefined && angle === undefined
      ? {}
      : { limits: { ...(offset !== undefined && { offset_mm: offset }), ...(angle !== undefined && { angle_deg: angle }) } },
  keys: [
    ['Enter', 'next reading, clockwise'],
    ['−', 'after a figure: flip sign'],
  ],
}

const Entry = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 8px 16px 16px;
  border-top: 2px solid var(--ink);
  margin-top: 6px;
`
