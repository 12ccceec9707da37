/** Clock geometry for drawings. SVG's y grows downward and our degrees start at 12: only this file knows. */

/** The point at a clock position (degrees clockwise from 12) on a circle round 0,0. */
export function clockPoint(clock: number, radius: number) {
  const phi = (clock * Math.PI) / 180
  return { x: radius * Math.sin(phi), y: -radius * Math.cos(phi) }
}

/** A clock position in words: 3 o’clock, half past 7, 40°. */
export function sayClock(clock: number): string {
  const turned = ((clock % 360) + 360) % 360
  const hours = turned / 30
  if (Math.abs(hours - Math.round(hours)) < 0.02) return `${Math.round(hours) % 12 || 12} o’clock`
  const halves = hours - Math.floor(hours)
  if (Math.abs(halves - 0.5) < 0.02) return `half past ${Math.floor(hours) || 12}`
  return `${Math.round(turned)}°`
}

/** A direction that was worked out, with the nearest hour: 117°, near 4 o’clock. */
export function sayToward(clock: number): string {
  const said = sayClock(clock)
  return said.endsWith('°') ? `${said}, near ${sayClock(Math.round(clock / 30) * 30)}` : said
}

/** The place a hand would say: 12, 3, 6, 9, 1:30, 40°. */
export function shortClock(clock: number): string {
  const turned = ((clock % 360) + 360) % 360
  const hours = turned / 30
  if (Math.abs(hours - Math.round(hours)) < 0.02) return String(Math.round(hours) % 12 || 12)
  if (Math.abs((hours % 1) - 0.5) < 0.02) return `${Math.floor(hours) || 12}:30`
  return `${Math.round(turned)}°`
}
