import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { PlainButton } from '../../kit/Button'
import { EntryCell } from '../../kit/EntryCell'
import { useIsWide } from '../../kit/useIsWide'
import { sayLength, showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { asRead, fillFrom, slot } from '../draft'
import { LabelledCell, Zone } from '../parts'
import { byTable, type Given, limit, type Table } from '../table'

const FOUR = ['near foot, 9 side', 'near foot, 3 side', 'far foot, 9 side', 'far foot, 3 side']
const CORNERS = ['near, 9 o’clock side', 'near, 3 o’clock side', 'far, 3 o’clock side', 'far, 9 o’clock side']
const [UPPER, LOWER] = [70, 250] // where the two rows of feet are drawn, seen from above

const FEET = slot('feet', FOUR)

const FIELDS = {
  feet: {
    read: (reader, path) => {
      const [all, found]: [string[], Schemas['SoftFoot'][]] = [FEET.of(reader.draft), []]
      for (const name of all) {
        const rise = reader.length(`rise.${name}`, `${path}.${found.length}.rise_mm`)
        if (rise !== null) found.push({ name, rise_mm: rise })
      }
      const open = all.length - found.length
      if (open) reader.lack(`Still to slacken: ${open} of ${all.length} feet.`)
      return found
    },
    restore: (filler, path, part) => {
      const feet = filler.at<Schemas['SoftFoot'][]>(path) ?? []
      filler.choice(
        FEET.key,
        feet.map((foot) => foot.name),
      )
      if (part === 'all')
        for (const [i, { name }] of feet.entries()) filler.cell(`rise.${name}`, `${path}.${i}.rise_mm`, asRead)
    },
    start: (hints) => ({ choices: hints.feet ? { [FEET.key]: hints.feet } : {} }),
  },
  corners: {
    read: (reader, path) => {
      const found: Record<string, number[]> = {}
      for (const name of FEET.of(reader.draft)) {
        const felt = CORNERS.flatMap((_, i) => reader.length(`corner.${name}.${i}`, `${path}.${name}.${i}`) ?? [])
        if (felt.length === CORNERS.length) found[name] = felt
        else if (felt.length > 0) reader.lack(`Feeler under all four corners of ${name}.`)
      }
      return found
    },
    restore: (filler, path, part) => {
      if (part === 'all')
        for (const name of Object.keys(filler.at<Record<string, number[]>>(path) ?? {}))
          for (const c of CORNERS.keys()) filler.cell(`corner.${name}.${c}`, `${path}.${name}.${c}`, asRead)
    },
  },
  limit_mm: limit('Give the most a foot may rise.'),
} satisfies Table<Given<'softfoot'>, 'softfoot'>

/** The machine from above with a cell at each foot; under it the worst foot with a feeler at each corner. */
function SoftFootDrawing({ draft, change, problems, result, spec }: BenchProps<'softfoot'>) {
  const feet = FEET.of(draft)
  const unit = useUnit()
  // Seen from above the driver stands left. Behind a machine, looking to the coupling, 9 o'clock is on the left hand.
  const couplingRight = spec === null || spec.movable === 'driver'
  const felt = feet.find((name) => CORNERS.some((_, i) => draft.cells[`corner.${name}.${i}`]?.text.trim()))
  const worst = (result?.verdict === 'over' || result?.verdict === 'not judged' ? result.worst : felt) ?? null
  const again = () =>
    change({ ...draft, cells: Object.fromEntries(Object.entries(draft.cells).filter(([cell]) => cell.startsWith('limit.'))) })
  return (
    <>
      <Zone>
        <h3>
          Rise of each foot<span>its bolt slack, all others tight; seen from above</span>
        </h3>
        <FromAbove feet={feet} worst={worst} couplingRight={couplingRight}>
          {(name) => (
            <EntryCell
              label={`Rise, ${name}`}
              typed={draft.cells[`rise.${name}`]}
              onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`rise.${name}`]: typed } })}
              problem={problems[`rise.${name}`]}
              signed
              onFigures={fillFrom(
                { draft, change, unit },
                feet.map((foot) => `rise.${foot}`),
                `rise.${name}`,
              )}
            />
          )}
        </FromAbove>
        <PlainButton onPress={again}>All tight: measure again</PlainButton>
      </Zone>
      {worst && (
        <Zone>
          <h3>
            Under {worst}
            <span>its bolt slack; feelers at the four corners tell what kind it is</span>
          </h3>
          <Corners>
            {CORNERS.map((corner, i) => (
              <LabelledCell
                key={corner}
                cell={`corner.${worst}.${i}`}
                label={corner}
                part="aside"
                draft={draft}
                change={change}
                problems={problems}
              />
            ))}
          </Corners>
          <Underneath foot={result?.feet.find((f) => f.name === worst) ?? null} />
        </Zone>
      )}
    </>
  )
}

interface FromAboveProps {
  feet: readonly string[]
  worst: string | null
  couplingRight: boolean
  children: (name: string) => React.ReactNode
}

const LETTER_PX = 7.5

function FromAbove({ feet, worst, couplingRight, children }: FromAboveProps) {
  const hatch = useHatch()
  const isWide = useIsWide()
  const pairs = Math.ceil(feet.length / 2)
  const apart = pairs > 1 ? (400 / (pairs - 1)) * (isWide ? 1 : 0.5) : 400
  const longest = Math.max(...feet.map((name) => name.length)) * LETTER_PX
  // Where names or cells would cover each other the drawing has numbers, and the list under it the rest.
  const isListed = pairs > 2 && (longest > apart || apart < 110)
  const at = (i: number) => {
    const along = pairs === 1 ? 360 : 160 + (Math.floor(i / 2) * 400) / (pairs - 1) // from the coupling
    return couplingRight ? { x: 720 - along, y: i % 2 === 0 ? UPPER : LOWER } : { x: along, y: i % 2 === 0 ? LOWER : UPPER }
  }
  return (
    <Above>
      <Drawing along paper={[0, 0, 720, 320]}>
        {hatch.defs}
        <g transform={couplingRight ? 'matrix(-1 0 0 1 720 0)' : undefined}>
          <path d="M110 100H640V220H110Z" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
          <path d="M110 144H60V176H110M60 132H36V188H60Z" fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
          <path d="M10 160H690" stroke="var(--ink)" strokeDasharray="18 4 3 4" />
        </g>
        {feet.map((name, i) => {
          const { x, y } = at(i)
          return (
            <g key={name}>
              <rect
                x={x - (isListed ? 20 : 60)}
                y={y - 34}
                width={isListed ? 40 : 120}
                height="68"
                fill={name === worst ? 'var(--blue-wash)' : 'var(--leaf)'}
                stroke={name === worst ? 'var(--blue)' : 'var(--ink)'}
                strokeWidth={name === worst ? 3 : 1.6}
              />
              <text x={x} y={y < 160 ? y - 40 : y + 50} textAnchor="middle" fontSize="var(--fs-small)" fontWeight="600">
                {isListed ? i + 1 : name}
              </text>
            </g>
          )
        })}
      </Drawing>
      {isListed && (
        <ol>
          {feet.map((name, i) => (
            <li key={name} data-worst={name === worst || undefined}>
              <span>
                {i + 1}. {name}
              </span>
              {children(name)}
            </li>
          ))}
        </ol>
      )}
      {!isListed &&
        feet.map((name, i) => {
          const { x, y } = at(i)
          return (
            <div key={name} data-cell style={{ left: `${(x / 720) * 100}%`, top: `${(y / 320) * 100}%` }}>
              {children(name)}
            </div>
          )
        })}
    </Above>
  )
}

/** The worst foot in section: the air under it, or none. */
function Underneath({ foot }: { foot: Schemas['FootFound'] | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  if (!foot) return null
  const [near, far] = foot.stepped_mm ? [foot.stepped_mm[0]!, foot.stepped_mm[2]!] : [foot.shim_mm, foot.shim_mm]
  const most = Math.max(near, far, 0.01)
  const drawn = (mm: number) => (mm / most) * 24
  const words = {
    parallel: `parallel: ${showLength(foot.shim_mm, unit)} under it`,
    angled: 'at an angle: stepped shims, or machine it',
    springing: 'springs: no air under it, no shim cures it',
    unknown: 'kind not known yet: feel the corners',
  }[foot.kind]
  return (
    <Drawing most={1} paper={[-200, -70, 400, 130]} says={`${foot.name} ${words}`}>
      {hatch.defs}
      <path d="M-180 30H180V44H-180Z" fill={hatch.fixed} />
      <path d="M-180 30H180" stroke="var(--ink)" strokeWidth="2" />
      <path
        d={`M-90 ${30 - drawn(near)}L90 ${30 - drawn(far)}V${4 - drawn(far)}H30V-56H-30V${4 - drawn(near)}H-90Z`}
        fill="var(--leaf)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text y="60" textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600">
        {words}
      </text>
    </Drawing>
  )
}

function sayCure(foot: Schemas['FootFound'], unit: 'mm' | 'in') {
  const again = 'Tighten all, measure every foot again'
  if (foot.kind === 'springing') return ['No shim: find what pulls at it', again]
  if (foot.kind === 'angled') return ['Stepped shims under its corners, or machine the pad', again]
  return [`Under it: ${showLength(foot.shim_mm, unit)} ${unit}`, again]
}

export const softFootBench: BenchClient<'softfoot'> = {
  name: 'softfoot',
  title: 'Soft foot',
  answers: 'Which foot is soft, of what kind, and what goes under it',
  ...byTable<'softfoot'>(FIELDS),
  say: (result, unit) => {
    const foot = result.feet.find((f) => f.name === result.worst)!
    const plain = plainSay(result)
    if (result.verdict === 'not judged')
      return {
        title: `${result.worst} rises most.`,
        note: `It rises ${sayLength(foot.rise_mm, unit)}; no limit to judge by.`,
        moves: sayCure(foot, unit),
      }
    return result.verdict === 'over'
      ? {
          title: `Soft foot: ${result.worst}.`,
          note: `It rises ${sayLength(foot.rise_mm, unit)}; ${foot.kind === 'unknown' ? 'check its corners with feelers' : foot.kind}.`,
          moves: sayCure(foot, unit),
        }
      : { ...plain, title: 'All feet OK.', note: `${result.worst} rises most: ${sayLength(foot.rise_mm, unit)}.` }
  },
  Drawing: SoftFootDrawing,
  quickLimits: [{ cell: 'limit', label: 'Most a foot may rise', kind: 'length', unit: '' }],
  quickPreset: ({ limit }) => ({ limit_mm: limit ?? null }),
  keys: [['Enter', 'next foot']],
}

const Above = styled.div`
  position: relative;
  max-width: 720px;
  margin-bottom: 8px;
  > [data-cell] { position: absolute; transform: translate(-50%, -50%); }
  ol { display: grid; grid-template-columns: repeat(auto-fill, minmax(280px, 1fr)); gap: 6px 28px; padding-top: 8px; }
  li { display: flex; justify-content: space-between; align-items: center; gap: 10px; }
  [data-worst] span { font-weight: 600; }
`
const Corners = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 8px 28px;
`
