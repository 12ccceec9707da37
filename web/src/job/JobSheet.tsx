import { type ReactNode, useLayoutEffect } from 'react'
import { useLocation } from 'react-router'
import { useBeHere } from '../api/live'
import { notSent, useOutbox } from '../api/outbox'
import { useServerAway } from '../api/server'
import { Sheet } from '../frame/Sheet'
import { type Step, useJob } from './context'
import { Photographs } from './Photographs'
import { Reach } from './Reach'
import { RouteRail } from './RouteRail'
import { StepHead } from './StepHead'

interface JobSheetProps {
  step: Step
  /** Something stands here that is not entered. */
  isTyping?: boolean
  children: ReactNode
  verdict: ReactNode
  keys?: readonly (readonly [string, string])[]
}

/** Where the focus goes on a step that was gone on to: its first field, or the head of its sheet. */
export type GoesTo = 'field' | 'head'

const HEAD = '[data-step-head]'
const FIRST_TO_FILL = [
  '[data-bench] [data-starts-here]',
  '[data-bench] input, [data-bench] button, [data-sign] input, [data-enter-goes-here]',
]

const firstOf = (selectors: readonly string[]) =>
  selectors.reduce<HTMLElement | null>((found, selector) => found ?? document.querySelector<HTMLElement>(selector), null)

/** The sheet of a job: route in the margin, the step on the bench, what is always in reach in the strip. */
export function JobSheet({ step, isTyping = false, children, verdict, keys }: JobSheetProps) {
  const job = useJob()
  const unsent = notSent(useOutbox()).filter((p) => p.jobId === job.id)
  const away = useServerAway() !== null
  const why = unsent.find((p) => p.waits)?.waits
  useBeHere(job.id, step.key, isTyping)
  const { driver, driven, coupling } = job.spec
  const goes: GoesTo | undefined = useLocation().state?.goes
  // biome-ignore lint/correctness/useExhaustiveDependencies: a hand that goes on does so with each new step
  useLayoutEffect(() => {
    if (goes === undefined) return
    const field = goes === 'field' ? firstOf(FIRST_TO_FILL) : null
    const at = field ?? document.querySelector<HTMLElement>(HEAD)
    at?.focus({ preventScroll: goes === 'head' })
  }, [goes, step.key])
  return (
    <Sheet
      title={job.line_name}
      tab={step.title}
      note={`${driver.name}${driver.power_kw ? ` ${driver.power_kw} kW` : ''} to ${driven.name.toLowerCase()}, ${coupling.series} ${coupling.size}`}
      rail={<RouteRail live={step} />}
      verdict={verdict}
      strip={
        <Reach
          step={step}
          waiting={why ? `Not sent yet: ${unsent.length}. Kept on this device.${away ? '' : ` ${why}`}` : ''}
        />
      }
      keys={keys}
    >
      <StepHead step={step} />
      {children}
      <Photographs step={step} />
    </Sheet>
  )
}
