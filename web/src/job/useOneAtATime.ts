import { useRef } from 'react'

/** Sends one thing at a time: a second press while the first is under way sends nothing. */
export function useOneAtATime(send: () => Promise<unknown>): () => Promise<void> {
  const isUnderWay = useRef(false)
  return async () => {
    if (isUnderWay.current) return
    isUnderWay.current = true
    try {
      await send()
    } finally {
      isUnderWay.current = false
    }
  }
}
