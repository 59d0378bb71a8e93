import { describe, expect, it } from 'vitest'
import { circlesText, copyOfLens, newAdapter, newLens, newMount, typedCircles } from './lenses.svelte'

describe('tables of circles', () => {
  it.each([
    ['2.4: 27.9; 4: 28.7', [{ at: 2.4, circle_mm: 27.9 }, { at: 4, circle_mm: 28.7 }]],
    ['0,9: 31,8; ∞: 30.2;', [{ at: 0.9, circle_mm: 31.8 }, { at: null, circle_mm: 30.2 }]],
    ['inf: 30', [{ at: null, circle_mm: 30 }]],
    ['', []],
    // What cannot be read goes to the server as it is, which says what is wrong.
    ['near: 30; 4 28', [{ at: 'near', circle_mm: 30 }, { at: '4 28', circle_mm: '' }]],
  ])('reads %s', (text, rows) => expect(typedCircles(text)).toEqual(rows)) // prettier-ignore

  it('writes what it reads', () => {
    const rows = [{ at: 0.9, circle_mm: 31.8 }, { at: null, circle_mm: 30.2 }] // prettier-ignore
    expect(circlesText(rows)).toBe('0.9: 31.8; ∞: 30.2')
    expect(typedCircles(circlesText(rows))).toEqual(rows)
  })
})

describe('new rows', () => {
  it('begins a lens like the one that is chosen, with a name and key of its own', () => {
    const first = newLens([], undefined)
    const like = {
      ...first,
      mount: 'K50',
      squeeze: 2,
      t_stop: 2.3,
      iris: 'either' as const,
      image_circle_mm: 31,
    }
    const next = newLens([like], like)
    expect(next).toMatchObject({
      mount: 'K50',
      squeeze: 2,
      t_stop: 2.3,
      iris: 'either',
      image_circle_mm: null,
    })
    expect([next.name, next.key === like.key]).toEqual(['New lens (2)', false])
    const copy = copyOfLens(like, [like])
    expect([copy.name, copy.image_circle_mm]).toEqual(['New lens (2)', 31])
    expect(copy.key).not.toBe(like.key)
  })

  it('begins mounts and adapters', () => {
    const mount = newMount([])
    expect(mount).toMatchObject({ name: 'New mount', flange_mm: null })
    expect(newAdapter([], [])).toMatchObject({ lens_mount: 'unknown', body_mount: 'unknown', glass: false })
    expect(newAdapter([], [mount, { ...mount, name: 'K50' }])).toMatchObject({
      lens_mount: 'New mount',
      body_mount: 'K50',
    })
  })
})
