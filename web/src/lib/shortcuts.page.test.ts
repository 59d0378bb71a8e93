import { expect, it, vi } from 'vitest'
import { neighbour, runShortcut } from './shortcuts'

const press = (key: string, target: Element, more: KeyboardEventInit = {}) => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
  Object.defineProperty(event, 'target', { value: target })
  return event
}

it('runs its own keys and rests while something is typed', () => {
  const run = vi.fn()
  const shortcuts = [
    { keys: 'c', on: ['c'], does: '', run },
    { keys: 'Ctrl Z', on: ['ctrl+z'], does: '', run },
  ]
  expect(runShortcut(press('c', document.body), shortcuts)).toBe(true)
  expect(runShortcut(press('c', document.createElement('input')), shortcuts)).toBe(false)
  expect(runShortcut(press('c', document.body, { ctrlKey: true }), shortcuts)).toBe(false)
  expect(runShortcut(press('z', document.body, { ctrlKey: true }), shortcuts)).toBe(true)
  // A text field has an undo of its own.
  expect(runShortcut(press('z', document.createElement('input'), { ctrlKey: true }), shortcuts)).toBe(false)
  const document_ = document.createElement('section')
  document_.dataset.undo = ''
  const cell = document_.appendChild(document.createElement('input'))
  expect(runShortcut(press('z', cell, { ctrlKey: true }), shortcuts)).toBe(true)
  expect(runShortcut(press('c', cell), shortcuts)).toBe(false)
  expect(run).toHaveBeenCalledTimes(3)
})

it('stays at the ends of a list', () => {
  expect(neighbour([1, 2, 3], 2, 1)).toBe(3)
  expect(neighbour([1, 2, 3], 0, -1)).toBe(1)
  expect(neighbour([], 0, 1)).toBeUndefined()
})
