import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { announcer } from './announcer.svelte'
import { late } from './late.svelte'
import { LATE_MS, Latest } from './latest'
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
  it('what was asked always ends, however long it takes: a slow line brings answers all the same', async () => {
    const { latest, open } = asked()
    latest.want()
    for (let n = 0; n < 60; n += 1) {
      vi.advanceTimersByTime(100)
      latest.want()
    }
    expect(open[0]?.signal.aborted).toBe(false)
    open[0]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(open.map((o) => o.question)).toEqual([1, 2])
    open[1]?.done()
    await vi.advanceTimersByTimeAsync(0)
  })
  it('says after a moment that what is shown is not of what is set, until it is', async () => {
    const { latest, open } = asked()
    latest.want()
    vi.advanceTimersByTime(LATE_MS - 10)
    expect(late.count).toBe(0)
    // The newest waits from when it was wanted, not from when it is asked.
    latest.want()
    open[0]?.done()
    await vi.advanceTimersByTimeAsync(0)
    vi.advanceTimersByTime(LATE_MS - 10)
    expect(late.count).toBe(0)
    vi.advanceTimersByTime(20)
    expect(late.count).toBe(1)
    open[1]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(late.count).toBe(0)
  })
  it('stays late while ever newer questions wait long', async () => {
    const { latest, open } = asked()
    latest.want()
    latest.want()
    vi.advanceTimersByTime(1000)
    open[0]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(late.count).toBe(1)
    open[1]?.done()
    await vi.advanceTimersByTimeAsync(0)
    expect(late.count).toBe(0)
  })
})
