/** Hour and minute. */
export function sayHour(at: string): string {
  return new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

/** Day and hour as a hand writes them. */
export function sayWhen(at: string): string {
  const then = new Date(at)
  const year = then.getFullYear() === new Date().getFullYear() ? undefined : 'numeric'
  return then.toLocaleString('en-GB', { day: 'numeric', month: 'short', year, hour: '2-digit', minute: '2-digit' })
}
