import { followed } from './followed'

/** Put on an answer by the service worker: it is the last one this device was given, not one of now. */
const KEPT = 'X-Kept'
const AWAY = [500, 502, 503, 504]
/** Put on an answer by the server: it fell over this one thing, and is there. */
const FAULT = 'X-Fault'
const awaySince = followed<number | null>(null)

/** Fires when the server answers again after it did not. */
export const serverBack = new EventTarget()

/** What came of a request: every one passes here, so that the sheet can say whether the server is there. */
export function heard(response: Response | null): void {
  const isAway =
    response === null || response.headers.has(KEPT) || (AWAY.includes(response.status) && !response.headers.has(FAULT))
  if (isAway === (awaySince.get() !== null)) return
  awaySince.set(isAway ? Date.now() : null)
  if (!isAway) serverBack.dispatchEvent(new Event('back'))
}

export const isServerAway = () => awaySince.get() !== null

/** Since when the server has not answered, by this device's clock; null while it does. */
export function useServerAway(): number | null {
  return awaySince.use((since) => since)
}
