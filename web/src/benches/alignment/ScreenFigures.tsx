import styled from 'styled-components'
import type { CellsProps } from '../bench'
import { LabelledCell } from '../parts'

const SLOPE = 'mm/m = thou/in' // one and the same number

/** Offset and slope as another instrument shows them, in both views. */
export function ScreenFigures(common: CellsProps) {
  return (
    <Figures>
      <div>
        <h4>Side view</h4>
        <LabelledCell cell="shown.ov" label="Movable shaft is high by" detail="minus: low" {...common} />
        <LabelledCell
          cell="shown.sv"
          kind="slope"
          unit={SLOPE}
          label="and rises away from the coupling by"
          detail="plus: the coupling opens at the bottom"
          {...common}
        />
      </div>
      <div>
        <h4>Plan</h4>
        <LabelledCell cell="shown.oh" label="Movable shaft is toward 3 by" detail="minus: toward 9" {...common} />
        <LabelledCell
          cell="shown.sh"
          kind="slope"
          unit={SLOPE}
          label="and runs toward 3 away from it by"
          detail="plus: the coupling opens at 9"
          {...common}
        />
      </div>
      <div>
        <LabelledCell
          cell="shown.x"
          label="Its offset holds at"
          detail="from the coupling’s middle, plus toward the movable machine; 0 if it says nothing"
          part="aside"
          {...common}
        />
      </div>
    </Figures>
  )
}

const Figures = styled.div`
  flex: 1 1 460px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  align-content: start;
  gap: 10px 28px;
  > div { display: flex; flex-direction: column; gap: 6px; }
  h4 { font-weight: 600; }
`
