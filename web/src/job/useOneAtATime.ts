import { useRef } from 'react'

/** Sends one thing at a time: a second press while the first is under way sends nothing. */
export function useOneAtATime<T>(send: () => Promise<T>): () => Promise<T | undefined> {
  const isUnderWay = useRef(false)
  return async () => {
    if (isUnderWay.current) return undefined
    isUnderWay.current = true
    try {
      return await send()
    } finally {
      isUnderWay.current = false
    }
  }
}
