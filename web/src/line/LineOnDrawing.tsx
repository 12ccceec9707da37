import styled from 'styled-components'
import { EntryCell } from '../kit/EntryCell'
import { useUnit } from '../units/preferences'
import { LineDrawing } from './LineDrawing'
import { type LineSpec, SIDES, type Side } from './lineDraft'
import { AXIS, layoutOf, levelOf, WIDTH } from './lineLayout'
import { footLabel, footPlaces, HubFields, MachineName, type MachineProps, MachineType } from './MachineFields'

/** A line typed on its drawing: names on the machines, distances on their dimension lines, shaft and hub above the hubs. */
export function LineOnDrawing({ spec, of }: { spec: LineSpec; of: (side: Side) => MachineProps }) {
  const unit = useUnit()
  const layout = layoutOf(spec)
  const { draft, change, problems } = of('driver')
  const left = (x: number) => `${(x / WIDTH) * 100}%`
  const most = Math.max(...SIDES.map((side) => footPlaces(draft, side).length))
  return (
    <>
      <Hubs>
        {SIDES.map((side) => (
          <div key={side} data-side={side}>
            {side === 'driver' && <MachineType {...of(side)} />}
            <div>
              <HubFields {...of(side)} />
            </div>
            {side === 'driven' && <MachineType {...of(side)} />}
          </div>
        ))}
      </Hubs>
      <Over>
        <LineDrawing spec={spec} levels={most} />
        {SIDES.map((side) => {
          const { way, end, near } = layout[side]
          return (
            <div key={side}>
              <OnIt style={{ left: `clamp(75px, ${left((end + near) / 2)}, calc(100% - 75px))`, top: AXIS, width: 150 }}>
                <MachineName {...of(side)} onDrawing />
              </OnIt>
              {footPlaces(draft, side).map((i) => {
                const known = spec[side].feet[i]?.from_coupling_mm
                const to =
                  known === undefined ? layout.centre + way * (120 + 130 * i) : layout.centre + way * known * layout.scale
                const middle = (layout.centre + to) / 2
                const clear = Math.abs(middle - layout.centre) < 56 ? layout.centre + way * 56 : middle
                return (
                  <OnIt key={i} style={{ left: left(clear), top: levelOf(i) }}>
                    <EntryCell
                      label={`${footLabel(i)}, ${unit}`}
                      typed={draft.cells[`${side}.foot${i}`]}
                      onType={(typed) => change({ ...draft, cells: { ...draft.cells, [`${side}.foot${i}`]: typed } })}
                      problem={problems[`${side}.foot${i}`]}
                    />
                    {known === undefined && <small data-way={way}>{footLabel(i).toLowerCase()}</small>}
                  </OnIt>
                )
              })}
            </div>
          )
        })}
      </Over>
    </>
  )
}

const Hubs = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 32px;
  max-width: 1000px;
  margin: 0 auto;
  > div { display: grid; grid-template-columns: 1fr 260px; gap: 16px; align-items: end; }
  > [data-side='driven'] { grid-template-columns: 260px 1fr; }
  > div > div { display: flex; flex-direction: column; gap: 6px; }
`
const Over = styled.div`
  position: relative;
  max-width: 1000px;
  margin: 8px auto 0;
`
const OnIt = styled.div`
  position: absolute;
  transform: translate(-50%, -50%);
  input { text-align: center; }
  small { position: absolute; top: 50%; transform: translateY(-50%); white-space: nowrap; color: var(--ink-2); font-size: var(--fs-small); }
  small[data-way='1'] { left: calc(100% + 8px); }
  small[data-way='-1'] { right: calc(100% + 8px); }
`
