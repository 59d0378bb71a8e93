import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Draft } from './draft.svelte'

describe('the productions that were opened last', () => {
  beforeEach(() => {
    localStorage.clear()
    vi.resetModules()
  })
  const fresh = async () => (await import('./recent.svelte')).recent

  it('come first under the name that they have now, six at most, and survive a reload', async () => {
    const recent = await fresh()
    for (let id = 1; id <= 8; id++) recent.visit(id, `P${id}`)
    recent.visit(5, 'Renamed')
    expect(recent.list.map((v) => v.name)).toEqual(['Renamed', 'P8', 'P7', 'P6', 'P4', 'P3'])
    vi.resetModules()
    expect((await fresh()).list).toEqual(recent.list)
  })

  it('are only those that are there', async () => {
    const recent = await fresh()
    recent.visit(1, 'One')
    recent.visit(2, 'Two')
    recent.among([1, 7])
    expect(recent.list).toEqual([{ id: 1, name: 'One' }])
  })

  it.each(['no json', '{}', '[1, {"id": "x"}]'])('forget %s', async (kept) => {
    localStorage.setItem('hextan.recent', kept)
    expect((await fresh()).list).toEqual([])
  })
})

describe('a draft', () => {
  const EMPTY = { name: '', modes: 'full' }
  beforeEach(() => sessionStorage.clear())

  it('is there after a reload, until it is kept elsewhere', () => {
    const draft = new Draft('d', EMPTY)
    draft.set({ ...draft.value, name: 'Weir' })
    expect(new Draft('d', EMPTY).value).toEqual({ name: 'Weir', modes: 'full' })
    expect(new Draft('other', EMPTY).value).toEqual(EMPTY)
    draft.clear()
    expect([draft.value, new Draft('d', EMPTY).value]).toEqual([EMPTY, EMPTY])
  })

  it('begins empty where what was kept cannot be read', () => {
    sessionStorage.setItem('d', '{')
    expect(new Draft('d', EMPTY).value).toEqual(EMPTY)
  })
})
