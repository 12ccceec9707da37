import type { Schemas } from '../../api/client'
import { SketchView } from '../../drawing/SketchView'
import { type LengthUnit, showLength } from '../../units/length'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { asRead, clocksOf, readClock } from '../draft'
import { FieldCell, Row, Zone } from '../parts'
import { RingReadings } from '../ringReadings'
import { byTable, cell, type Field, type Given, limit, type ResultOf, type Table } from '../table'

type Result = ResultOf<'airgap'>
type Station = Schemas['Station']
type Foot = { name: string; x_mm: number }

const SIDES = ['driver', 'load'] as const
const RINGS = {
  driver: { prefix: 'driver', placesKey: 'driver.clocks' },
  load: { prefix: 'load', placesKey: 'load.clocks' },
} as const
const SHOWN_FROM_MM = 0.005

const FEET = {
  near: cell<'airgap'>({ cell: 'near', label: 'Driver, near feet from the middle', part: 'set-up' }),
  far: cell<'airgap'>({ cell: 'far', label: 'Driver, far feet from the middle', part: 'set-up' }),
}

const FIELDS = {
  stations: {
    read: (reader, path) => {
      const found: Station[] = []
      for (const side of SIDES) {
        const { prefix, placesKey } = RINGS[side]
        const before = found.length
        for (const { clock, value_mm } of readClock(reader, clocksOf(reader.draft, placesKey), prefix, `${side}.${path}`)) {
          reader.length(`${prefix}${clock}`, `${path}.${found.length}.value_mm`)
          found.push({ side, clock, value_mm })
        }
        if (found.length === before) reader.lack(`Measure the air gap on the ${side} side.`)
      }
      if (found.length < 4) reader.lack('Four places together, or more, spread round both sides.')
      return found
    },
    restore: (filler, path, part) => {
      const stations = filler.at<Station[]>(path) ?? []
      for (const side of SIDES) {
        const mine = stations.map((station, i) => ({ ...station, i })).filter((station) => station.side === side)
        const { prefix, placesKey } = RINGS[side]
        filler.choice(placesKey, [...new Set([0, 90, 180, 270, ...mine.map((station) => station.clock)])])
        if (part === 'all') for (const { clock, i } of mine) filler.cell(`${prefix}${clock}`, `${path}.${i}.value_mm`, asRead)
      }
    },
  } satisfies Field<Station[], 'airgap'>,
  diameter_mm: cell({
    cell: 'diameter',
    label: 'Measured on diameter',
    part: 'set-up',
    lacking: 'On what diameter were the gaps measured?',
    hint: (hints) => hints.diameter_mm,
  }),
  spread_max_mm: limit('Enter the largest spread on a side.'),
  movable_feet: {
    read: (reader, path, preset) => {
      const at = (which: 'near' | 'far') => FEET[which].read(reader, `${path}.${which === 'near' ? 0 : 1}.x_mm`, preset)
      const [near, far] = [at('near'), at('far')]
      if (near === undefined || far === undefined) return undefined
      return [
        { name: 'near feet', x_mm: near },
        { name: 'far feet', x_mm: far },
      ]
    },
    restore: (filler, path) => {
      filler.cell('near', `${path}.0.x_mm`)
      filler.cell('far', `${path}.1.x_mm`)
    },
  } satisfies Field<Foot[], 'airgap'>,
} satisfies Table<Given<'airgap'>, 'airgap'>

/** Both gaps from the side and from above, drawn uneven by what was read; a ring of readings for each side. */
function AirGapDrawing(props: BenchProps<'airgap'>) {
  const { result, preset } = props
  return (
    <>
      <Zone>
        <h3>
          Rotor between its plates<span>rotor full on; side view from the 3 o’clock side</span>
        </h3>
        {result ? (
          <SketchView sketch={result.drawn} />
        ) : (
          <p>Both sides first, four places together or more: then the gaps are drawn here.</p>
        )}
      </Zone>
      <Zone>
        <Row>
          <RingReadings {...props} {...RINGS.driver} name="Driver side" note="plate to rotor" />
          <RingReadings {...props} {...RINGS.load} name="Load side" note="plate to rotor" />
          <div>
            <FieldCell of={FIELDS.diameter_mm} {...props} />
            <p style={{ maxWidth: 240, fontSize: 'var(--fs-small)' }}>Leave a place empty where no feeler reaches.</p>
            {preset.movable_feet === undefined && (
              <>
                <FieldCell of={FEET.near} {...props} />
                <br />
                <FieldCell of={FEET.far} {...props} />
              </>
            )}
          </div>
        </Row>
      </Zone>
    </>
  )
}

/** What each foot does, in words; nothing of what is too small to be done, or not known. */
function movesOf(result: Result, unit: LengthUnit) {
  const along = Math.abs(result.slide_axial_mm) >= SHOWN_FROM_MM && (
    <>
      Along the shaft: <b>{showLength(Math.abs(result.slide_axial_mm), unit)}</b> ±{' '}
      {showLength(result.slide_axial_plus_minus_mm, unit)} {unit} {result.slide_axial_mm > 0 ? 'away from' : 'toward'} the
      load
    </>
  )
  const feet = result.feet.flatMap((foot) => {
    const shim = foot.shim_known && Math.abs(foot.shim_mm) >= SHOWN_FROM_MM && (
      <>
        {foot.shim_mm > 0 ? 'add' : 'take out'} <b>{showLength(Math.abs(foot.shim_mm), unit)}</b> ±{' '}
        {showLength(foot.shim_plus_minus_mm, unit)} {unit}
      </>
    )
    const slide = foot.slide_known && Math.abs(foot.slide_mm) >= SHOWN_FROM_MM && (
      <>
        slide <b>{showLength(Math.abs(foot.slide_mm), unit)}</b> ± {showLength(foot.slide_plus_minus_mm, unit)} {unit} to{' '}
        {foot.slide_mm > 0 ? 3 : 9}
      </>
    )
    if (!shim && !slide) return []
    return [
      <>
        {foot.name[0]!.toUpperCase() + foot.name.slice(1)}: {shim}
        {shim && slide && ', '}
        {slide}
      </>,
    ]
  })
  return [...(along ? [along] : []), ...feet]
}

function say(result: Result, unit: LengthUnit, spec: Schemas['LineSpec'] | null) {
  const name = spec ? spec[spec.movable].name.toLowerCase() : 'driver'
  const over = result.verdict === 'over'
  const means = `${showLength(result.mean_driver_mm, unit)} ${unit} on the driver side, ${showLength(result.mean_load_mm, unit)} ${unit} on the load side.`
  return {
    ...plainSay(result),
    title: over
      ? `The gap is uneven: move the ${name}.`
      : result.verdict === 'close'
        ? 'Even, but near the limit.'
        : result.verdict === 'not judged'
          ? plainSay(result).title
          : 'Even on both sides.',
    note: means,
    moves: result.verdict === 'inside' ? [] : movesOf(result, unit),
  }
}

export const airGapBench: BenchClient<'airgap'> = {
  name: 'airgap',
  title: 'Air gap',
  answers: 'Air gaps of a magnetic drive, and the moves that even them',
  ...byTable<'airgap'>(FIELDS),
  say,
  Drawing: AirGapDrawing,
  quickLimits: [
    { cell: 'spread', label: 'Largest spread on a side', kind: 'length', unit: '' },
    { cell: 'differ', label: 'Two sides may differ', kind: 'length', unit: '' },
  ],
  quickPreset: ({ spread, differ }) => ({
    spread_max_mm: spread ?? null,
    ...(differ !== undefined && { differ_max_mm: differ }),
  }),
  keys: [['Enter', 'next reading, clockwise']],
}
