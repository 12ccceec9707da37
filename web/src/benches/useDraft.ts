import { useQuery } from '@tanstack/react-query'
import { useCallback } from 'react'
import { dropDraft, keepDraft, useKeptDraft, useTypedByOthers } from '../api/drafts'
import { sessionOptions } from '../api/queries'
import type { Draft } from './draft'

interface DraftHere {
  draft: Draft
  /** False until something was typed. */
  touched: boolean
  /** Who else typed what stands here, by name; empty where it is one's own. */
  others: string
  change: (draft: Draft) => void
  /** Starts over. */
  clear: () => void
}

/** What a hand has typed at one place, kept on this device through reload, sign-out and a server that is away. */
export function useDraft(place: string, start: () => Draft): DraftHere {
  const kept = useKeptDraft<Draft>(place)
  const me = useQuery({ ...sessionOptions, enabled: false }).data?.name ?? ''
  const others = useTypedByOthers(place, me)
  const change = useCallback((draft: Draft) => keepDraft(place, draft), [place])
  const clear = useCallback(() => dropDraft(place), [place])
  return { draft: kept ?? start(), touched: kept !== null, others, change, clear }
}
