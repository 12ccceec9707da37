import { type RefObject, useEffect, useRef } from 'react'

const READINGS = 'input[data-cell="reading"]'

/**
 * Readings that something has overtaken count again once every one of them was typed anew; also one that is typed as it was.
 * `watches` while they are overtaken.
 */
export function useTypedAnew(sheet: RefObject<HTMLElement | null>, watches: boolean, onAll: () => void): void {
  const latest = useRef(onAll)
  latest.current = onAll
  useEffect(() => {
    const bench = sheet.current
    if (!watches || !bench) return
    const typed = new Set<string | null>()
    const onType = (event: Event) => {
      const cell = event.target instanceof HTMLInputElement ? event.target.closest(READINGS) : null
      if (!cell) return
      typed.add(cell.getAttribute('aria-label'))
      // Once the sheet has what was typed.
      setTimeout(() => {
        const filled = [...bench.querySelectorAll<HTMLInputElement>(READINGS)].filter((input) => input.value.trim())
        if (filled.length > 0 && filled.every((input) => typed.has(input.getAttribute('aria-label')))) latest.current()
      })
    }
    for (const kind of ['beforeinput', 'input']) bench.addEventListener(kind, onType)
    return () => {
      for (const kind of ['beforeinput', 'input']) bench.removeEventListener(kind, onType)
    }
  }, [sheet, watches])
}

/** The first of these has the focus once the sheet shows what was just chosen. */
export function focusSoon(what: string): void {
  setTimeout(() => document.querySelector<HTMLElement>(what)?.focus())
}
