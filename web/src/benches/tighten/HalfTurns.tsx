import type { Schemas } from '../../api/client'
import { MainButton, PlainButton } from '../../kit/Button'

type Pull = Schemas['Pull']

interface HalfTurnsProps {
  name: string
  allClicked: boolean
  onDid: (did: Pick<Pull, 'turned' | 'clicked'>) => void
}

/** What a bolt did in its turn: half a turn, or the wrench clicked on the way, or at once. */
export function HalfTurns({ name, allClicked, onDid }: HalfTurnsProps) {
  const still = { turned: false, clicked: true }
  if (allClicked)
    return (
      <>
        <MainButton data-clicked onPress={() => onDid(still)}>
          Screw {name} stood still
        </MainButton>
        <PlainButton onPress={() => onDid({ turned: true, clicked: true })}>It turned</PlainButton>
      </>
    )
  return (
    <>
      <MainButton data-clicked onPress={() => onDid({ turned: true, clicked: false })}>
        Screw {name}: half a turn
      </MainButton>
      <PlainButton onPress={() => onDid({ turned: true, clicked: true })}>It clicked on the way</PlainButton>
      <PlainButton onPress={() => onDid(still)}>It stood still</PlainButton>
    </>
  )
}
