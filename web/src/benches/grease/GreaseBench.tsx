import { useState } from 'react'
import { sayClock } from '../../drawing/clock'
import { MainButton, PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { Words } from '../../kit/Field'
import { Tick } from '../../kit/Tick'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { oneOf, slot } from '../draft'
import { Actions, FieldCell, Row, Zone } from '../parts'
import { byTable, cell, chosen, type Field, type Given, type ResultOf, type Table } from '../table'
import { FillMap } from './FillMap'

type Result = ResultOf<'grease'>
type Done = NonNullable<Given<'grease'>['log']>[number]

const ROUTINES = ['low in, high out', 'hole by hole', 'packed by hand'] as const
const ROUTINE = oneOf('routine', ROUTINES, 'low in, high out')
const COUNTS = ['2', '3', '4', '6', '8'] as const
const even = (count: number) => [...Array(count).keys()].map((i) => (i * 360) / count)
const HOLES = slot<readonly number[]>('holes', even(2))
const TURNED = slot('turned', 0)
const LOG = slot<readonly Done[]>('log', [])
const PACKED = slot('packed', false)
const PRODUCT = slot('product', '')
const BATCH = slot('batch', '')
const STEP_DEG = 15

const GRAMS = cell<'grease'>({ cell: 'grams', label: 'Went in', kind: 'number', unit: 'g', part: 'aside', optional: true })

const FIELDS = {
  holes: {
    read: (reader) => [...HOLES.of(reader.draft)],
    restore: (filler, path) => filler.choice(HOLES.key, filler.at(path)),
    start: (hints) => ({ choices: hints.holes ? { [HOLES.key]: hints.holes } : {} }),
  } satisfies Field<number[], 'grease'>,
  turned_deg: chosen(TURNED),
  routine: chosen(ROUTINE),
  log: {
    read: (reader) => [...LOG.of(reader.draft)],
    restore: (filler, path, part) => {
      if (part === 'all') filler.choice(LOG.key, filler.at(path))
    },
  } satisfies Field<Done[], 'grease'>,
  packed: chosen(PACKED, false),
  product: chosen(PRODUCT),
  batch: chosen(BATCH),
  grams: GRAMS,
} satisfies Table<Given<'grease'>, 'grease'>

/** What was done at a hole, on its button. */
const DID: Record<Done['what'], string> = {
  'plug out': 'plug out',
  'filled here': 'filled through it',
  showed: 'it showed',
  'plug in': 'plug in',
}

/** The coupling along its shaft, turned as it stands, every hole with what was done at it. */
function GreaseDrawing(props: BenchProps<'grease'>) {
  const { draft, change, preset, result } = props
  const [at, setAt] = useState<number | null>(null)
  const log = LOG.of(draft)
  const isReady = result !== null && result.done === log.length
  const did = (hole: number, what: Done['what']) => {
    if (!isReady) return
    change(LOG.put(draft, [...log, { hole, what }]))
    setAt(null)
  }
  const turn = (by: number) => change(TURNED.put(draft, (TURNED.of(draft) + by) % 360))
  const routine = preset.routine ?? ROUTINE.of(draft)
  const next = result?.next ?? null
  const chosenHole = result?.holes.find((hole) => hole.hole === at) ?? null
  return (
    <>
      <Zone>
        <Row>
          {preset.routine ? (
            <p>By the value card: {preset.routine}.</p>
          ) : (
            <Choice label="Filled" options={ROUTINES} value={routine} onChange={(how) => change(ROUTINE.put(draft, how))} />
          )}
          {routine !== 'packed by hand' && (
            <Choice
              label="Holes"
              options={COUNTS}
              value={COUNTS.find((count) => Number(count) === HOLES.of(draft).length) ?? null}
              onChange={(count) => change(LOG.put(HOLES.put(draft, even(Number(count))), []))}
            />
          )}
        </Row>
      </Zone>
      {routine === 'packed by hand' ? (
        <Zone>
          <Tick
            label="Worked in with a soft blade until level, nothing left hollow"
            value={PACKED.of(draft)}
            onChange={(packed) => change(PACKED.put(draft, packed))}
          />
        </Zone>
      ) : (
        result && (
          <Zone>
            <FillMap holes={result.holes} next={next?.hole ?? null} onTap={setAt} />
            <Actions>
              <MainButton isDisabled={!next || !isReady} onPress={() => next && did(next.hole, next.what)}>
                {next ? `Hole ${next.hole}: ${DID[next.what]}` : 'It showed everywhere, plugs in'}
              </MainButton>
              <PlainButton isDisabled={log.length === 0} onPress={() => change(LOG.put(draft, log.slice(0, -1)))}>
                Take back
              </PlainButton>
              <PlainButton aria-label="Turn the coupling anticlockwise" onPress={() => turn(-STEP_DEG)}>
                ↺ turn
              </PlainButton>
              <PlainButton aria-label="Turn the coupling clockwise" onPress={() => turn(STEP_DEG)}>
                turn ↻
              </PlainButton>
            </Actions>
            {chosenHole && (
              <Actions>
                <b>
                  Hole {chosenHole.hole}, {sayClock(chosenHole.clock)}:
                </b>
                {chosenHole.may.map((what) => (
                  <PlainButton key={what} isDisabled={!isReady} onPress={() => did(chosenHole.hole, what)}>
                    {DID[what]}
                  </PlainButton>
                ))}
              </Actions>
            )}
          </Zone>
        )
      )}
      <Zone>
        <Row>
          <Words
            label="Grease"
            detail={preset.wanted_product && `value card: ${preset.wanted_product}`}
            value={PRODUCT.of(draft)}
            onChange={(product) => change(PRODUCT.put(draft, product))}
          />
          <Words label="Batch" value={BATCH.of(draft)} onChange={(batch) => change(BATCH.put(draft, batch))} />
          <FieldCell
            of={{
              ...GRAMS,
              detail: [
                preset.wanted_grams && `value card: ${preset.wanted_grams} g`,
                preset.packed_grams && `${preset.packed_grams} g packed before`,
              ]
                .filter(Boolean)
                .join(', '),
            }}
            {...props}
          />
        </Row>
      </Zone>
    </>
  )
}

function say(result: Result) {
  const plain = plainSay(result)
  const plugs = `${result.plugs_out} plugs out, ${result.plugs_in} in.`
  if (result.verdict === 'over') return { ...plain, title: 'Not as the card has it.', note: plugs }
  if (result.next) return { ...plain, title: `Hole ${result.next.hole}: ${DID[result.next.what]}.`, note: plugs }
  return result.verdict === 'incomplete' ? plain : { ...plain, title: 'Filled.', note: result.plugs_out ? plugs : '' }
}

export const greaseBench: BenchClient<'grease'> = {
  name: 'grease',
  title: 'Grease',
  answers: 'Filled from the low hole, shown at every other, plugs in, kind and amount',
  ...byTable<'grease'>(FIELDS),
  say,
  Drawing: GreaseDrawing,
}
