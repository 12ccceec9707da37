import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { Choice } from '../../kit/Choice'
import { sayLength, showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { type Draft, DraftReader, oneOf } from '../draft'
import { FieldCell, Zone } from '../parts'
import { byTable, type CellSpec, cell, chosen, type Given, group, type ResultOf, type Table, when } from '../table'

type Result = ResultOf<'key'>

const RULES = ['as long as the hub', 'as long or slightly longer', 'half key made up'] as const
const RULE = oneOf('length_rule', RULES, undefined)
const ruleOf = (draft: Draft, preset: Given<'key'>) => preset.length_rule ?? RULE.of(draft)
const isHalfKey = (draft: Draft, preset: Given<'key'>) => ruleOf(draft, preset) === 'half key made up'

const figure = (name: string, label: string, more: Partial<CellSpec<'key'>> = {}) =>
  cell<'key'>({ cell: name, label, lacking: `Still to measure: ${label.toLowerCase()}.`, ...more })

const KEY = {
  width_mm: figure('key.width_mm', 'Key width'),
  height_mm: figure('key.height_mm', 'Key height'),
  length_mm: figure('key.length_mm', 'Key length'),
}
const SHAFT_KEYWAY = {
  width_mm: figure('shaft_keyway.width_mm', 'Shaft keyway, width'),
  depth_mm: figure('shaft_keyway.depth_mm', 'Shaft keyway, depth at the side'),
}
const HUB_KEYWAY = {
  width_mm: figure('hub_keyway.width_mm', 'Hub keyway, width'),
  depth_mm: figure('hub_keyway.depth_mm', 'Hub keyway, depth at the side'),
  length_mm: figure('hub_keyway.length_mm', 'Hub length', { hint: (hints) => hints.hub_length_mm }),
}
const SHAFT = figure('shaft_diameter_mm', 'Shaft diameter', { stays: true })
const SHAFT_KEYWAY_LENGTH = figure('shaft_keyway_length_mm', 'Shaft keyway, length', { optional: true, stays: true })
const CELLS = [...Object.values(KEY), ...Object.values(SHAFT_KEYWAY), ...Object.values(HUB_KEYWAY), SHAFT]

const FIELDS = {
  key: group<Schemas['Key'], 'key'>(KEY),
  shaft_keyway: group<Schemas['ShaftKeyway'], 'key'>(SHAFT_KEYWAY),
  hub_keyway: group<Schemas['HubKeyway'], 'key'>(HUB_KEYWAY),
  shaft_diameter_mm: SHAFT,
  length_rule: chosen(RULE),
  shaft_keyway_length_mm: when(isHalfKey, SHAFT_KEYWAY_LENGTH),
} satisfies Table<Given<'key'>, 'key'>

/** Key and keyways in section, the drawing following the figures. */
function KeyDrawing({ draft, change, preset, problems, result }: BenchProps<'key'>) {
  const rule = ruleOf(draft, preset)
  const common = { draft, change, problems, width: 104 }
  return (
    <Zone>
      <h3>
        Section through key and keyways<span>clearances drawn wider than they are</span>
      </h3>
      <Section draft={draft} result={result} />
      <Cells>
        {CELLS.map((of) => (
          <FieldCell key={of.cell} of={of} {...common} />
        ))}
        {isHalfKey(draft, preset) && <FieldCell of={SHAFT_KEYWAY_LENGTH} {...common} />}
      </Cells>
      <School>
        {preset.length_rule ? (
          <p>Key length: {rule}, since this shaft end was balanced with a half key.</p>
        ) : (
          <Choice
            label="Key length rule (optional)"
            options={RULES}
            value={rule ?? null}
            onChange={(next) => change(RULE.put(draft, next))}
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
      <text x="196" y={y + 5} fontSize="var(--fs-small)">
        {words} <tspan fontFamily="var(--read)">{sayLength(mm, unit, 3)}</tspan>
      </text>
    </g>
  )
  return (
    <Drawing
      paper={[-370, -110, 740, 220]}
      says={result ? `Room above the key ${showLength(result.top_clearance_mm, unit, 3)} ${unit}` : 'Key in its keyways'}
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
      <text x="-230" y="-60" fontWeight="600" className="halo">
        Hub
      </text>
      <text x="-150" y="84" fontWeight="600" className="halo">
        Shaft
      </text>
      {result && (
        <>
          {right(-h - top / 2, 'room above', result.top_clearance_mm)}
          {right(-h / 3, 'side, in the hub', result.side_clearance_hub_mm)}
          {right(h * 0.7, 'side, in the shaft', result.side_clearance_shaft_mm)}
        </>
      )}
    </Drawing>
  )
}

export const keyBench: BenchClient<'key'> = {
  name: 'key',
  title: 'Key',
  answers: 'Key against both keyways: side, top, length',
  ...byTable<'key'>(FIELDS),
  say: (result, unit) => ({
    ...plainSay(result),
    title: result.verdict === 'over' ? 'The key does not fit.' : 'The key has room.',
    moves:
      result.length_wanted_mm === null ? [] : [`Key length required ${showLength(result.length_wanted_mm, unit)} ${unit}`],
    note: `${sayLength(result.top_clearance_mm, unit, 3)} above it; sideways ${sayLength(result.side_clearance_shaft_mm, unit, 3)} in the shaft, ${sayLength(result.side_clearance_hub_mm, unit, 3)} in the hub.`,
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
