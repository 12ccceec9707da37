import type { Schemas } from '../api/client'
import { showFigure } from '../units/length'
import { useUnit } from '../units/preferences'
import { AllowanceBlock, Glyph, Num, sayShare, sayStatus, temperOf } from './Allowance'

type Check = Schemas['Check']

interface TwoLimitsProps {
  /** What the coupling survives. */
  maker: Check
  /** What the machines run well at. */
  target: Check
}

const WIDTH = 275
const AT_FIRST = 0.56 // as shares of the bar: the nearer limit, and the farther one
const AT_SECOND = 0.88

/** One figure against both limits: heavy tick the running target, double tick the coupling's. The scale changes at the nearer. */
export function TwoLimits({ maker, target }: TwoLimitsProps) {
  const unit = useUnit()
  const value = showFigure(target.value ?? 0, target.unit, unit)
  const say = (check: Check) => {
    const limit = showFigure(check.max ?? 0, check.unit, unit)
    return check.unit === target.unit ? limit.text : `${limit.text} ${limit.unit}`
  }
  const share = (check: Check) => sayShare(check.used ?? 0)
  const by = target.plus_minus ? showFigure(target.plus_minus, target.unit, unit).text : ''
  return (
    <AllowanceBlock data-status={target.status}>
      <div className="head">
        <span>{target.quantity[0]!.toUpperCase() + target.quantity.slice(1)}</span>
        <span>
          <Num>{value.text}</Num> {by && <small>±{by} </small>}
          <small>{value.unit}</small>
        </span>
      </div>
      <Scale
        size={Math.abs(target.value ?? 0)}
        maker={inUnitOf(target, maker)}
        target={target.max ?? 1}
        used={target.used ?? 0}
      />
      <div className="foot">
        <Glyph {...target} />
        <b>{sayStatus(target)}</b>
        <span>
          {share(target)} target {say(target)}
        </span>
      </div>
      <div className="foot">
        <Glyph {...maker} />
        <b>{sayStatus(maker)}</b>
        <span>
          {share(maker)} coupling’s {say(maker)}
        </span>
      </div>
      <div className="source">{target.source}</div>
      <div className="source">{maker.source}</div>
    </AllowanceBlock>
  )
}

/** The coupling's limit in the target's unit: both judge one figure, so its share tells. */
function inUnitOf(target: Check, maker: Check): number {
  if (maker.unit === target.unit || !maker.used) return maker.max ?? 1
  return Math.abs(target.value ?? 0) / maker.used
}

function Scale({ size, maker, target, used }: { size: number; maker: number; target: number; used: number }) {
  const [near, far] = maker < target ? [maker, target] : [target, maker]
  const place = (v: number) => {
    const share = v <= near ? (v / near) * AT_FIRST : AT_FIRST + ((v - near) / (far - near || 1)) * (AT_SECOND - AT_FIRST)
    return 1 + Math.min(share, 1) * (WIDTH - 2)
  }
  return (
    <svg viewBox={`0 0 ${WIDTH} 18`} width={WIDTH} height="18" aria-hidden="true" className="bar">
      <rect x=".6" y="2.6" width={WIDTH - 1.2} height="12" fill="var(--scale)" stroke="var(--ink)" strokeWidth="1.25" />
      <rect x="1" y="3.2" width={place(size) - 1} height="10.8" fill={`var(--temper-${temperOf(used)})`} />
      <path
        d={[0.25, 0.5, 0.75].map((s) => `M${place(near * s)} 9V14`).join('')}
        stroke="var(--scale-ink)"
        strokeWidth=".75"
      />
      <path d={`M${place(size)} 3V14`} stroke="var(--scale-ink)" strokeWidth="2" />
      <path d={`M${place(target)} 0V18`} stroke="var(--ink)" strokeWidth="3" />
      <path d={`M${place(maker) - 2} 0V18M${place(maker) + 2} 0V18`} stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  )
}
