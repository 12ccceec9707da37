import { useState } from 'react'
import styled from 'styled-components'
import { sayClock } from '../drawing/clock'
import { PlainButton, WordButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { readPlace, tooNear } from './places'

interface AnotherPlaceProps {
  /** Of the ring: "Gap", "Rim". */
  name: string
  clocks: readonly number[]
  onAdd: (clock: number) => void
}

/** A place of one's own on a ring: between two bolts, at 40°, where the bracket lets nobody read the quarters. */
export function AnotherPlace({ name, clocks, onAdd }: AnotherPlaceProps) {
  const [isOpen, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState('')
  const add = () => {
    const clock = readPlace(typed)
    if (clock === null) return setProblem('A clock time like 1:30, or degrees from 12 like 40°.')
    const near = tooNear(clock, clocks)
    if (near !== null) return setProblem(`Too near the reading at ${sayClock(near)}.`)
    setProblem('')
    setTyped('')
    setOpen(false)
    onAdd(clock)
  }
  if (!isOpen)
    return (
      <WordButton aria-label={`${name}: another place`} onPress={() => setOpen(true)}>
        Another place
      </WordButton>
    )
  return (
    <Row
      onKeyDown={(event) => {
        if (event.key === 'Escape') setOpen(false)
        if (event.key !== 'Enter') return
        event.preventDefault()
        add()
      }}
    >
      <Words label={`${name}: place`} detail="1:30, or 40°" value={typed} onChange={setTyped} problem={problem} autoFocus />
      <PlainButton onPress={add}>Add</PlainButton>
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  align-items: start;
  gap: 8px;
  max-width: 300px;
  > button { margin-top: 22px; }
`
