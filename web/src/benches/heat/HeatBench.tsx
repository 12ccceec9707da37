import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { showTime } from '../../units/length'
import type { BenchClient, BenchProps, Preset } from '../bench'
import { asRead, type Draft, DraftFiller, DraftReader, type Entered, type Part, suggested } from '../draft'
import { LabelledCell, Zone } from '../parts'
import { CoolingCurve } from './CoolingCurve'
import { HubSection } from './HubSection'
import { MeetingCurve, seconds } from './MeetingCurve'

type Result = Schemas['HeatResult']

const MATERIALS = ['steel', 'cast iron', 'stainless steel', 'aluminium', 'bronze'] as const
const HEATERS = ['oven', 'induction', 'other'] as const
const MOST_READINGS = 12

/** What has to be there: cell, path into the input, label, how it is read. */
const WANTED = [
  ['bore', 'bore_mm', 'Bore, cold', 'length'],
  ['interference', 'interference_mm', 'Interference, largest', 'length'],
  ['clearance', 'assembly_clearance_mm', 'Sliding clearance when hot', 'length'],
  ['outside', 'hub.outside_mm', 'Hub outside', 'length'],
  ['length', 'hub.length_mm', 'Hub length', 'length'],
  ['shaft_c', 'shaft_c', 'Shaft temperature', 'temperature'],
  ['ambient_c', 'ambient_c', 'Air temperature', 'temperature'],
] as const

/** What has a usual figure, or need not be: cell, path, label, kind, unit, what stands under the label. */
const ALSO = [
  ['heat_to', 'heat_to_c', 'Heat it to', 'temperature', '°C', 'empty: the least that opens it'],
  ['carry', 'carry_s', 'Carry, heater to shaft', 'time', 'm:s', '1:00 if empty'],
  ['slide', 'slide_s', 'Time needed to push it home', 'time', 'm:s', '0:10 if empty'],
  ['soak', 'soak_s', 'Soak at its temperature', 'time', 'm:s', 'none if empty'],
  ['elastomer', 'elastomer_ceiling_c', 'Max. temperature of an element left inside', 'temperature', '°C', ''],
  ['film', 'film_w_m2_k', 'Heat loss to the air', 'number', 'W/m²K', '20 if empty'],
] as const

/** Without what the value card gives. */
const wanted = (preset: Preset) => WANTED.filter(([, path]) => !(path in preset))

const heaterOf = (draft: Draft) => (draft.choices.heater as (typeof HEATERS)[number] | undefined) ?? 'other'
const materialOf = (draft: Draft) => (draft.choices.material as string | undefined) ?? 'steel'

function start(_: Preset, suggest: Preset): Draft {
  const cells: Draft['cells'] = {}
  for (const [cell, path] of [...WANTED, ...ALSO]) {
    const value = path.split('.').reduce<unknown>((at, key) => (at as Preset | undefined)?.[key], suggest)
    const typed = suggested(value as number | undefined)
    if (typed) cells[cell] = typed
  }
  return { cells, choices: {} }
}

function read(draft: Draft, preset: Preset) {
  const reader = new DraftReader(draft)
  const input: Record<string, unknown> = {}
  const hub: Record<string, unknown> = { material: materialOf(draft) }
  let missing = ''
  for (const [cell, path, label, kind] of wanted(preset)) {
    const value = reader[kind](cell, path)
    if (value === null) missing ||= label
    else if (path.startsWith('hub.')) hub[path.slice(4)] = value
    else input[path] = value
  }
  const ceiling = 'ceiling_c' in preset ? undefined : reader.temperature('ceiling_c', 'ceiling_c')
  if (ceiling === null) missing ||= 'max. hub temperature'
  for (const [cell, path, , kind] of ALSO) {
    const value = reader[kind](cell, path)
    if (value !== null) input[path] = value
  }
  const heater = readHeater(draft, reader)
  return reader.done(
    missing
      ? null
      : {
          ...input,
          hub,
          ...(ceiling !== undefined && { ceiling_c: ceiling }),
          ...(heater && { heater }),
          readings: readReadings(reader),
        },
    missing && `Still to fill in: ${missing.toLowerCase()}.`,
  )
}

function readHeater(draft: Draft, reader: DraftReader) {
  const air = reader.temperature('air_c', 'heater.air_c')
  const power = reader.number('power', 'heater.power_kw')
  switch (heaterOf(draft)) {
    case 'oven':
      return air === null ? null : { kind: 'oven', air_c: air }
    case 'induction':
      return power === null ? null : { kind: 'induction', power_kw: power }
    case 'other':
      return null
  }
}

function readReadings(reader: DraftReader) {
  const readings: { after_s: number; hub_c: number }[] = []
  for (let i = 0; i < MOST_READINGS; i++) {
    const after = reader.time(`t${i}`, `readings.${readings.length}.after_s`)
    const hub = reader.temperature(`c${i}`, `readings.${readings.length}.hub_c`)
    if (after !== null && hub !== null) readings.push({ after_s: after, hub_c: hub })
  }
  return readings
}

function restore(entered: Entered, part: Part) {
  const filler = new DraftFiller(entered)
  for (const [cell, path, , kind] of WANTED) {
    if (kind === 'length') filler.cell(cell, path, path.startsWith('hub.') ? String : (mm) => asRead(mm, 3))
    else if (part === 'all') filler.cell(cell, path)
  }
  filler.cell('ceiling_c', 'ceiling_c')
  for (const [cell, path, , kind] of ALSO) {
    // After a try that missed it is another temperature: the old one is not put there again.
    if (cell !== 'heat_to' || part === 'all') filler.cell(cell, path, kind === 'time' ? showTime : String)
  }
  filler.choice('material', filler.at('hub.material'))
  filler.choice('heater', filler.at('heater.kind'))
  filler.cell('air_c', 'heater.air_c')
  filler.cell('power', 'heater.power_kw')
  if (part === 'all')
    for (const i of (filler.at<unknown[]>('readings') ?? []).keys()) {
      filler.cell(`t${i}`, `readings.${i}.after_s`, showTime)
      filler.cell(`c${i}`, `readings.${i}.hub_c`)
    }
  return filler.draft
}

/** A target that leaves time to push it home, where what is chosen does not. */
function proposed(result: Result | null): number | null {
  const least = result?.slide_target_c ?? null
  return result && least !== null && least > result.heat_to_c + 0.5 ? Math.ceil(least) : null
}

const withCell = (draft: Draft, cell: string, value: number): Draft => ({
  ...draft,
  cells: { ...draft.cells, [cell]: { text: String(value), unit: 'mm' } },
})

/** The hub in section with what it has to grow, and how it cools on the way to the shaft. */
function HeatDrawing({ draft, change, preset, problems, result }: BenchProps<Result>) {
  const common = { draft, change, problems, width: 92 }
  const choose = (key: string, value: string) => change({ ...draft, choices: { ...draft.choices, [key]: value } })
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
          {wanted(preset).map(([cell, , label, kind]) => (
            <LabelledCell
              key={cell}
              cell={cell}
              label={label}
              kind={kind}
              unit={kind === 'temperature' ? '°C' : undefined}
              {...common}
            />
          ))}
          {!('ceiling_c' in preset) && (
            <LabelledCell cell="ceiling_c" label="Max. hub temperature" kind="temperature" unit="°C" {...common} />
          )}
          {ALSO.map(([cell, , label, kind, unit, detail]) => (
            <LabelledCell
              key={cell}
              cell={cell}
              label={label}
              kind={kind}
              unit={unit}
              part="aside"
              detail={detail}
              {...common}
            />
          ))}
        </Cells>
        {proposal !== null && (
          <PlainButton onPress={() => change(withCell(draft, 'heat_to', proposal))}>Heat it to {proposal} °C</PlainButton>
        )}
        <Choices>
          <Choice
            label="Hub material"
            options={MATERIALS}
            value={materialOf(draft) as 'steel'}
            onChange={(m) => choose('material', m)}
          />
          <Choice label="Heated by" options={HEATERS} value={heaterOf(draft)} onChange={(h) => choose('heater', h)} />
          {heaterOf(draft) === 'oven' && (
            <LabelledCell cell="air_c" label="Oven set to" kind="temperature" unit="°C" part="set-up" {...common} />
          )}
          {heaterOf(draft) === 'induction' && (
            <LabelledCell cell="power" label="Power" kind="number" unit="kW" part="set-up" {...common} />
          )}
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
      ...(result.carry_most_s ? [`Carry it for ${showTime(result.carry_most_s)} at most, to have time to push it home`] : []),
      ...(result.cool_to_touch_s === null ? [] : [`Too hot to touch for ${showTime(result.cool_to_touch_s)} or longer`]),
    ],
  }
}

export const heatBench: BenchClient<Result> = {
  name: 'heat',
  title: 'Heat',
  answers: 'How hot, how long it stays open, what a reading on the way says',
  start,
  read,
  restore,
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
