import { expect, it } from 'vitest'
import { History } from './history'

it('makes one step of a drag and goes both ways', () => {
  let now = 0
  const history = new History<number>(() => now)
  for (const value of [1, 2, 3]) {
    history.remember(value, 'drag')
    now += 50
  }
  expect(history.past).toEqual([1])
  expect(history.undo(4)).toBe(1)
  expect(history.redo(1)).toBe(4)
  expect(history.redo(4)).toBeNull()
})

it('keeps steps apart that are of another kind or later', () => {
  let now = 0
  const history = new History<number>(() => now)
  history.remember(1, 'drag')
  history.remember(2, 'stop')
  now += 5000
  history.remember(3, 'stop')
  history.remember(4, '')
  history.remember(5, '')
  expect(history.past).toEqual([1, 2, 3, 4, 5])
})

it('forgets what was undone when something new is done', () => {
  const history = new History<number>(() => 0)
  history.remember(1, '')
  history.undo(2)
  history.remember(1, '')
  expect(history.redo(3)).toBeNull()
})

it('makes one step of what is held, however long the hand rests', () => {
  let now = 0
  const history = new History<number>(() => now)
  history.remember(1, 'drag')
  now += 5000
  history.remember(2, 'drag', true)
  expect(history.past).toEqual([1])
})
