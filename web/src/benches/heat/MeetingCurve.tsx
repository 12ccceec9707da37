import type { Schemas } from '../../api/client'
import { Drawing } from '../../drawing/Drawing'

type Result = Pick<Schemas['HeatResult'], 'meeting' | 'grips_s'>

const BOX = { left: 56, right: 640, top: 12, bottom: 120 }
const ROOM = 1.12 // the axis goes on a little beyond the grip

/** Least and most seconds, in whole ones. */
export function seconds(least: number, most: number): string {
  const [from, to] = [Math.floor(least), Math.ceil(most)]
  return from === to ? `${to} s` : `${from} to ${to} s`
}

/** Hub and shaft temperature coming together on the shaft, and when the bore closes: pressed to one side, and centred. */
export function MeetingCurve({ result }: { result: Result }) {
  const { meeting, grips_s: grips } = result
  const last = meeting[meeting.length - 1]!
  const until = Math.max(last.after_s, 1) * ROOM
  const [hottest, coldest] = [meeting[0]!.hub_c + 5, meeting[0]!.shaft_c - 5]
  const x = (s: number) => BOX.left + (s / until) * (BOX.right - BOX.left)
  const y = (c: number) => BOX.bottom - ((c - coldest) / (hottest - coldest)) * (BOX.bottom - BOX.top)
  const path = (of: 'hub_c' | 'shaft_c') =>
    meeting.map((p, i) => `${i ? 'L' : 'M'}${x(p.after_s).toFixed(1)} ${y(p[of]).toFixed(1)}`).join('')
  const least = grips.least ?? last.after_s
  return (
    <Drawing along paper={[0, 0, 740, 146]} says={`On the shaft it grips within ${seconds(least, last.after_s)}`}>
      <path d={`M${x(least)} ${BOX.top}H${BOX.right}V${BOX.bottom}H${x(least)}Z`} fill="var(--ink)" fillOpacity=".1" />
      <path d={`M${BOX.left} ${BOX.top}V${BOX.bottom}H${BOX.right}`} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
      <path d={path('hub_c')} fill="none" stroke="var(--ink)" strokeWidth="3" />
      <path d={path('shaft_c')} fill="none" stroke="var(--ink)" strokeWidth="3" strokeDasharray="2 5" />
      <path
        d={`M${x(least)} ${BOX.top}V${BOX.bottom}M${x(last.after_s)} ${BOX.top}V${BOX.bottom}`}
        stroke="var(--ink)"
        strokeWidth="1.25"
      />
      <text
        x={BOX.left - 6}
        y={y(meeting[0]!.hub_c) + 9}
        textAnchor="end"
        fontSize="var(--fs-small)"
        fontFamily="var(--read)"
      >
        {Math.round(meeting[0]!.hub_c)}
      </text>
      <text x={BOX.left - 6} y={y(meeting[0]!.shaft_c)} textAnchor="end" fontSize="var(--fs-small)" fontFamily="var(--read)">
        {Math.round(meeting[0]!.shaft_c)}
      </text>
      <text x={BOX.right + 6} y={y(last.hub_c) + 4} fontSize="var(--fs-small)">
        hub
      </text>
      <text x={BOX.right + 6} y={y(last.shaft_c) + 4} fontSize="var(--fs-small)">
        shaft
      </text>
      <text x={x(least) - 4} y={BOX.bottom + 18} textAnchor="end" fontSize="var(--fs-small)" fontFamily="var(--read)">
        {Math.floor(least)} s
      </text>
      <text x={x(last.after_s) + 4} y={BOX.bottom + 18} fontSize="var(--fs-small)" fontFamily="var(--read)">
        {Math.ceil(last.after_s)} s, gripped
      </text>
    </Drawing>
  )
}
