import type { Schemas } from '../api/client'

export type Drawn = Schemas['Machine']['drawn_as']

/**
 * Plain outlines of machines in a box 100 wide and 64 high: shaft leaves at the right, its axis at y 32, floor at y 56.
 * `solid` is the body, `lines` are thinner. Drawn left of the coupling as they are, right of it mirrored.
 */
export const MACHINES: Record<Drawn, { solid: string; lines: string }> = {
  motor: {
    solid: 'M0 19H12V14H88V50H12V45H0ZM34 14V8H64V14M20 50V56H36V50M66 50V56H82V50M88 28H100V36H88Z',
    lines: 'M24 14V20M24 44V50M36 14V20M36 44V50M48 14V20M48 44V50M60 14V20M60 44V50M72 14V20M72 44V50',
  },
  gearmotor: {
    solid: 'M0 22H34V42H0ZM34 12H88V50H34ZM42 50V56H80V50M88 28H100V36H88Z',
    lines: 'M8 22V42M16 22V42M24 22V42M58 12V50',
  },
  engine: {
    solid: 'M0 14H90V48H0ZM12 48V56H28V48M62 48V56H78V48M90 28H100V36H90Z',
    lines: 'M8 14V5H24V14M32 14V5H48V14M56 14V5H72V14M80 14V48',
  },
  blower: {
    solid: 'M0 20H10V14H26V8H70V14H84V20H94V44H84V50H10V44H0ZM18 50V56H34V50M60 50V56H76V50M94 29H100V35H94Z',
    lines: 'M26 14V50M70 14V50',
  },
  fan: { solid: 'M4 8L20 14V4H58V56H20V46L4 52ZM58 29H100V35H58Z', lines: 'M20 14V46M72 56V38A7 7 0 0 1 86 38V56' },
  pump: {
    solid: 'M8 4H26V10H36A22 22 0 1 1 14 32V10H8ZM58 27H100V37H58ZM22 53V56H50V53',
    lines: 'M66 37V56M92 37V56M36 32m-9 0a9 9 0 1 0 18 0a9 9 0 1 0-18 0',
  },
  generator: {
    solid: 'M0 12H90V52H0ZM10 52V56H26V52M64 52V56H80V52M90 28H100V36H90Z',
    lines: 'M12 12V52M78 12V52M20 20H70M20 44H70',
  },
  mill: {
    solid: 'M8 6H70V56H8ZM14 22H64V38H14ZM70 29H100V35H70Z',
    lines: 'M14 41H64V53H14ZM14 6L24 1H54L64 6M82 56V38A6 6 0 0 1 94 38V56',
  },
  drum: {
    solid: 'M0 4H60V14H0ZM18 14H44V24H18ZM18 24H44V42H18ZM44 29H100V35H44Z',
    lines: 'M18 18H44M18 29H44M18 36H44M70 56V38A7 7 0 0 1 84 38V56',
  },
  elevator: {
    solid: 'M10 4H60V54H10ZM60 29H100V35H60Z',
    lines: 'M10 12H60M35 32m-14 0a14 14 0 1 0 28 0a14 14 0 1 0-28 0M72 56V38A7 7 0 0 1 86 38V56',
  },
  auger: {
    solid: 'M0 15H78V49H0ZM12 49V56H22V49M56 49V56H66V49M78 29H100V35H78Z',
    lines: 'M4 46C10 38 14 26 18 18M20 46C26 38 30 26 34 18M36 46C42 38 46 26 50 18M52 46C58 38 62 26 66 18M0 32H78',
  },
  machine: { solid: 'M6 14H88V50H6ZM16 50V56H32V50M62 50V56H78V50M88 28H100V36H88Z', lines: '' },
}

/** Couplings in a box 56 wide round 0,0: outlines by family. */
export const COUPLINGS: Record<Schemas['Coupling']['family'], { solid: string; lines: string }> = {
  'jaw, straight': { solid: 'M-22-12H-7V12H-22ZM22-12H7V12H22Z', lines: 'M-7-10H-1V-3H-7M-7 10H-1V4H-7M7-3H1V3H7' },
  'jaw, curved': {
    solid: 'M-22-12H-7V12H-22ZM22-12H7V12H22Z',
    lines: 'M-7-11C0-11 0-4-7-4M-7 4C0 4 0 11-7 11M7-4C0-4 0 4 7 4',
  },
  'steel grid': {
    solid: 'M-20-10H20V10H-20ZM-14-15H14V15H-14Z',
    lines: 'M-9-9V9M-9-9H-5M-5-9V9M-5 9H0M0 9V-9M0-9H5M5-9V9M5 9H9V-9',
  },
  gear: {
    solid: 'M-22-9H-15V-13H-5V-17H5V-13H15V-9H22V9H15V13H5V17H-5V13H-15V9H-22Z',
    lines: 'M0-17V17M-13-8H-6M-13-6H-6M6-8H13M6-6H13M-13 8H-6M6 8H13',
  },
  'disc, three-part': {
    solid: 'M-26-12H-20V12H-26ZM26-12H20V12H26ZM-13-12H-9V-7H9V-12H13V12H9V7H-9V12H-13Z',
    lines: 'M-18-13V13M-15-13V13M18-13V13M15-13V13',
  },
  'jaw, in shear with spacer': {
    solid: 'M-26-12H-17V12H-26ZM26-12H17V12H26ZM-13-8H13V8H-13Z',
    lines: 'M-17-9H-13M-17 9H-13M17-9H13M17 9H13M-4-8V8M4-8V8',
  },
  'disc, single pack': { solid: 'M-22-12H-5V12H-22ZM22-12H5V12H22Z', lines: 'M-3-13V13M0-13V13M3-13V13' },
  'disc, drop-out spacer': {
    solid: 'M-26-10H-21V10H-26ZM26-10H21V10H26ZM-15-12H-12V-6H12V-12H15V12H12V6H-12V12H-15Z',
    lines: 'M-19-12V12M-17-12V12M19-12V12M17-12V12M-21 0H-19M19 0H21',
  },
  'composite tube': {
    solid: 'M-26-10H-22V10H-26ZM26-10H22V10H26ZM-15-6H15V6H-15Z',
    lines: 'M-20-11V11M-18-9V9M20-11V11M18-9V9M-9-6L-5 6M-3-6L1 6M3-6L7 6M9-6L13 6',
  },
  tyre: { solid: 'M-20-12H-12V12H-20ZM20-12H12V12H20Z', lines: 'M-12-11C-12-21 12-21 12-11M-12 11C-12 21 12 21 12 11' },
  'claw with elastomer blocks': {
    solid: 'M-22-14H-6V14H-22ZM22-14H6V14H22Z',
    lines: 'M-6-11H6V-5H-6M-6 5H6V11H-6M-6-2H6M-6 2H6',
  },
  rigid: { solid: 'M-20-8H-6V-16H0V16H-6V8H-20ZM20-8H6V-16H0V16H6V8H20Z', lines: 'M-3-12H3M-3 12H3' },
  'tyre on flywheel': { solid: 'M-24-22H-14V22H-24ZM6-10H20V10H6Z', lines: 'M-14-18C-4-24 4-18 4-10M-14 18C-4 24 4 18 4 10' },
  'screw-conveyor drive': { solid: 'M-10-9H2V9H-10ZM-2-14H3V14H-2Z', lines: 'M-10-5H2M-10 5H2' },
  'shaft-mounted reducer': {
    solid: 'M-12-18H10Q20 0 10 16H-12Q-22 0-12-18Z',
    lines: 'M0 0m-6 0a6 6 0 1 0 12 0a6 6 0 1 0-12 0M-4 16L-16 24',
  },
  'magnetic drive': {
    solid: 'M-20-17H-15V17H-20ZM15-17H20V17H15ZM-11-13H-3V13H-11ZM3-13H11V13H3Z',
    lines: 'M-15-15H15M-15 15H15M-3-3H3M-3 3H3',
  },
}
