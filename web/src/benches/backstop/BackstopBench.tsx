import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { Choice } from '../../kit/Choice'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { type Draft, oneOf, type Slot } from '../draft'
import { Row, Zone } from '../parts'
import { byTable, type Field, type Given, type ResultOf, type Table } from '../table'
import { GearTrain, TurnArrow, WAY_WORDS } from './GearTrain'

type Result = ResultOf<'backstop'>

const WAYS = ['cw', 'ccw'] as const
const SIDES = ['input side', 'output side'] as const
const MESHES = ['0', '1', '2', '3', '4', '5', '6'] as const
const WAY = oneOf<(typeof WAYS)[number], undefined>('output', WAYS, undefined)
const SEEN = oneOf<(typeof SIDES)[number], undefined>('seen', SIDES, undefined)
const ON = oneOf<(typeof SIDES)[number], undefined>('on', SIDES, undefined)
const COUNT = oneOf<(typeof MESHES)[number], undefined>('meshes', MESHES, undefined)

/** Chosen, never guessed: nothing is filled in beforehand, and the next reading starts empty. */
function said<T>(at: Slot<T | undefined>, lacking: string): Field<T, 'backstop'> {
  return {
    read: (reader) => at.of(reader.draft) ?? reader.lack(lacking),
    restore: (filler, path, part) => {
      if (part === 'all') filler.choice(at.key, filler.at(path))
    },
  }
}

const FIELDS = {
  seen_from: said(SEEN, 'Choose the side you look from.'),
  output_rotation: said(WAY, 'Choose the way the output has to turn.'),
  meshes: {
    read: (reader) => {
      const count = COUNT.of(reader.draft)
      return count === undefined ? reader.lack('How many meshes lie between the output and the backstop?') : Number(count)
    },
    restore: (filler, path, part) => {
      const count = filler.at<number>(path)
      if (part === 'all' && count !== undefined) filler.choice(COUNT.key, String(count))
    },
  } satisfies Field<number, 'backstop'>,
  backstop_on: said(ON, 'Which side is the backstop on?'),
} satisfies Table<Given<'backstop'>, 'backstop'>

/** What somebody sees who stands at the unit, and what the backstop's shaft has to do for it. */
function BackstopDrawing({ draft, change, result }: BenchProps<'backstop'>) {
  const put =
    <T extends string>(slot: Slot<T | undefined>) =>
    (value: T) =>
      change(slot.put(draft, value))
  return (
    <>
      <Zone>
        <Row>
          <Choice label="Seen from the" options={SIDES} value={SEEN.of(draft) ?? null} onChange={put(SEEN)} />
          <Choice
            label="Seen from there, the output has to turn"
            options={WAYS}
            words={WAY_WORDS}
            value={WAY.of(draft) ?? null}
            onChange={put(WAY)}
          />
        </Row>
        <br />
        <Row>
          <Choice
            label="Gear meshes between output and backstop"
            options={MESHES}
            value={COUNT.of(draft) ?? null}
            onChange={put(COUNT)}
          />
          <Choice label="The backstop is on the" options={SIDES} value={ON.of(draft) ?? null} onChange={put(ON)} />
        </Row>
      </Zone>
      <Zone>
        <h3>
          Gear train<span>parallel shafts; each mesh turns it round</span>
        </h3>
        <AsYouStand draft={draft} />
        {result?.said_before && (
          <p>
            The first of the two said: from the {result.said_before.seen_from} the output turns{' '}
            <b>{WAY_WORDS[result.said_before.output_rotation]}</b>, {result.said_before.meshes} meshes, the backstop on the{' '}
            {result.said_before.backstop_on}.
          </p>
        )}
        {result && <GearTrain result={result} side={ON.of(draft) ?? ''} />}
      </Zone>
    </>
  )
}

/** The output from where one stands, before anything else is known. */
function AsYouStand({ draft }: { draft: Draft }) {
  const hatch = useHatch()
  const [way, seen] = [WAY.of(draft), SEEN.of(draft)]
  if (!way || !seen) return <p>Enter the side you look from and the way the output has to turn: it is drawn as you see it.</p>
  return (
    <Drawing most={1} paper={[0, 0, 400, 92]} says={`From the ${seen} the output turns ${WAY_WORDS[way]}`}>
      {hatch.defs}
      <g transform="translate(56 46)">
        <circle r="30" fill="var(--leaf)" stroke="var(--ink)" strokeWidth="1.5" />
        <circle r="12" fill={hatch.other} stroke="var(--ink)" strokeWidth="1.25" />
        <TurnArrow r={40} way={way} arrow={hatch.move} />
      </g>
      <text x="116" y="42" fontSize="var(--fs-text)">
        Seen from the {seen}
      </text>
      <text x="116" y="64" fontSize="var(--fs-text)" fontWeight="600">
        the output turns {WAY_WORDS[way]}
      </text>
    </Drawing>
  )
}

function say(result: Result) {
  const plain = plainSay(result)
  const way = WAY_WORDS[result.shaft_rotation_seen_from_backstop]
  if (result.verdict === 'over') return { ...plain, title: 'You do not agree.', note: 'Nothing goes in before you do.' }
  return { ...plain, title: `Free way: ${way}.`, note: 'Seen from the side the backstop is on.' }
}

export const backstopBench: BenchClient<'backstop'> = {
  name: 'backstop',
  title: 'Backstop',
  answers: 'Which way its shaft turns, and the arrow to look for on the race',
  ...byTable<'backstop'>(FIELDS),
  say,
  Drawing: BackstopDrawing,
}
