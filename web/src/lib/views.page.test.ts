/** docs/extending.md, done: a view that nobody has, as a row of the table. */
import { describe, expect, it } from 'vitest'
import { placeOf } from './router.svelte'
import { SECTIONS, VIEWS } from './views'

const files = Object.keys(import.meta.glob('../views/**/*View.svelte'))

describe('the table of views', () => {
  it('names files that are there, each once', () => {
    for (const { file } of VIEWS) expect(files).toContain(`../views/${file}.svelte`)
    for (const { file } of SECTIONS) expect(files).toContain(`../views/package/${file}.svelte`)
    for (const table of [VIEWS, SECTIONS]) {
      const names = table.map((row) => row.name)
      expect(new Set<string>(names).size).toBe(names.length)
    }
  })

  it('lets the router find a view that is added to it', () => {
    const more = [...VIEWS, { name: 'log', title: 'Log', file: 'LogView' }] as const
    expect(placeOf('/p/3/log/12', more)).toEqual({
      productionId: 3,
      view: 'log',
      rest: ['12'],
      unknown: false,
    })
    expect(placeOf('/p/3/log/12').unknown).toBe(true)
  })
})
