import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { onSheet } from '../test/onSheet'
import type { Typed } from '../units/length'
import { EntryCell } from './EntryCell'

function Cell({ text }: { text: string }) {
  const [typed, setTyped] = useState<Typed>({ text, unit: 'mm' })
  return <EntryCell label="Rim" typed={typed} onType={setTyped} signed />
}
const cell = () => screen.getByLabelText<HTMLInputElement>('Rim')

describe('minus in a cell', () => {
  it('typed over a figure that is marked begins another one', async () => {
    onSheet(<Cell text=".1" />)
    await userEvent.tab() // a cell is marked as a whole when it is reached
    await userEvent.keyboard('-2')
    expect(cell().value).toBe('-2')
  })
  it('typed after a figure turns its sign, and turns it back', async () => {
    onSheet(<Cell text="0.05" />)
    await userEvent.click(cell())
    await userEvent.keyboard('{End}-')
    expect(cell().value).toBe('-0.05')
    await userEvent.keyboard('-')
    expect(cell().value).toBe('0.05')
  })
})

it('escape brings back what stood there', async () => {
  onSheet(<Cell text="0.05" />)
  await userEvent.tab()
  await userEvent.keyboard('7{Escape}')
  expect(cell().value).toBe('0.05')
})

it('letters are said to be no number, where they stand', async () => {
  onSheet(<Cell text="" />)
  await userEvent.tab()
  await userEvent.keyboard('about 1')
  expect(screen.getByText('Enter a number.')).toBeTruthy()
})
