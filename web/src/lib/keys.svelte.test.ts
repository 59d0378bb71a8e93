import { describe, expect, it, vi } from 'vitest'
import { benchKeys } from './benchKeys'
import { compareKeys } from './compareKeys'
import { isSingle, KeySettings } from './keys.svelte'
import type { Shortcut } from './shortcuts'

function stored(text: string | null = null) {
  const kept = { text }
  return {
    getItem: () => kept.text,
    setItem: (_: string, value: string) => void (kept.text = value),
    kept,
  }
}
const nothing = () => {}
const STOP: Shortcut = { keys: 'b', on: ['b'], does: 'Stop down', run: nothing }
const OPEN: Shortcut = { keys: 'v', on: ['v'], does: 'Open up', run: nothing }
const UNDO: Shortcut = { keys: 'Ctrl Z', on: ['ctrl+z'], does: 'Undo', run: nothing }

describe('single keys', () => {
  it('can be given another key, which is kept, and their first one again', () => {
    const storage = stored()
    const keys = new KeySettings(storage)
    expect(keys.give(STOP, 'k', [STOP, OPEN])).toBe('')
    expect([keys.keysOf(STOP), keys.words(STOP)]).toEqual([['k'], 'k'])
    expect(new KeySettings(storage).keysOf(STOP)).toEqual(['k'])
    keys.give(STOP, null, [STOP, OPEN])
    expect(new KeySettings(storage).keysOf(STOP)).toEqual(['b'])
  })
  it('refuses a key that something else has', () => {
    const keys = new KeySettings(stored())
    expect(keys.give(STOP, 'v', [STOP, OPEN])).toBe('v is taken: Open up')
    expect(keys.keysOf(STOP)).toEqual(['b'])
  })
  it('can be switched off; what has Ctrl stays as it is', () => {
    const storage = stored()
    const keys = new KeySettings(storage)
    keys.switch(false)
    expect(new KeySettings(storage).heard).toBe(false)
    expect([isSingle(UNDO), isSingle(STOP)]).toEqual([false, true])
    keys.give(UNDO, 'z', [UNDO])
    expect(keys.keysOf(UNDO)).toEqual(['ctrl+z'])
  })
  it('begin as at first where what is stored cannot be read, or nothing can be stored', () => {
    expect(new KeySettings(stored('{')).heard).toBe(true)
    const full = { getItem: () => null, setItem: () => { throw new Error('full') } } // prettier-ignore
    const keys = new KeySettings(full)
    keys.switch(false)
    expect(keys.heard).toBe(false)
  })
})

describe('the keys of the views', () => {
  it('are each given once, and say what they do', () => {
    const acts = { now: vi.fn(), derive: nothing, show: nothing, keep: nothing }
    for (const keys of [benchKeys(acts), compareKeys(nothing, nothing)]) {
      const on = keys.flatMap((key) => key.on)
      expect(new Set(on).size).toBe(on.length)
      expect(new Set(keys.map((key) => key.does)).size).toBe(keys.length)
    }
  })
  it('show the cases of a comparison in their order', () => {
    const show = vi.fn()
    for (const key of compareKeys(show, nothing).slice(0, 4)) key.run()
    expect(show.mock.calls.flat()).toEqual(['as_set', 'same_place', 'moved', 'other_lens'])
  })
})
