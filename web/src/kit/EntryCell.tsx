import { type ClipboardEvent, type CSSProperties, type KeyboardEvent, useLayoutEffect, useRef, useState } from 'react'
import { FieldError, Input, TextField } from 'react-aria-components'
import styled from 'styled-components'
import { type CellKind, isThousandOrDecimal, READ_CELL, showTyped, type Typed } from '../units/length'
import { useUnit } from '../units/preferences'
import { figuresIn } from './paste'

interface EntryCellProps {
  label: string
  typed: Typed | undefined
  onType: (typed: Typed) => void
  /** What is wrong with it, from the server or from reading the text. */
  problem?: string
  kind?: CellKind
  /** Minus turns the sign over, as on a dial. */
  signed?: boolean
  width?: number
  part?: CellPart
  /** A column or row of figures was pasted into it; false where they do not fit, then nothing is pasted. */
  onFigures?: ((figures: readonly string[]) => boolean) | undefined
}

/** Enter runs through the readings; it passes set-up that is filled already, and what stands aside. */
export type CellPart = 'reading' | 'set-up' | 'aside'

const WANTS: Record<CellKind, string> = {
  length: 'Enter a number.',
  number: 'Enter a number.',
  temperature: 'Enter degrees: 166, or 330 F.',
  time: 'Enter a time: 1:04, or seconds.',
  torque: 'Enter a torque: 25, or 18 lb ft.',
  slope: 'Enter an angle: 0.5, 0.35°, or 0.2 on 140.',
  degrees: 'Enter an angle: 0.35, 0.5 mm/m, or 0.2 on 140.',
}

const THOUSAND_OR_DECIMAL = 'A thousand, or a decimal comma? Write 1000 or 1.000.'

/**
 * A place on the drawing where a hand writes a figure. Enter goes on to the next cell, Shift+Enter back,
 * minus turns the sign of a figure that is not marked to be typed over, Esc brings back what stood there. Nothing read is empty, never 0.
 */
export function EntryCell({
  label,
  typed,
  onType,
  problem,
  kind = 'length',
  signed,
  width = 84,
  part = 'reading',
  onFigures,
}: EntryCellProps) {
  const [spare, setSpare] = useState('')
  const unit = useUnit()
  const before = useRef<Typed | undefined>(undefined)
  const shown = typed ? (kind === 'length' ? showTyped(typed, unit) : typed.text) : ''
  const unreadable = typed && typed.text.trim() !== '' && READ_CELL[kind](typed) === null
  const asks = typed && isThousandOrDecimal(typed.text) ? THOUSAND_OR_DECIMAL : WANTS[kind]
  const wrong = problem ?? (spare || (unreadable ? asks : undefined))
  const under = useStaysOnTheSheet(wrong)
  const onPaste = (event: ClipboardEvent) => {
    const figures = onFigures ? figuresIn(event.clipboardData.getData('text')) : []
    if (figures.length === 0) return
    event.preventDefault()
    setSpare(onFigures?.(figures) ? '' : `${figures.length} figures are more than there are places.`)
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault()
      moveOn(event.currentTarget, event.shiftKey ? -1 : 1)
    } else if (event.key === 'Escape' && before.current) {
      onType(before.current)
    } else if (event.key === '-' && signed && shown.trim() !== '' && !isMarked(event.currentTarget)) {
      event.preventDefault()
      onType({ text: turnSign(shown), unit })
    }
  }
  return (
    <Cell
      aria-label={label}
      value={shown}
      onChange={(text) => {
        setSpare('')
        onType({ text, unit })
      }}
      isInvalid={!!wrong}
      $width={width}
      onFocus={() => {
        before.current = typed ?? { text: '', unit }
      }}
    >
      <Frame>
        <Box
          data-cell={part}
          style={{ '--places': shown.length || 1 } as CSSProperties}
          inputMode="decimal"
          autoComplete="off"
          onKeyDown={onKeyDown}
          onPaste={onPaste}
          onFocus={(e) => e.currentTarget.select()}
        />
      </Frame>
      <Under ref={under}>{wrong}</Under>
    </Cell>
  )
}

const FROM_THE_EDGE = 4

/** What is wrong with a cell at the edge of the sheet stands beside it, not beyond the edge. */
function useStaysOnTheSheet(wrong: string | undefined) {
  const under = useRef<HTMLElement>(null)
  useLayoutEffect(() => {
    const frame = under.current?.closest('main, [role=dialog]')?.getBoundingClientRect()
    if (!wrong || !under.current || !frame) return
    under.current.style.setProperty('--aside', '0px')
    const box = under.current.getBoundingClientRect()
    const [left, right] = [frame.left + FROM_THE_EDGE - box.left, frame.right - FROM_THE_EDGE - box.right]
    under.current.style.setProperty('--aside', `${left > 0 ? left : Math.min(right, 0)}px`)
  }, [wrong])
  return under
}

/** The next cell of the same bench as they stand in the page: clockwise, dial after dial; or a tick or choice not made yet. */
function moveOn(from: HTMLInputElement, by: 1 | -1) {
  const bench = from.closest('[data-bench]') ?? document.body
  const stops = [...bench.querySelectorAll('input')].filter((input) => input === from || isStop(input))
  const next = stops[stops.indexOf(from) + by]
  if (next) next.focus()
  else if (by === 1) onToTheButton(from, from.value)
}

const LOOK_EVERY_MS = 25

/** To the main button, once what was typed last has been answered and it can be pressed; unless the hand went on meanwhile. */
function onToTheButton(from: HTMLInputElement, typed: string) {
  const button = document.querySelector<HTMLButtonElement>('[data-enter-goes-here]')
  if (document.activeElement !== from || from.value !== typed || !button) return
  if (button.disabled) setTimeout(() => onToTheButton(from, typed), LOOK_EVERY_MS)
  else button.focus()
}

function isStop(input: HTMLInputElement): boolean {
  switch (input.dataset.cell as CellPart | undefined) {
    case 'reading':
      return true
    case 'set-up':
      return input.value === ''
    case 'aside':
      return false
    case undefined:
      if (input.type === 'radio') return !input.closest('[role=radiogroup]')?.querySelector('input:checked')
      if (input.type === 'checkbox') return !input.checked
      return input.value === '' && input.type !== 'file'
  }
}

/** What is marked is typed over: there a minus begins another figure. */
function isMarked({ selectionStart, selectionEnd }: HTMLInputElement) {
  return selectionStart !== selectionEnd
}

function turnSign(text: string) {
  const bare = text.trim()
  return /^[-−–]/.test(bare) ? bare.slice(1).trim() : `-${bare.replace(/^\+/, '')}`
}

const Cell = styled(TextField)<{ $width: number }>`
  position: relative;
  width: ${(p) => p.$width}px;
  max-width: 100%;
`
/** A figure is written as large as its cell allows: one that is cut off is read as another. */
const Frame = styled.div`container-type: inline-size;`
const Box = styled(Input)`
  width: 100%;
  padding: 0;
  height: var(--touch);
  text-align: center;
  background: var(--leaf);
  border: 1.25px solid var(--ink);
  color: var(--blue);
  font: 500 var(--t-read) var(--read);
  font-size: clamp(var(--fs-note), (100cqw - 10px) / (var(--places) * 0.605), var(--t-read));
  &[data-focused] { border: 3px solid var(--blue); background: var(--blue-wash); outline: none; }
  &[data-invalid] { border: 3px double var(--temper-4); }
  [data-hall='dim'] &[data-invalid] { border-color: var(--ink); }
`
const Under = styled(FieldError)`
  position: absolute;
  top: 100%;
  left: 50%;
  transform: translateX(calc(-50% + var(--aside, 0px)));
  z-index: 3;
  width: max-content;
  max-width: 210px;
  background: var(--ink);
  color: var(--paper);
  font-size: var(--fs-note);
  line-height: 1.15;
  padding: 3px 7px;
  text-align: left;
`
