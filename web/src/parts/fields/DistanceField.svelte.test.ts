import { render, screen } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'
import DistanceField from './DistanceField.svelte'

const FAULT = {
  code: 'invalid_input',
  message: 'no',
  faults: [{ field: 'distance', rule: 'write it like 2.9' }],
}

function field(read = vi.fn(async () => ({ data: { metres: 2.8956 } }) as object)) {
  const onchange = vi.fn()
  render(DistanceField, { label: 'Subject', metres: 3.2, unit: 'm', read, onchange })
  return { input: screen.getByLabelText<HTMLInputElement>('Subject'), onchange, read }
}

it('hands over what was typed and what was read', async () => {
  const { input, onchange, read } = field()
  await userEvent.clear(input)
  await userEvent.type(input, `9'6"{Enter}`)
  expect(read).toHaveBeenCalledWith(`9'6"`, 'm')
  expect(onchange).toHaveBeenCalledWith(2.8956, '')
})

it('tells what is wrong beside itself and keeps the text', async () => {
  const { input, onchange } = field(vi.fn(async () => ({ problem: FAULT })))
  await userEvent.clear(input)
  await userEvent.type(input, 'far{Enter}')
  expect(screen.getByRole('alert')).toHaveTextContent('write it like 2.9')
  expect(input).toHaveValue('far')
  expect(onchange).not.toHaveBeenCalled()
})

it('steps with the arrow keys, and asks nothing when nothing was typed', async () => {
  const { input, onchange, read } = field()
  input.focus()
  await userEvent.keyboard('{ArrowUp}{PageDown}')
  expect(onchange.mock.calls.map(([metres]) => metres)).toEqual([3.25, 2.7])
  input.blur()
  expect(read).not.toHaveBeenCalled()
})
