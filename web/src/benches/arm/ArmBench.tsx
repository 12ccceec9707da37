import { SketchView } from '../../drawing/SketchView'
import type { LengthUnit } from '../../units/length'
import { sayFigure } from '../../units/say'
import { type BenchClient, type BenchProps, plainSay } from '../bench'
import { FieldCell, Row, Zone } from '../parts'
import { byTable, cell, type Given, type ResultOf, type Table, when } from '../table'

type Result = ResultOf<'torque_arm'>

const POWER = cell<'torque_arm'>({
  cell: 'power',
  label: 'Power through the unit',
  kind: 'number',
  unit: 'kW',
  part: 'set-up',
  optional: true,
})
const TORQUE = cell<'torque_arm'>({
  cell: 'torque',
  label: 'or output torque',
  kind: 'torque',
  unit: 'N·m',
  part: 'set-up',
  optional: true,
})
/** Without power in the register it is typed, or the torque is. */
const asksPower = (_: unknown, preset: Given<'torque_arm'>) => preset.power_kw === undefined

const FIELDS = {
  power_kw: when(asksPower, {
    ...POWER,
    read: (reader, path, preset) => {
      const power = POWER.read(reader, path, preset)
      if (power === undefined && !reader.draft.cells.torque?.text.trim())
        reader.lack('Enter the power through the unit, or its output torque.')
      return power
    },
  }),
  torque_nm: when(asksPower, TORQUE),
  output_rpm: cell({ cell: 'rpm', label: 'Output speed', kind: 'number', unit: 'rpm', part: 'set-up', optional: true }),
  arm_mm: cell({ cell: 'arm', label: 'Arm, shaft to pin', part: 'set-up', lacking: 'Measure the arm, shaft to pin.' }),
  angle_deg: cell({
    cell: 'angle',
    label: 'Angle between arm and rod',
    detail: '90 is square',
    kind: 'number',
    unit: '°',
    lacking: 'Measure the angle between arm and rod.',
  }),
} satisfies Table<Given<'torque_arm'>, 'torque_arm'>

/** The arm to its pin, the rod to the anchor, and the force along it. */
function ArmDrawing(props: BenchProps<'torque_arm'>) {
  const { result, preset } = props
  return (
    <>
      <Zone>
        <h3>
          Arm and anchor<span>angle as measured, lengths not to scale</span>
        </h3>
        {result ? (
          <SketchView sketch={result.drawn} />
        ) : (
          <p>Arm and angle first: then the force on the anchor is drawn here.</p>
        )}
      </Zone>
      <Zone>
        <Row>
          <FieldCell of={FIELDS.arm_mm} {...props} />
          <FieldCell of={FIELDS.angle_deg} {...props} />
        </Row>
        <br />
        <Row>
          {asksPower(null, preset) ? (
            <>
              <FieldCell of={POWER} {...props} />
              {preset.output_rpm === undefined && <FieldCell of={FIELDS.output_rpm} {...props} />}
              <FieldCell of={TORQUE} {...props} />
            </>
          ) : (
            <p>
              {preset.power_kw} kW at {preset.output_rpm} rpm, from this line.
            </p>
          )}
        </Row>
      </Zone>
    </>
  )
}

const TITLES: Partial<Record<Result['verdict'], string>> = {
  inside: 'Near enough to square.',
  close: 'Near the limit from square.',
  over: 'Too far from square: turn the unit, or move the anchor.',
}

function say(result: Result, unit: LengthUnit) {
  const force = sayFigure({ value: result.force_n, unit: 'N', places: 0, signed: false, bare: false }, unit)
  return { ...plainSay(result), title: TITLES[result.verdict] ?? 'Calculated.', note: `${force} on the anchor.` }
}

export const armBench: BenchClient<'torque_arm'> = {
  name: 'torque_arm',
  title: 'Torque arm',
  answers: 'How square the arm is, and the force on its anchor',
  ...byTable<'torque_arm'>(FIELDS),
  say,
  Drawing: ArmDrawing,
  quickLimits: [{ cell: 'limit', label: 'Off square, at most (30 if empty)', kind: 'number', unit: '°' }],
  quickPreset: ({ limit }) => (limit === undefined ? {} : { limit_angle_deg: limit }),
}
