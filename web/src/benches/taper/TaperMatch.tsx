import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'
import { useHatch } from '../../drawing/Hatch'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'

type Result = Schemas['TaperResult']

const MOST = 22 // how wide the gap is drawn at most
const PER_MM = 900

/** The two cones laid on each other at the end that touches first; what is left open at the other is the mismatch. */
export function TaperMatch({ result }: { result: Result | null }) {
  const hatch = useHatch()
  const unit = useUnit()
  const mismatch = result?.mismatch_mm ?? 0
  const open = Math.min(MOST, Math.abs(mismatch / 2) * PER_MM)
  const [large, small] = mismatch > 0 ? [0, open] : [open, 0]
  return (
    <Drawing
      along
      paper={[0, 0, 740, 132]}
      says={
        result ? `Mismatch ${showLength(Math.abs(mismatch), unit, 3)} ${unit}, touches ${result.touches_first}` : 'Two cones'
      }
    >
      {hatch.defs}
      <path d="M110 66L560 82V128H110Z" fill={hatch.fixed} stroke="var(--ink)" strokeWidth="2" />
      <path d={`M110 ${66 - large}L560 ${82 - small}V22H110Z`} fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
      <text x="98" y="50" textAnchor="end" fontSize="var(--fs-small)">
        large end
      </text>
      <text x="572" y="50" fontSize="var(--fs-small)">
        small end
      </text>
      <text x="335" y="48" textAnchor="middle" fontWeight="600" className="halo">
        hub
      </text>
      <text x="335" y="112" textAnchor="middle" fontWeight="600" className="halo">
        shaft
      </text>
      {result && (
        <text x={mismatch > 0 ? 572 : 98} y="84" textAnchor={mismatch > 0 ? 'start' : 'end'} fontSize="var(--fs-small)">
          open{' '}
          <tspan fontFamily="var(--read)" fontWeight="600" fontSize="var(--fs-body)">
            {showLength(Math.abs(mismatch), unit, 3)}
          </tspan>
        </text>
      )}
    </Drawing>
  )
}
