import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { useHatch } from '../../drawing/Hatch'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, type Preset, plainSay } from '../bench'
import { type Draft, DraftFiller, DraftReader, type Entered, type Part, suggested } from '../draft'
import { LabelledCell, Zone } from '../parts'

type Result = Schemas['KeyResult']

const CELLS = [
  ['key.width_mm', 'Key width'],
  ['key.height_mm', 'Key height'],
  ['key.length_mm', 'Key length'],
  ['shaft_keyway.width_mm', 'Shaft keyway, width'],
  ['shaft_keyway.depth_mm', 'Shaft keyway, depth at the side wall'],
  ['hub_keyway.width_mm', 'Hub keyway, width'],
  ['hub_keyway.depth_mm', 'Hub keyway, depth at the side wall'],
  ['hub_keyway.length_mm', 'Hub length'],
] as const

function start(preset: Preset, suggest: Preset): Draft {
  const hub = suggested((suggest.hub_keyway as { length_mm?: number } | undefined)?.length_mm)
  const shaft = suggested(preset.shaft_diameter_mm as number | undefined)
  return { cells: { ...(hub && { 'hub_keyway.length_mm': hub }), ...(shaft && { shaft_diameter_mm: shaft }) }, choices: {} }
}

const RULES = ['as long as the hub', 'as long or slightly longer', 'half key made up'] as const
const ruleOf = (draft: Draft, preset: Preset) => (preset.length_rule ?? draft.choices.length_rule) as Rule | undefined
type Rule = (typeof RULES)[number]

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const input: Record<string, Record<string, number>> = {}
  let missing = ''
  for (const [path, label] of CELLS) {
    const [group, name] = path.split('.') as [string, string]
    const mm = reader.length(path, path)
    if (mm === null) missing ||= label
    else input[group] = { ...input[group], [name]: mm }
  }
  const shaft = reader.length('shaft_diameter_mm', 'shaft_diameter_mm')
  if (shaft === null) missing ||= 'Shaft diameter'
  const rule = ruleOf(draft, preset)
  const keyway = rule === 'half key made up' ? reader.length('shaft_keyway_length_mm', 'shaft_keyway_length_mm') : null
  const school = rule && !preset.length_rule ? { length_rule: rule } : {}
  return reader.done(
    missing
      ? null
      : { ...input, shaft_diameter_mm: shaft, ...school, ...(keyway !== null && { shaft_keyway_length_mm: keyway }) },
    missing && `Still to measure: ${missing.toLowerCase()}.`,
  )
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  if (part === 'all') for (const [path] of CELLS) filler.cell(path, path)
  filler.cell('shaft_diameter_mm', 'shaft_diameter_mm')
  filler.choice('length_rule', filler.at('length_rule'))
  filler.cell('shaft_keyway_length_mm', 'shaft_keyway_length_mm')
  return filler.draft
}

/** Key and keyways in section, the drawing following the figures. */
function KeyDrawing({ draft, change, preset, problems, result }: BenchProps<Result>) {
  const rule = ruleOf(draft, preset)
  const common = { draft, change, problems, width: 104 }
  return (
    <Zone>
      <h3>
        Section through key and keyways<span>clearances drawn wider than they are</span>
      </h3>
      <Section draft={draft} result={result} />
      <Cells>
        {[...CELLS, ['shaft_diameter_mm', 'Shaft diameter'] as const].map(([path, label]) => (
          <LabelledCell key={path} cell={path} label={label} {...common} />
        ))}
        {rule === 'half key made up' && (
          <LabelledCell cell="shaft_keyway_length_mm" label="Shaft keyway, length" {...common} />
        )}
      </Cells>
      <School>
        {preset.length_rule ? (
          <p>Key length: {rule}, since this shaft end was balanced with a half key.</p>
        ) : (
          <Choice
            label="Key length: which school? Not judged unless you say"
            options={RULES}
            value={rule ?? null}
            onChange={(next) => change({ ...draft, choices: { ...draft.choices, length_rule: next } })}
          />
        )}
      </School>
    </Zone>
  )
}

const AROUND = 6 // drawn clearance for 0.05 mm and more

function Section({ draft, result }: { draft: Draft; result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const reader = new DraftReader(draft)
  const size = (cell: string, usual: number) => reader.length(cell, '') || usual
  const width = size('key.width_mm', 14)
  const scale = 120 / Math.max(width, size('key.height_mm', 9))
  const [w, h] = [(width * scale) / 2, (size('key.height_mm', 9) * scale) / 2]
  const drawn = (mm: number | undefined) =>
    mm === undefined ? 3 : Math.max(-AROUND, Math.min(AROUND * 2, (mm / 0.05) * AROUND))
  const [sideShaft, sideHub, top] = [
    drawn(result?.side_clearance_shaft_mm),
    drawn(result?.side_clearance_hub_mm),
    drawn(result?.top_clearance_mm),
  ]
  const right = (y: number, words: string, mm: number) => (
    <g>
      <path d={`M${w + 8} ${y}H190`} stroke="var(--ink)" strokeWidth=".75" />
      <text x="196" y={y + 5} fontSize="15">
        {words} <tspan fontFamily="var(--read)">{showLength(mm, unit, 3)}</tspan>
      </text>
    </g>
  )
  return (
    <svg
      viewBox="-370 -110 740 220"
      width="100%"
      role="img"
      aria-label={
        result ? `Room above the key ${showLength(result.top_clearance_mm, unit, 3)} ${unit}` : 'Key in its keyways'
      }
    >
      {hatch.defs}
      <path
        d={`M-300 100Q-150 20 ${-w - sideShaft} 6V${h}H${w + sideShaft}V6Q150 20 170 30V104H-300Z`}
        fill={hatch.fixed}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path
        d={`M-300 -100H170V24Q150 14 ${w + sideHub} 0V${-h - top}H${-w - sideHub}V0Q-150 14 -300 92Z`}
        fill={hatch.other}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <rect x={-w} y={-h} width={2 * w} height={2 * h} fill="var(--leaf)" stroke="var(--ink)" strokeWidth="2" />
      <text y="5" textAnchor="middle" fontWeight="600">
        Key
      </text>
      <text x="-230" y="-60" fontWeight="600" stroke="var(--paper)" strokeWidth="5" paintOrder="stroke">
        Hub
      </text>
      <text x="-150" y="84" fontWeight="600" stroke="var(--paper)" strokeWidth="5" paintOrder="stroke">
        Shaft
      </text>
      {result && (
        <>
          {right(-h - top / 2, 'room above', result.top_clearance_mm)}
          {right(-h / 3, 'side, in the hub', result.side_clearance_hub_mm)}
          {right(h * 0.7, 'side, in the shaft', result.side_clearance_shaft_mm)}
        </>
      )}
    </svg>
  )
}

export const keyBench: BenchClient<Result> = {
  name: 'key',
  title: 'Key',
  answers: 'Key against both keyways: side, top, length',
  start,
  read,
  restore,
  say: (result, unit) => ({
    ...plainSay(result),
    title: result.verdict === 'over' ? 'The key does not fit.' : 'The key has room.',
    moves: result.length_wanted_mm === null ? [] : [`Key length wanted ${showLength(result.length_wanted_mm, unit)} ${unit}`],
    note: `${showLength(result.top_clearance_mm, unit, 3)} above it; sideways ${showLength(result.side_clearance_shaft_mm, unit, 3)} in the shaft, ${showLength(result.side_clearance_hub_mm, unit, 3)} in the hub.`,
  }),
  Drawing: KeyDrawing,
  keys: [['Enter', 'next figure']],
}

const School = styled.div`
  margin-top: 10px;
`
const Cells = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 8px 28px;
  margin-top: 10px;
`
