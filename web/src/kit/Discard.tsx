import { useState } from 'react'
import { PlainButton } from './Button'

interface DiscardProps {
  label?: string
  /** Who else typed what is thrown away; empty where it is one's own. */
  others: string
  onDiscard: () => void
}

/** Throws away what was typed. What somebody else typed is named, and asked about first. */
export function Discard({ label = 'Discard', others, onDiscard }: DiscardProps) {
  const [asks, setAsks] = useState(false)
  if (!asks) return <PlainButton onPress={() => (others ? setAsks(true) : onDiscard())}>{label}</PlainButton>
  return (
    <>
      <p role="alert">{others} typed this, and it is not saved. Discard it?</p>
      <PlainButton onPress={onDiscard}>Discard what {others} typed</PlainButton>
      <PlainButton onPress={() => setAsks(false)}>Keep it</PlainButton>
    </>
  )
}

/** Whose half-typed figures these are, where they are another's. */
export function TypedBy({ others }: { others: string }) {
  return others ? <p role="status">Typed by {others}, not saved.</p> : null
}
