import type { ReactNode } from 'react'
import { useHatch } from '../drawing/Hatch'

const CENTRE = <path d="M4 36H116" stroke="var(--ink)" strokeWidth=".75" strokeDasharray="12 3 3 3" />

/** What a bench is about, small enough to be found at a glance: by its name in the core. */
const PICTURES: Record<string, (cut: string, arrow: string) => ReactNode> = {
  fit: (cut, arrow) => (
    <>
      <path d="M40 8H104V24H40ZM40 48H104V64H40Z" fill={cut} />
      <path d="M4 27H96L104 31V41L96 45H4Z" />
      {CENTRE}
      <path d="M60 27V45" strokeWidth="1" markerStart={arrow} markerEnd={arrow} />
    </>
  ),
  key: (cut) => (
    <>
      <path d="M22 6H98V66H22Z" fill={cut} />
      <circle cx="60" cy="40" r="22" fill="var(--leaf)" />
      <path d="M52 12H68V28H52Z" fill="var(--leaf)" />
    </>
  ),
  heat: (cut) => (
    <>
      <path d="M36 6H84V22H36ZM36 50H84V66H36Z" fill={cut} />
      <path d="M36 22V50M84 22V50" />
      {CENTRE}
      <path
        d="M96 58C90 48 102 42 96 32S90 20 96 12M108 58C102 48 114 42 108 32S102 20 108 12M22 58C16 48 28 42 22 32S16 20 22 12"
        fill="none"
      />
    </>
  ),
  taper: (cut) => (
    <>
      <path d="M30 8H100V24L30 16ZM30 64H100V48L30 56Z" fill={cut} />
      <path d="M4 18L104 28V44L4 54Z" fill="none" />
      {CENTRE}
    </>
  ),
  runout: (cut) => (
    <>
      <circle cx="50" cy="44" r="22" fill={cut} />
      <path d="M50 34V54M40 44H60" strokeWidth=".75" />
      <circle cx="84" cy="16" r="11" fill="var(--leaf)" />
      <path d="M84 16L90 10M76 24L66 31" />
    </>
  ),
  softfoot: (cut) => (
    <>
      <path d="M4 58H116V66H4Z" fill={cut} />
      <path d="M34 10H86V36H98L104 52H16L22 36H34Z" fill="var(--leaf)" />
      <path d="M16 58H60" strokeWidth="3" stroke="var(--blue)" />
    </>
  ),
  wear: () => (
    <>
      <path d="M14 8V62H112" fill="none" />
      <path d="M14 16H112" strokeDasharray="10 4" />
      <path d="M22 54L104 18" strokeWidth="2.5" fill="none" />
      <path d="M26 46l8 8m0 -8l-8 8M50 36l8 8m0 -8l-8 8M72 30l8 8m0 -8l-8 8" stroke="var(--blue)" strokeWidth="2.5" />
    </>
  ),
  gap: (cut, arrow) => (
    <>
      <path d="M30 8H50V64H30Z" fill="var(--leaf)" />
      <path d="M70 8H90V64H70Z" fill={cut} />
      <path d="M4 30H30M4 42H30M90 30H116M90 42H116" />
      <path d="M50 20H70" strokeWidth="1" markerStart={arrow} markerEnd={arrow} />
      {CENTRE}
    </>
  ),
  straightedge: (cut) => (
    <>
      <path d="M32 24H58V66H32Z" fill="var(--leaf)" />
      <path d="M62 18H88V60H62Z" fill={cut} />
      <path d="M20 10H102V18H20Z" fill="var(--leaf)" />
      <path d="M36 21H54" strokeWidth="3" stroke="var(--blue)" />
    </>
  ),
  alignment: (cut) => (
    <>
      <path d="M70 22H110V50H70ZM76 50L74 60H84L82 50M98 50L96 60H106L104 50" fill={cut} />
      <path d="M10 16H50V42H10Z" fill="var(--leaf)" transform="rotate(5 30 30)" />
      <path d="M4 27L62 33" strokeWidth=".75" strokeDasharray="12 3 3 3" />
      <path d="M58 36H116" strokeWidth=".75" strokeDasharray="12 3 3 3" />
    </>
  ),
  fitted: (cut) => (
    <>
      <path d="M30 6H58V26H30ZM62 6H90V26H62ZM30 46H58V66H30ZM62 46H90V66H62Z" fill={cut} />
      <path d="M20 26H100V46H20ZM20 20H10V52H20Z" fill="var(--leaf)" />
    </>
  ),
  tighten: () => (
    <>
      <circle cx="60" cy="36" r="30" fill="none" />
      {[0, 60, 120, 180, 240, 300].map((deg) => (
        <circle
          key={deg}
          cx={60 + 22 * Math.sin((deg * Math.PI) / 180)}
          cy={36 - 22 * Math.cos((deg * Math.PI) / 180)}
          r="5"
          fill={deg % 180 === 0 ? 'var(--ink)' : 'var(--leaf)'}
        />
      ))}
      <path d="M60 20V52" strokeWidth="1" strokeDasharray="3 3" />
    </>
  ),
  grease: (cut) => (
    <>
      <path d="M24 14H96V58H24Z" fill={cut} />
      <path d="M54 2H66V14H54Z" fill="var(--leaf)" />
      <path d="M60 24C52 36 54 46 60 46S68 36 60 24Z" fill="var(--ink)" />
    </>
  ),
  airgap: (cut) => (
    <>
      <path d="M26 8H36V64H26ZM84 8H94V64H84Z" fill={cut} />
      <path d="M44 14H58V58H44ZM62 14H76V58H62Z" fill="var(--leaf)" />
      {CENTRE}
    </>
  ),
  backstop: (_cut, arrow) => (
    <>
      <circle cx="60" cy="38" r="18" fill="var(--leaf)" />
      <path d="M38 24A26 26 0 0 1 82 24" markerEnd={arrow} fill="none" />
      <path d="M28 44H40M28 34V54" strokeWidth="3" />
    </>
  ),
  torque_arm: (cut) => (
    <>
      <circle cx="36" cy="30" r="20" fill={cut} />
      <path d="M50 24H104V36H50Z" fill="var(--leaf)" />
      <path d="M98 36V62M88 66H108" strokeWidth="2.5" />
      <circle cx="98" cy="30" r="4" fill="var(--ink)" />
    </>
  ),
  clock: () => (
    <>
      <path d="M8 36C24 4 40 4 60 36S96 68 112 36" fill="none" />
      {CENTRE}
      {[
        [8, 36],
        [34, 12],
        [60, 36],
        [86, 60],
        [112, 36],
      ].map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r="4" fill="var(--ink)" />
      ))}
    </>
  ),
}

/** The picture of a bench. */
export function BenchPicture({ name }: { name: string }) {
  const hatch = useHatch()
  return (
    <svg viewBox="0 0 120 72" aria-hidden="true">
      {hatch.defs}
      <g fill="var(--leaf)" stroke="var(--ink)" strokeWidth="1.5">
        {PICTURES[name]?.(hatch.fixed, hatch.arrow)}
      </g>
    </svg>
  )
}
