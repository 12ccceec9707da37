import { useCallback } from 'react'
import { dropDraft, keepDraft, useKeptDraft } from '../api/drafts'
import type { Draft } from './draft'

/**
 * What a hand has typed at one place, kept on this device through reload, sign-out and a server that is away.
 * `touched` is false until something was typed; `clear` starts over.
 */
export function useDraft(
  place: string,
  start: () => Draft,
): { draft: Draft; touched: boolean; change: (draft: Draft) => void; clear: () => void } {
  const kept = useKeptDraft<Draft>(place)
  const change = useCallback((draft: Draft) => keepDraft(place, draft), [place])
  const clear = useCallback(() => dropDraft(place), [place])
  return { draft: kept ?? start(), touched: kept !== null, change, clear }
}
