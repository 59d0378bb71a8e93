import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { announcer } from './announcer.svelte'
import { Latest } from './latest'
import { whenBack } from './reconnect'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('what was just done', () => {
  it('is said once things stand still, and only the last of it', () => {
    announcer.say('T2.5')
    vi.advanceTimersByTime(300)
    announcer.say('T2.8')
    vi.advanceTimersByTime(600)
    expect(announcer.text).not.toBe('T2.5')
    vi.advanceTimersByTime(200)
    expect(announcer.text).toBe('T2.8')
  })
})

describe('a server that is away', () => {
  it('is asked again and again, and told of once when it is back', async () => {
    const back = vi.fn()
    let up = false
    whenBack(back, async () => up)
    await vi.advanceTimersByTimeAsync(7000)
    expect(back).not.toHaveBeenCalled()
    up = true
    await vi.advanceTimersByTimeAsync(9000)
    expect(back).toHaveBeenCalledOnce()
  })
  it('is left in peace when nobody waits any more', async () => {
    const back = vi.fn()
    const answers = vi.fn(async () => true)
    whenBack(back, answers)()
    await vi.advanceTimersByTimeAsync(9000)
    expect(answers).not.toHaveBeenCalled()
    expect(back).not.toHaveBeenCalled()
  })
})

describe('one question at a time', () => {
  function asked() {
    const open: { question: number; signal: AbortSignal; done: () => void }[] = []
    let now = 0
    const latest = new Latest(
      () => ++now,
      (question, signal) => new Promise<void>((done) => open.push({ question, signal, done })),
    )
    return { latest, open }
  }
  it('only the newest waits for the answer of the first', async () => {
    const { latest, open } = asked()
    latest.want()
    latest.want()
    latest.want()
    expect(open.map((o) => o.question)).toEqual([1])
    open[0]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(open.map((o) => o.question)).toEqual([1, 2])
    open[1]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(open).toHaveLength(2)
  })
  it('gives up what has waited long, but not what was just asked', () => {
    const { latest, open } = asked()
    latest.want()
    latest.want()
    expect(open[0]?.signal.aborted).toBe(false)
    vi.advanceTimersByTime(500)
    latest.want()
    expect(open[0]?.signal.aborted).toBe(true)
  })
})
