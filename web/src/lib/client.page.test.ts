import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { patiently } from './client'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** A server that is busy for so many requests. */
function busyFor(times: number, code: string) {
  const asked = vi.fn(async () =>
    asked.mock.calls.length <= times
      ? new Response(JSON.stringify({ error: { code } }), { status: 503, headers: { 'Retry-After': '1' } })
      : new Response('{}', { status: 200 }),
  )
  vi.stubGlobal('fetch', asked)
  return asked
}

const of = (method: string) => new Request('http://127.0.0.1/api/v1/x', { method })

describe('a server that is busy', () => {
  it.each([
    ['GET', 'busy', 200, 3],
    ['POST', 'busy', 200, 3],
    ['GET', 'database_unavailable', 200, 3],
    // Nobody knows whether it was done: it is not done again by itself.
    ['POST', 'database_unavailable', 503, 1],
  ])('%s that is refused as %s ends with %i after %i requests', async (method, code, status, times) => {
    const asked = busyFor(2, code)
    const answer = patiently(of(method))
    await vi.advanceTimersByTimeAsync(5_000)
    expect((await answer).status).toBe(status)
    expect(asked).toHaveBeenCalledTimes(times)
  })

  it('is not asked for ever', async () => {
    const asked = busyFor(99, 'busy')
    const answer = patiently(of('GET'))
    await vi.advanceTimersByTimeAsync(60_000)
    expect((await answer).status).toBe(503)
    expect(asked).toHaveBeenCalledTimes(4)
  })
})
