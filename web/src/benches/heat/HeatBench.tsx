import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { showTime } from '../../units/length'
import type { BenchClient, BenchProps } from '../bench'
import { type Draft, type DraftFiller, DraftReader, oneOf, type Part } from '../draft'
import { FieldCell, LabelledCell, Zone } from '../parts'
import { byTable, type CellField, cell, chosen, type Given, group, type ResultOf, type Table } from '../table'
import { CoolingCurve } from './CoolingCurve'
import { HubSection } from './HubSection'
import { MeetingCurve, seconds } from './MeetingCurve'

type Result = ResultOf<'heat'>
type Heater = NonNullable<Given<'heat'>['heater']>

const MATERIALS = ['steel', 'cast iron', 'stainless steel', 'aluminium', 'bronze'] as const
const MATERIAL = oneOf('material', MATERIALS, 'steel')
const HEATERS = ['oven', 'induction', 'other'] as const
const HEATER = oneOf('heater', HEATERS, 'other')
const MOST_READINGS = 12

const temperature = { kind: 'temperature', unit: '°C' } as const
const time = { kind: 'time', unit: 'm:s', part: 'aside', optional: true, stays: true } as const
const heat = cell<'heat'>

const OUTSIDE = heat({ cell: 'outside', label: 'Hub outside', stays: true, hint: (hints) => hints.outside_mm })
const LENGTH = heat({ cell: 'length', label: 'Hub length', stays: true, hint: (hints) => hints.length_mm })
/** What has to be there. */
const FIT = {
  bore_mm: heat({ cell: 'bore', label: 'Bore, cold', stays: true, places: 3, hint: (hints) => hints.bore_mm }),
  interference_mm: heat({
    cell: 'interference',
    label: 'Interference, largest',
    stays: true,
    places: 3,
    hint: (hints) => hints.interference_mm,
  }),
  assembly_clearance_mm: heat({
    cell: 'clearance',
    label: 'Sliding clearance when hot',
    stays: true,
    places: 3,
    hint: (hints) => hints.assembly_clearance_mm,
  }),
}
const TEMPERATURES = {
  shaft_c: heat({ cell: 'shaft_c', label: 'Shaft temperature', ...temperature }),
  ambient_c: heat({ cell: 'ambient_c', label: 'Air temperature', ...temperature }),
  ceiling_c: heat({ cell: 'ceiling_c', label: 'Max. hub temperature', stays: true, ...temperature }),
}
/** What has a usual figure, or need not be. */
const ALSO = {
  // After a try that missed it is another temperature: the old one is not put there again.
  heat_to_c: heat({
    cell: 'heat_to',
    label: 'Heat it to',
    detail: 'empty: the least that opens it',
    part: 'aside',
    optional: true,
    hint: (hints) => hints.heat_to_c,
    ...temperature,
  }),
  carry_s: heat({ cell: 'carry', label: 'Carry, heater to shaft', detail: '1:00 if empty', ...time }),
  slide_s: heat({ cell: 'slide', label: 'Time needed to push it on', detail: '0:10 if empty', ...time }),
  soak_s: heat({ cell: 'soak', label: 'Soak at its temperature', detail: 'none if empty', ...time }),
  elastomer_ceiling_c: heat({
    cell: 'elastomer',
    label: 'Max. temperature of an element left inside',
    part: 'aside',
    optional: true,
    stays: true,
    ...temperature,
  }),
  film_w_m2_k: heat({
    cell: 'film',
    label: 'Heat loss to the air',
    kind: 'number',
    unit: 'W/m²K',
    detail: '20 if empty',
    part: 'aside',
    optional: true,
    stays: true,
  }),
}
const OVEN = heat({ cell: 'air_c', label: 'Oven set to', part: 'set-up', optional: true, ...temperature })
const POWER = heat({ cell: 'power', label: 'Power', kind: 'number', unit: 'kW', part: 'set-up', optional: true })

const FIELDS = {
  ...FIT,
  hub: group<Schemas['HeatedHub'], 'heat'>({ outside_mm: OUTSIDE, length_mm: LENGTH, material: chosen(MATERIAL) }),
  ...TEMPERATURES,
  ...ALSO,
  heater: { read: readHeater, restore: restoreHeater },
  readings: { read: readReadings, restore: restoreReadings },
} satisfies Table<Given<'heat'>, 'heat'>

/** Without what the value card gives. */
function cellsOf(fields: Record<string, CellField<'heat'>>, preset: Given<'heat'>) {
  return Object.entries(fields).flatMap(([key, of]) => (key in preset ? [] : [of]))
}

function readHeater(reader: DraftReader, path: string): Heater | undefined {
  const kind = HEATER.of(reader.draft)
  const air = kind === 'oven' ? reader.temperature(OVEN.cell, `${path}.air_c`) : null
  const power = kind === 'induction' ? reader.number(POWER.cell, `${path}.power_kw`) : null
  if (air !== null) return { kind: 'oven', air_c: air }
  return power === null ? undefined : { kind: 'induction', power_kw: power }
}

function restoreHeater(filler: DraftFiller, path: string) {
  filler.choice(HEATER.key, filler.at(`${path}.kind`))
  filler.cell(OVEN.cell, `${path}.air_c`)
  filler.cell(POWER.cell, `${path}.power_kw`)
}

function readReadings(reader: DraftReader, path = 'readings') {
  const readings: { after_s: number; hub_c: number }[] = []
  for (let i = 0; i < MOST_READINGS; i++) {
    const after = reader.time(`t${i}`, `${path}.${readings.length}.after_s`)
    const hub = reader.temperature(`c${i}`, `${path}.${readings.length}.hub_c`)
    if (after !== null && hub !== null) readings.push({ after_s: after, hub_c: hub })
  }
  return readings
}

function restoreReadings(filler: DraftFiller, path: string, part: Part) {
  if (part !== 'all') return
  for (const i of (filler.at<unknown[]>(path) ?? []).keys()) {
    filler.cell(`t${i}`, `${path}.${i}.after_s`, showTime)
    filler.cell(`c${i}`, `${path}.${i}.hub_c`)
  }
}

/** A target that leaves time to push it to the stop, where what is chosen does not. */
function proposed(result: Result | null): number | null {
  const least = result?.slide_target_c ?? null
  return result && least !== null && least > result.heat_to_c + 0.5 ? Math.ceil(least) : null
}

const withCell = (draft: Draft, cell: string, value: number): Draft => ({
  ...draft,
  cells: { ...draft.cells, [cell]: { text: String(value), unit: 'mm' } },
})

/** The hub in section with what it has to grow, and how it cools on the way to the shaft. */
function HeatDrawing({ draft, change, preset, problems, result }: BenchProps<'heat'>) {
  const common = { draft, change, problems, width: 92 }
  const filled = [...Array(MOST_READINGS).keys()].filter((i) => draft.cells[`t${i}`]?.text || draft.cells[`c${i}`]?.text)
  const proposal = proposed(result)
  const shown = Math.min(MOST_READINGS, Math.max(2, (filled[filled.length - 1] ?? -1) + 2))
  return (
    <>
      <Zone>
        <h3>
          Section<span>through hub and shaft, gap drawn wider than it is</span>
        </h3>
        <HubSection result={result} />
        <Cells>
          {[...cellsOf(FIT, preset), OUTSIDE, LENGTH, ...cellsOf(TEMPERATURES, preset), ...Object.values(ALSO)].map((of) => (
            <FieldCell key={of.cell} of={of} {...common} />
          ))}
        </Cells>
        {proposal !== null && (
          <PlainButton onPress={() => change(withCell(draft, 'heat_to', proposal))}>Heat it to {proposal} °C</PlainButton>
        )}
        <Choices>
          <Choice
            label="Hub material"
            options={MATERIALS}
            value={MATERIAL.of(draft)}
            onChange={(m) => change(MATERIAL.put(draft, m))}
          />
          <Choice
            label="Heated by"
            options={HEATERS}
            value={HEATER.of(draft)}
            onChange={(h) => change(HEATER.put(draft, h))}
          />
          {HEATER.of(draft) === 'oven' && <FieldCell of={OVEN} {...common} />}
          {HEATER.of(draft) === 'induction' && <FieldCell of={POWER} {...common} />}
        </Choices>
      </Zone>
      <Zone>
        <h3>
          Cooling<span>in still air, from the moment it leaves the heater</span>
        </h3>
        <CoolingCurve result={result} readings={readReadings(new DraftReader(draft))} />
        {result && result.meeting.length > 1 && (
          <>
            <h3>
              On the shaft<span>from touching it, hub and shaft temperature</span>
            </h3>
            <MeetingCurve result={result} />
          </>
        )}
        <Readings>
          <span>Read on the way: time, hub</span>
          {[...Array(shown).keys()].map((i) => (
            <div key={i}>
              <LabelledCell cell={`t${i}`} label={`${i + 1}`} kind="time" unit="m:s" part="aside" {...common} width={72} />
              <LabelledCell cell={`c${i}`} label="" kind="temperature" unit="°C" part="aside" {...common} width={72} />
            </div>
          ))}
        </Readings>
      </Zone>
    </>
  )
}

function say(result: Result) {
  const target = Math.round(result.heat_to_c)
  const window = result.window_fitted_s ?? result.window_s
  const read = result.checks.find((check) => check.code === 'was_too_hot')
  if (read)
    return {
      title: 'Read over its ceiling.',
      note: `${Math.round(read.value!)} °C; the ceiling is ${Math.round(result.ceiling_lowest_c)} °C. Do not fit it before the maker has said that it may be used.`,
      moves: [],
    }
  if (!result.within_ceiling)
    return {
      title: 'Too hot for this hub.',
      note: `It would need ${target} °C; the ceiling is ${Math.round(result.ceiling_lowest_c)} °C.`,
      moves: result.shaft_target_c === null ? [] : [`Cool the shaft to ${Math.round(result.shaft_target_c)} °C instead`],
    }
  const { least, most } = result.grips_s
  const grips = least === null || most === null ? '' : ` On the shaft it grips within ${seconds(least, most)}.`
  const open = window === null ? 'In this air the bore does not close.' : `Open for ${showTime(window)} in still air.`
  return {
    title: `Heat the hub to ${Math.round(result.heat_to_c)} °C.`,
    note: `${open}${grips}`,
    moves: [
      ...(result.heating_s === null ? [] : [`Heating takes about ${showTime(result.heating_s)}, then soak`]),
      ...(result.carry_most_s
        ? [`Carry it for ${showTime(result.carry_most_s)} at most, to have time to push it to the stop`]
        : []),
      ...(result.cool_to_touch_s === null ? [] : [`Too hot to touch for ${showTime(result.cool_to_touch_s)} or longer`]),
    ],
  }
}

export const heatBench: BenchClient<'heat'> = {
  name: 'heat',
  title: 'Heat',
  answers: 'How hot, how long it stays open, what a reading on the way says',
  ...byTable<'heat'>(FIELDS),
  say,
  Drawing: HeatDrawing,
  keys: [['Enter', 'next figure']],
}

const Cells = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 8px 24px;
  margin-top: 8px;
`
const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: end;
  margin-top: 10px;
`
const Readings = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  margin-top: 8px;
  > div { display: flex; gap: 8px; }
  > span { font-weight: 500; }
`
