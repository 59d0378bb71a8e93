import { render, screen } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'
import EntryField from './EntryField.svelte'

type Kind = 'text' | 'number'
function cell(kind: Kind, value: unknown, more: object = {}) {
  const oninput = vi.fn()
  const view = render(EntryField, { label: 'Figure', kind, value, oninput, ...more })
  return { input: screen.getByLabelText<HTMLInputElement>('Figure'), oninput, ...view }
}

it.each<[Kind, string, unknown[]]>([
  ['number', '6,5', [6, '6,', 6.5]],
  ['number', 'x', ['x']],
  ['text', 'ab', ['a', 'ab']],
])('hands over %s as it is typed: %s', async (kind, typed, heard) => {
  const { input, oninput } = cell(kind, null)
  await userEvent.type(input, typed)
  expect(oninput.mock.calls.map(([value]) => value)).toEqual(
    heard.map((value) => (value === '6,' ? 6 : value)),
  )
})

it('keeps the text that was typed while the figure is what it was read as', async () => {
  const { input, rerender } = cell('number', 5)
  await userEvent.clear(input)
  await userEvent.type(input, '6,50')
  await rerender({ value: 6.5 })
  expect(input).toHaveValue('6,50')
  // After undo the figure is another one, and so is what is shown.
  await rerender({ value: 5 })
  expect(input).toHaveValue('5')
})

it('shows the figure as it is kept when it is left', async () => {
  const { input, rerender } = cell('number', 5)
  await userEvent.clear(input)
  await userEvent.type(input, '06.50')
  await rerender({ value: 6.5 })
  await userEvent.tab()
  expect(input).toHaveValue('6.5')
})

it('hands over nothing for an empty number', async () => {
  const { input, oninput } = cell('number', 5)
  await userEvent.clear(input)
  expect(oninput).toHaveBeenLastCalledWith(null)
})

it('tells a fault beside itself and to those who cannot see it', async () => {
  const { input } = cell('number', 'wide', { fault: 'must be a number' })
  expect(input).toHaveAttribute('aria-invalid', 'true')
  expect(input).toHaveAttribute('title', 'must be a number')
  await userEvent.click(input)
  expect(screen.getByRole('alert')).toHaveTextContent('must be a number')
  expect(input).toHaveAccessibleDescription('must be a number')
})

it('marks a figure that has an origin of its own', () => {
  const { container } = cell('number', 5, { origin: 'measured' })
  const mark = container.querySelector('abbr')
  expect(mark).toHaveTextContent('m')
  expect(mark).toHaveAttribute('title', 'measured: see where it comes from')
})
