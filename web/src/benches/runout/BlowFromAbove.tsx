import { clockPoint } from '../../drawing/clock'
import { useHatch } from '../../drawing/Hatch'

const RIM = 66

/** How a hub is tapped true: turned until its high spot is on top, one blow from above. */
export function BlowFromAbove({ highDeg, isOver }: { highDeg: number; isOver: boolean }) {
  const hatch = useHatch()
  const back = highDeg <= 180
  const turn = Math.round(back ? highDeg : 360 - highDeg)
  const from = clockPoint(highDeg, RIM + 16)
  const to = clockPoint(back ? 20 : -20, RIM + 16)
  const words = isOver
    ? `Turn it ${turn}° ${back ? 'back' : 'on'}, then one blow with the soft mallet`
    : 'No blow: it runs true'
  return (
    <svg viewBox="-170 -130 340 260" width="340" height="260" role="img" aria-label={words}>
      {hatch.defs}
      <circle r={RIM} fill={hatch.other} stroke="var(--ink)" strokeWidth="2" />
      <circle r="22" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.25" />
      {isOver && (
        <>
          <circle r="7" {...circleAt(clockPoint(highDeg, RIM))} fill="none" stroke="var(--ink)" strokeDasharray="3 2" />
          {turn > 25 && (
            <path
              d={`M${from.x} ${from.y}A${RIM + 16} ${RIM + 16} 0 ${turn > 200 ? 1 : 0} ${back ? 0 : 1} ${to.x} ${to.y}`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.25"
              markerEnd={hatch.arrow}
            />
          )}
          <circle r="7" cy={-RIM} fill="var(--ink)" />
          <path d={`M0-118V${-RIM - 16}`} stroke="var(--ink)" strokeWidth="3" markerEnd={hatch.move} />
          <path d="M-22-128H22V-114H-22Z" fill="var(--leaf)" stroke="var(--ink)" strokeWidth="1.6" />
          <text x="30" y="-116" fontSize="var(--fs-small)">
            soft mallet, one blow
          </text>
        </>
      )}
      <text y="100" textAnchor="middle" fontSize="var(--fs-text)" fontWeight="600">
        {isOver
          ? turn > 0
            ? `Turn it ${turn}° ${back ? 'back, against the clock' : 'on, with the clock'}`
            : 'High spot is on top'
          : 'Runs true: no blow'}
      </text>
      {isOver && (
        <text y="120" textAnchor="middle" fontSize="var(--fs-small)">
          high spot on top, tap, read again
        </text>
      )}
    </svg>
  )
}

const circleAt = ({ x, y }: { x: number; y: number }) => ({ cx: x, cy: y })
