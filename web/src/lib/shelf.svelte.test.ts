import { describe, expect, it, vi } from 'vitest'
import type { Outcome } from './client'
import { Shelf } from './shelf.svelte'

interface Row {
  id: number
  version: number
}
const PROBLEM = { code: 'stale_write', message: 'Changed elsewhere.', faults: [] }

function editor(id: number) {
  return { id, version: 5, document: {}, steps: { back: 0, forth: 0 }, undo: vi.fn(), redo: vi.fn(), close: vi.fn(),
           settle: vi.fn(() => Promise.resolve(true)) } // prettier-ignore
}

function shelfOf(more: object = {}) {
  const rows: Row[] = [{ id: 1, version: 1 }, { id: 2, version: 1 }] // prettier-ignore
  const kind = {
    path: '/p/7/package/lenses',
    list: vi.fn((): Promise<Outcome<{ here: Row[]; removed: Row[] }>> =>
      Promise.resolve({ data: { here: rows, removed: [] } }),
    ),
    read: vi.fn((id: number): Promise<Outcome<Row>> => Promise.resolve({ data: { id, version: 1 } })),
    add: vi.fn((from: Row): Promise<Outcome<Row>> => Promise.resolve({ data: from })),
    remove: vi.fn((id: number): Promise<Outcome<Row>> => Promise.resolve({ data: { id, version: 2 } })),
    edit: vi.fn((kept: Row, onkept: () => void) => Object.assign(editor(kept.id), { onkept })),
    ...more,
  }
  return { shelf: new Shelf(kind), kind }
}

describe('a list of documents', () => {
  it('opens one in the place of the one before it', async () => {
    const { shelf, kind } = shelfOf()
    await shelf.refresh()
    await shelf.open(1)
    const first = shelf.editor
    await shelf.open(1)
    expect(kind.read).toHaveBeenCalledTimes(1)
    await shelf.open(2)
    expect(first?.close).toHaveBeenCalled()
    expect([shelf.editor?.id, shelf.current?.id]).toEqual([2, 2])
  })

  it('shows the one that was asked for last, however late others come', async () => {
    const waiting: ((kept: Outcome<Row>) => void)[] = []
    const { shelf } = shelfOf({ read: () => new Promise((done) => waiting.push(done)) })
    const late = shelf.open(1)
    const last = shelf.open(2)
    waiting[1]?.({ data: { id: 2, version: 1 } })
    await last
    waiting[0]?.({ data: { id: 1, version: 1 } })
    await late
    expect(shelf.editor?.id).toBe(2)
  })

  it('keeps what was refused on screen when a slower reading comes back', async () => {
    let done: (kept: Outcome<Row>) => void = () => {}
    const { shelf } = shelfOf({
      read: () => new Promise((resolve) => (done = resolve)),
      add: () => Promise.resolve({ problem: PROBLEM }),
    })
    const reading = shelf.open(1)
    await shelf.add({ id: 9, version: 1 })
    done({ data: { id: 1, version: 1 } })
    await reading
    await shelf.refresh()
    expect(shelf.problem).toEqual(PROBLEM)
  })

  it('tells why a list could not be read until it can', async () => {
    const list = vi
      .fn()
      .mockResolvedValueOnce({ problem: PROBLEM })
      .mockResolvedValue({ data: { here: [], removed: [] } })
    const { shelf } = shelfOf({ list })
    await shelf.refresh()
    expect(shelf.problem).toEqual(PROBLEM)
    await shelf.refresh()
    expect(shelf.problem).toBeNull()
  })

  it('takes the open one out at its newest version, and brings others back', async () => {
    const { shelf, kind } = shelfOf()
    await shelf.refresh()
    await shelf.open(1)
    await shelf.setRemoved({ id: 1, version: 1 }, true)
    expect(kind.remove).toHaveBeenCalledWith(1, 5, true)
    expect([shelf.editor, location.pathname]).toEqual([null, '/p/7/package/lenses'])
    await shelf.setRemoved({ id: 2, version: 3 }, false)
    expect(kind.remove).toHaveBeenLastCalledWith(2, 3, false)
    expect(location.pathname).toBe('/p/7/package/lenses/2')
  })

  it('has no list to refresh when it was left', async () => {
    const { shelf, kind } = shelfOf()
    await shelf.open(1)
    const { editor: open } = shelf
    shelf.leave()
    kind.list.mockClear()
    open?.onkept()
    expect(kind.list).not.toHaveBeenCalled()
  })
})
