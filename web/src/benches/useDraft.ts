import { useCallback, useEffect, useState } from 'react'
import type { Draft } from './draft'

/**
 * What a hand has typed at one place, kept on this device through reload, sign-out and a server that is away.
 * `touched` is false until something was typed; `clear` starts over.
 */
export function useDraft(
  place: string,
  start: () => Draft,
): { draft: Draft; touched: boolean; change: (draft: Draft) => void; clear: () => void } {
  const key = `anvil.draft.${place}`
  const [kept, setKept] = useState<{ key: string; draft: Draft | null }>(() => ({ key, draft: readKept(key) }))
  const current = kept.key === key ? kept.draft : readKept(key)
  useEffect(() => setKept({ key, draft: readKept(key) }), [key])
  const change = useCallback(
    (draft: Draft) => {
      localStorage.setItem(key, JSON.stringify(draft))
      setKept({ key, draft })
    },
    [key],
  )
  const clear = useCallback(() => {
    localStorage.removeItem(key)
    setKept({ key, draft: null })
  }, [key])
  return { draft: current ?? start(), touched: current !== null, change, clear }
}

function readKept(key: string): Draft | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null')
  } catch {
    return null
  }
}
