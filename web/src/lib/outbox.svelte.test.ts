import { describe, expect, it } from 'vitest'
import { Outbox, type Store } from './outbox.svelte'
import { newTake } from './logEntries'
import type { LogEntry, LogKept, Problem } from './types'
import type { Waiting } from './waiting'

/** A browser's database that survives the page. */
function memory(): Store & { kept: Map<number, Waiting> } {
  const kept = new Map<number, Waiting>()
  let next = 1
  return {
    kept,
    all: async () =>
      [...kept.values()].map((item) => structuredClone(item)).sort((a, b) => (a.order ?? 0) - (b.order ?? 0)),
    put: async (item) => {
      const order = item.order ?? next++
      kept.set(order, structuredClone({ ...item, order }))
      return order
    },
    remove: async (order) => void kept.delete(order),
  }
}

/** A server that keeps entries as the real one does; the line to it can go, before or after it has heard. */
class Server {
  kept: Record<string, LogEntry[]> = {}
  arrived: string[] = []
  line: 'there' | 'gone' | 'answers are lost' = 'there'

  write = async (entry: LogEntry, basedOn: number) => {
    if (this.line === 'gone') return { problem: AWAY }
    const versions = (this.kept[entry.key] ??= [])
    const there = versions.some((version) => JSON.stringify(version) === JSON.stringify(entry))
    if (!there && basedOn !== versions.length) {
      const last = versions.at(-1)
      const stored: LogKept | null = last ? { revision: versions.length, entry: last } : null
      return { problem: { code: 'stale_write', message: 'changed elsewhere', faults: [], stored } }
    }
    if (!there) {
      versions.push(entry)
      this.arrived.push(
        `${'take' in entry ? entry.take : ''}${'circled' in entry && entry.circled ? 'o' : ''}`,
      )
    }
    if (this.line === 'answers are lost') return { problem: AWAY }
    return { data: { revision: versions.length, entry: versions.at(-1) ?? entry } }
  }
}
const AWAY: Problem = { code: 'no_answer', message: '', faults: [] }
const WRITER = { by: 'Nell', unit: 'A', day: '1' }
const ON = newTake(WRITER, null, 1, {} as never).on
const take = (number: number) => newTake(WRITER, null, number, ON)

function page(server: Server, store: Store) {
  const again: (() => void)[] = []
  const box = new Outbox(1, server.write, () => {}, store, (work) => work(), (back) => {
    again.push(back)
    return () => {}
  }) // prettier-ignore
  return { box, lineIsBack: () => again.pop()?.() }
}
const settled = () => new Promise((done) => setTimeout(done, 5))

describe('entries on their way', () => {
  it('are sent at once where there is a line, and nothing waits', async () => {
    const server = new Server()
    const { box } = page(server, memory())
    await box.put(take(1), 0)
    expect(box.items).toEqual([])
    expect(server.arrived).toEqual(['1'])
  })

  it('wait in their order without one, over a page that is closed, and arrive once when it is back', async () => {
    const server = new Server()
    const store = memory()
    server.line = 'gone'
    const first = page(server, store)
    const circled = take(2)
    await first.box.put(take(1), 0)
    await first.box.put(circled, 0)
    await first.box.put({ ...circled, circled: true }, 1)
    expect(first.box.items).toHaveLength(3)
    expect(first.box.away).toBe(true)
    // The page is closed; another opens.
    const second = page(server, store)
    await second.box.open()
    await settled()
    expect(second.box.items).toHaveLength(3)
    server.line = 'there'
    second.lineIsBack()
    await settled()
    expect(second.box.items).toEqual([])
    expect(server.arrived).toEqual(['1', '2', '2o'])
    expect(store.kept.size).toBe(0)
  })

  it('whose answer was lost are sent again and are there once', async () => {
    const server = new Server()
    const { box, lineIsBack } = page(server, memory())
    server.line = 'answers are lost'
    await box.put(take(1), 0)
    expect(box.items).toHaveLength(1)
    server.line = 'there'
    lineIsBack()
    await settled()
    expect(server.arrived).toEqual(['1'])
    expect(box.items).toEqual([])
  })

  it.each(['mine', 'theirs'] as const)('in conflict keep both sides: %s', async (stands) => {
    const server = new Server()
    const { box } = page(server, memory())
    // Written a while ago: what stands again is another version of it, by its time.
    const entry = newTake(WRITER, null, 1, ON, new Date(Date.now() - 60_000))
    server.kept[entry.key] = [entry, { ...entry, note: 'theirs' }]
    await box.put({ ...entry, note: 'mine' }, 1)
    await box.put(take(2), 0)
    // What is in conflict holds nothing else back.
    expect(server.arrived).toEqual(['2'])
    const [item] = box.items
    expect(item?.state).toBe('conflict')
    await box.put({ ...entry, note: 'mine, later' }, 2)
    // It waits for the conflict, and nobody waits for it.
    expect([box.items.length, box.moving]).toEqual([2, false])
    if (box.items[1]) await box.drop(box.items[1])
    expect(item?.stored?.revision).toBe(2)
    if (item) await box.settle(item, stands)
    expect(box.items).toEqual([])
    const notes = server.kept[entry.key]?.map((version) => ('note' in version ? version.note : ''))
    expect(notes?.slice(0, 3)).toEqual(['', 'theirs', 'mine'])
    expect(notes?.at(-1)).toBe(stands)
  })

  it('that are refused say why and can be let go', async () => {
    const server = new Server()
    const refuse = async () => ({
      problem: { code: 'invalid_input', message: 'take: at least 1', faults: [{ field: 'take', rule: '' }] },
    })
    const box = new Outbox(
      1,
      refuse,
      () => {},
      memory(),
      (work) => work(),
    )
    await box.put(take(0), 0)
    expect(box.items[0]).toMatchObject({ state: 'refused', told: 'take: at least 1' })
    if (box.items[0]) await box.drop(box.items[0])
    expect(box.items).toEqual([])
    expect(server.arrived).toEqual([])
  })

  it('last until the page is left where the browser has no room', async () => {
    const server = new Server()
    server.line = 'gone'
    const full: Store = {
      all: async () => [],
      put: () => Promise.reject(new Error('quota')),
      remove: async () => {},
    }
    const { box, lineIsBack } = page(server, full)
    await box.put(take(1), 0)
    await box.put(take(2), 0)
    expect([box.unkept, box.items.length]).toEqual([true, 2])
    server.line = 'there'
    lineIsBack()
    await settled()
    expect(server.arrived).toEqual(['1', '2'])
    expect(box.items).toEqual([])
  })
})
