import { describe, expect, it, vi } from 'vitest'
import { Line, line } from './line.svelte'
import { keepers } from './saving.svelte'

describe('the line to the server', () => {
  function watched() {
    let back = () => {}
    const stop = vi.fn()
    const watch = vi.fn((found: () => void) => ((back = found), stop))
    return { it: new Line(watch), watch, stop, back: () => back() }
  }

  it('is watched once while it is away, and everybody asks again once when it is back', () => {
    const { it, watch, stop, back } = watched()
    const one = vi.fn()
    it.again(one)
    it.lost()
    it.lost()
    expect([it.away, watch.mock.calls.length]).toEqual([true, 1])
    it.again(one)
    it.again(one)
    back()
    expect([it.away, stop.mock.calls.length]).toEqual([false, 1])
    expect(one).toHaveBeenCalledOnce()
    it.found()
    expect(one).toHaveBeenCalledOnce()
  })

  it('may go away again while somebody asks', () => {
    const { it, watch, back } = watched()
    const ask = vi.fn(() => {
      it.lost()
      it.again(ask)
    })
    it.lost()
    it.again(ask)
    back()
    expect([ask.mock.calls.length, it.away, watch.mock.calls.length]).toEqual([1, true, 2])
  })
})

it('says for all that is open whether the server has it', () => {
  expect(keepers.state).toBeNull()
  const [first, second] = $state([
    { kept: true, refused: false },
    { kept: true, refused: false },
  ])
  const close = [keepers.add(first), keepers.add(second)]
  expect(keepers.state).toBe('saved')
  second.kept = false
  expect(keepers.state).toBe('saving')
  line.away = true
  expect(keepers.state).toBe('waits')
  second.refused = true
  expect(keepers.state).toBe('refused')
  first.kept = false
  expect(keepers.state).toBe('waits')
  const leaving = new Event('beforeunload', { cancelable: true })
  dispatchEvent(leaving)
  expect(leaving.defaultPrevented).toBe(true)
  line.away = false
  close.forEach((end) => end())
  expect(keepers.state).toBeNull()
})
