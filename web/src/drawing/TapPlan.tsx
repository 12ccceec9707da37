import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Drawing } from './Drawing'

interface Place {
  key: number
  at: { x: number; y: number }
  label: string
  isDisabled?: boolean
}

interface TapPlanProps {
  /** How far the drawing reaches to each side of its middle, and down below it. */
  half: { x: number; y: number; below?: number }
  places: readonly Place[]
  onTap: (key: number) => void
  /** What lies under the places. */
  children: ReactNode
}

/** A drawing with places on it that a gloved finger can tap. */
export function TapPlan({ half, places, onTap, children }: TapPlanProps) {
  const tall = half.y + (half.below ?? half.y)
  return (
    <Plan style={{ maxWidth: half.x * 2.1 }}>
      <Drawing paper={[-half.x, -half.y, 2 * half.x, tall]}>{children}</Drawing>
      {places.map(({ key, at, label, isDisabled }) => (
        <button
          key={key}
          type="button"
          style={{ left: `${((at.x + half.x) / (2 * half.x)) * 100}%`, top: `${((at.y + half.y) / tall) * 100}%` }}
          disabled={isDisabled}
          aria-label={label}
          onClick={() => onTap(key)}
        />
      ))}
    </Plan>
  )
}

const Plan = styled.div`
  position: relative;
  margin: 0 auto;
  button { position: absolute; width: max(54px, var(--touch)); height: max(54px, var(--touch)); transform: translate(-50%, -50%); border-radius: 50%; }
`
