import { expect, it } from 'vitest'
import { between, following, led } from './place'

const SIZE = { row: 30, column: 5 }
const at = (row: number, column: number) => ({ row, column })

it.each([
  ['ArrowUp', false, at(0, 0), at(0, 0)],
  ['ArrowDown', false, at(3, 2), at(4, 2)],
  ['ArrowDown', true, at(3, 2), at(29, 2)],
  ['ArrowRight', false, at(3, 4), at(3, 4)],
  ['ArrowLeft', true, at(3, 4), at(3, 0)],
  ['PageDown', false, at(25, 1), at(29, 1)],
  ['PageUp', false, at(25, 1), at(13, 1)],
  ['Home', false, at(3, 3), at(3, 0)],
  ['Home', true, at(3, 3), at(0, 0)],
  ['End', false, at(3, 3), at(3, 4)],
  ['End', true, at(3, 3), at(29, 4)],
])('%s (with Ctrl: %s) leads from one cell to another', (key, ctrl, from, to) =>
  expect(led(from, key, ctrl, SIZE)).toEqual(to),
)

it('leaves other keys alone', () => expect(led(at(0, 0), 'x', false, SIZE)).toBeNull())

it('finds the next cell that can be entered, over the ends of rows', () => {
  const entered = ({ column }: { column: number }) => column === 1 || column === 2
  expect(following(at(3, 2), 1, SIZE, entered)).toEqual(at(4, 1))
  expect(following(at(3, 1), -1, SIZE, entered)).toEqual(at(2, 2))
  expect(following(at(29, 2), 1, SIZE, entered)).toBeNull()
  expect(following(at(0, 1), -1, SIZE, entered)).toBeNull()
})

it('takes a block by any two of its corners', () =>
  expect(between(at(4, 1), at(2, 3))).toEqual({ top: 2, bottom: 4, left: 1, right: 3 }))
