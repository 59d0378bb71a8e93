import { afterEach, describe, expect, it, vi } from 'vitest'
import { forget, productionOf } from './kept'

afterEach(() => vi.unstubAllGlobals())

/** Caches of a browser: one by its name, with addresses in it. */
function keeping(addresses: string[]) {
  const kept = new Set(addresses)
  vi.stubGlobal('caches', {
    has: async (name: string) => name === 'hextan-day-1',
    open: async () => ({
      keys: async () => [...kept].map((url) => ({ url })),
      delete: async ({ url }: { url: string }) => kept.delete(url),
    }),
  })
  return kept
}

describe('what is kept for when there is no line', () => {
  it.each([
    ['/api/v1/productions/12/shots', 12],
    ['/api/v1/productions/1', 1],
    // What was kept before addresses had a version.
    ['/api/productions/12/shots', 12],
    ['/api/v1/productions', null],
    ['/p/12/shots', null],
  ])('%s is of %s', (address, id) => expect(productionOf(address)).toBe(id))

  it('goes with the production that was removed, and with no other', async () => {
    const at = (path: string) => `${location.origin}${path}`
    const kept = keeping(
      ['/api/v1/productions', '/api/v1/productions/1/shots', '/api/v1/productions/1', '/api/v1/productions/12/shots', '/api/v1/productions/12/log?day=1'].map(at),
    ) // prettier-ignore
    await forget(1)
    expect([...kept]).toEqual(['/api/v1/productions/12/shots', '/api/v1/productions/12/log?day=1'].map(at))
  })

  it('is nothing where the browser keeps none', async () => {
    vi.stubGlobal('caches', undefined)
    await forget(1)
  })
})
