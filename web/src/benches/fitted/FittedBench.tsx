import styled from 'styled-components'
import { MainButton, PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { useKeys } from '../../kit/useKeys'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { oneOf, slot } from '../draft'
import { Actions, FieldCell, Zone } from '../parts'
import { byTable, cell, chosen, type Field, type Given, type ResultOf, type Table } from '../table'
import { BoltInSection } from './BoltInSection'
import { areDrawnIn, HoleMap } from './HoleMap'

type Result = ResultOf<'fitted'>
type Tap = NonNullable<Given<'fitted'>['log']>[number]

const HEADS = ['alternating', 'all on the hub', 'all on the spacer'] as const
const HEAD = oneOf('heads', HEADS, 'alternating')
const FLANGES = ['hub', 'spacer'] as const
const FIRST = oneOf('first_head', FLANGES, 'hub')
const WAYS = ['in', 'out'] as const
const WAY = oneOf('way', WAYS, 'in')
const LOG = slot<readonly Tap[]>('log', [])

const BOLTS = cell<'fitted'>({ cell: 'bolts', label: 'Bolts', kind: 'number', unit: '', lacking: 'How many bolts?' })

const FIELDS = {
  bolts: {
    ...BOLTS,
    read: (reader, path, preset) => {
      const bolts = BOLTS.read(reader, path, preset)
      return bolts === undefined ? undefined : Math.round(bolts)
    },
  },
  heads: chosen(HEAD),
  first_head: chosen(FIRST),
  way: chosen(WAY),
  log: {
    read: (reader) => [...LOG.of(reader.draft)],
    restore: (filler, path, part) => {
      if (part === 'all') filler.choice(LOG.key, filler.at(path))
    },
  } satisfies Field<Tap[], 'fitted'>,
} satisfies Table<Given<'fitted'>, 'fitted'>

/** What is done to bring a bolt to a state, on its button. */
const DO: Record<Tap['to'], string> = {
  in: 'in by hand',
  'drawn bare': 'drawn with a bare nut',
  'nut off': 'nut off',
  'ring on': 'catch ring on',
  'head seated': 'head seated',
  'ring off': 'catch ring off',
  'tapped out': 'tapped out softly',
  'backed out': 'backed out',
}

/** The circle with every bolt as far as it is, and one bolt in section as it stands next. */
function FittedDrawing(props: BenchProps<'fitted'>) {
  const { draft, change, preset, result } = props
  const log = LOG.of(draft)
  // Two quick taps are two holes: a second one on the same hole waits until the first was answered.
  const isAnswered = (hole: number) => result !== null && !log.slice(result.done).some((done) => done.hole === hole)
  const tap = (hole: number, to: Tap['to']) => isAnswered(hole) && change(LOG.put(draft, [...log, { hole, to }]))
  const takeBack = () => change(LOG.put(draft, log.slice(0, -1)))
  const next = result?.next ?? null
  const onward = (hole: number) => {
    const to = result?.holes.find((h) => h.hole === hole)?.next
    if (to) tap(hole, to)
  }
  const isIn = result === null || areDrawnIn(result.states)
  const last = log.findLast((done) => done.to !== 'backed out')
  const open = last && result?.holes.find((h) => h.hole === last.hole && h.state !== null && h.next !== null)
  useKeys({
    ' ': next ? () => tap(next.hole, next.to) : undefined,
    u: log.length > 0 ? takeBack : undefined,
  })
  return (
    <>
      {!('bolts' in preset) && (
        <Zone>
          <Choices>
            <FieldCell of={BOLTS} {...props} />
            {!('way' in preset) && (
              <Choice
                label="They are"
                options={WAYS}
                words={{ in: 'drawn in', out: 'taken out' }}
                value={WAY.of(draft)}
                onChange={(way) => change(LOG.put(WAY.put(draft, way), []))}
              />
            )}
          </Choices>
        </Zone>
      )}
      {result && (
        <Two>
          <div>
            <HoleMap holes={result.holes} states={result.states} next={next?.hole ?? null} onTap={onward} />
            <Actions>
              <MainButton isDisabled={!next || !isAnswered(next.hole)} onPress={() => next && tap(next.hole, next.to)}>
                {next ? `Hole ${next.hole}: ${DO[next.to]}` : isIn ? 'Every head is seated' : 'Every bolt is out'}
              </MainButton>
              <PlainButton isDisabled={log.length === 0} onPress={takeBack}>
                Take back
              </PlainButton>
            </Actions>
            {isIn && open && (
              <PlainButton onPress={() => tap(open.hole, 'backed out')}>Hole {open.hole} goes hard: backed out</PlainButton>
            )}
          </div>
          <aside>
            <h3>
              One bolt in section<span>{next ? `after ${next.to}` : 'now'}</span>
            </h3>
            <BoltInSection state={next?.to ?? (isIn ? 'head seated' : 'tapped out')} />
            <p>
              {isIn ? 'Heads seated' : 'Bolts out'} <b>{result.seated}</b> of {result.holes.length}, rings on{' '}
              <b>{result.rings_on}</b>.
            </p>
          </aside>
        </Two>
      )}
      <Zone hidden={!isIn}>
        <Choices>
          <Choice label="Heads are" options={HEADS} value={HEAD.of(draft)} onChange={(h) => change(HEAD.put(draft, h))} />
          {HEAD.of(draft) === 'alternating' && (
            <Choice
              label="Head of hole 1 on the flange of the"
              options={FLANGES}
              value={FIRST.of(draft)}
              onChange={(flange) => change(FIRST.put(draft, flange))}
            />
          )}
        </Choices>
      </Zone>
    </>
  )
}

function say(result: Result) {
  const plain = plainSay(result)
  const isIn = areDrawnIn(result.states)
  if (result.next === null) {
    return isIn
      ? { ...plain, title: 'Every head is seated.', note: 'Now the torque, in its passes.' }
      : { ...plain, title: 'Every bolt is out.', note: 'Every ring in its box.' }
  }
  return {
    ...plain,
    title: `Hole ${result.next.hole}: ${DO[result.next.to]}.`,
    note: `${result.seated} of ${result.holes.length} ${isIn ? 'heads seated' : 'bolts out'}.`,
  }
}

export const fittedBench: BenchClient<'fitted'> = {
  name: 'fitted',
  title: 'Close-fit bolts',
  answers: 'Each bolt drawn in through its states, hole by hole, none jumped',
  ...byTable<'fitted'>(FIELDS),
  say,
  Drawing: FittedDrawing,
  keys: [
    ['Space', 'done, next hole'],
    ['U', 'take back'],
  ],
}

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(220px, 300px);
  border-bottom: 1.25px solid var(--line);
  > div { padding: 10px 16px; }
  > aside { border-left: 1.25px solid var(--line); padding: 10px 14px; }
  h3 { font-size: var(--fs-body); font-weight: 600; }
  h3 span { display: block; font-weight: 400; font-size: var(--fs-small); color: var(--ink-2); }
  aside p { font-size: var(--fs-text); margin-top: 8px; }
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); > aside { border-left: 0; } }
`
const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 28px;
  align-items: end;
`
