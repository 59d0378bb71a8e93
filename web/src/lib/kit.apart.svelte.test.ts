import { beforeEach, describe, expect, it, vi } from 'vitest'
import * as client from './client'
import { asOnBench, KitLook } from './kit.svelte'
import type { BenchState, Package } from './types'

vi.mock('./client', () => ({ readPackage: vi.fn(), readBench: vi.fn() }))

const BENCH = {
  format_id: 9, lens_id: 4, reference: { name: 'super35', by: 'width' }, delivery: { aspect: 2.39 }, crop_ids: [5], fps: 25,
} as unknown as BenchState // prettier-ignore
const EQUIPMENT = { bodies: [], lens_sets: [], adapters: [] } as unknown as Package

interface Ask {
  focal: number
  crop_ids?: number[]
}
const look = (question = vi.fn(() => Promise.resolve({ data: 'answer' })), inAddress = true) => ({
  question,
  made: new KitLook<Ask, string>(
    7,
    (bench) => ({ focal: 50, crop_ids: bench.crop_ids }),
    question,
    inAddress,
  ),
})
const soon = () => new Promise((done) => setTimeout(done, 5))

beforeEach(() => {
  history.replaceState(null, '', '/p/7/package/match')
  vi.mocked(client.readPackage).mockResolvedValue({ data: EQUIPMENT })
  vi.mocked(client.readBench).mockResolvedValue({ data: { version: 1, state: BENCH } })
})

describe('a question about the whole kit', () => {
  it('begins as the Bench is set', async () => {
    expect(asOnBench(BENCH)).toEqual({ reference: BENCH.reference, delivery: BENCH.delivery, crop_ids: [5] })
    const { made, question } = look()
    await soon()
    expect(made.ask).toEqual({ focal: 50, crop_ids: [5] })
    expect(question).toHaveBeenCalledTimes(1)
    expect([made.answer, made.equipment, made.bench?.fps]).toEqual(['answer', EQUIPMENT, 25])
  })

  it('stands in the address and comes back from it', async () => {
    const { made } = look()
    await soon()
    made.change({ focal: 35 })
    expect(JSON.parse(new URLSearchParams(location.search).get('ask') ?? '')).toEqual({
      focal: 35,
      crop_ids: [5],
    })
    const again = look().made
    await soon()
    expect(again.ask).toEqual({ focal: 35, crop_ids: [5] })
  })

  it.each(['?ask=nonsense', '?ask=[1]', '?ask=null', '?ask=7', ''])(
    'passes over an address that says %s',
    async (search) => {
      history.replaceState(null, '', `/p/7/package/match${search}`)
      const { made } = look()
      await soon()
      expect(made.ask).toEqual({ focal: 50, crop_ids: [5] })
    },
  )

  it('leaves the address alone where it is one of several', async () => {
    const { made } = look(undefined, false)
    await soon()
    made.change({ focal: 35 })
    expect([made.ask?.focal, location.search]).toEqual([35, ''])
  })

  it('keeps the last answer while something is refused, and names the field', async () => {
    const question = vi.fn<() => Promise<client.Outcome<string>>>(() => Promise.resolve({ data: 'good' }))
    const { made } = look(question as never)
    await soon()
    question.mockResolvedValue({
      problem: { code: 'invalid_input', message: '', faults: [{ field: 'focal', rule: 'must be a number' }] },
    })
    made.change({ focal: 'x' as never })
    await soon()
    expect([made.answer, made.faults]).toEqual(['good', { focal: 'must be a number' }])
  })

  it('says why there is nothing to ask about', async () => {
    const problem = { code: 'not_found', message: 'No lens yet.', faults: [] }
    vi.mocked(client.readBench).mockResolvedValue({ problem })
    const { made, question } = look()
    await soon()
    expect([made.problem, made.ask]).toEqual([problem, null])
    made.change({ focal: 1 })
    expect(question).not.toHaveBeenCalled()
  })
})
