import { describe, expect, it } from 'vitest'
import { byKey, merged, newShot, NO_FILTER, passes, shownFaults, withPictures } from './shotList'
import type { FinderView, ListedAnswer, Shot } from './types'

const shot = (name: string, more: Partial<Shot> = {}): Shot => ({
  ...newShot([], undefined),
  key: name,
  name,
  ...more,
})
const keys = (rows: readonly { key?: string }[]) => rows.map((row) => row.key).join('')
const rows = (text: string) => text.split('').map((key) => ({ key }))

describe('a list whose shown part was changed', () => {
  it.each([
    ['abcdef', 'bd', 'db', 'adcbef', 'reordered'],
    ['abcdef', 'bd', 'b', 'abcef', 'one deleted'],
    ['abcdef', 'bd', 'bxd', 'abcxdef', 'one added between'],
    ['abcdef', 'bd', 'bdx', 'abcdxef', 'one added behind'],
    ['abcdef', 'bd', '', 'acef', 'all deleted'],
    ['abc', '', 'x', 'abcx', 'added to nothing that is shown'],
    ['abc', 'abc', 'cab', 'cab', 'all of it'],
  ])('%s showing %s becomes %s: %s (%s)', (whole, shown, now, expected) => {
    expect(keys(merged(rows(whole), rows(shown), rows(now)))).toBe(expected)
  })
})

describe('what is shown', () => {
  it('goes by day, unit, scene and verdict', () => {
    const one = shot('1', { day: ' 2 ', unit: 'A', scene: 'Cabin' })
    const answer = { verdict: 'cannot' } as ListedAnswer
    expect(passes(NO_FILTER, one, undefined)).toBe(true)
    expect(
      passes({ ...NO_FILTER, day: '2', unit: 'A', scene: 'Cabin', verdict: 'cannot' }, one, answer),
    ).toBe(true)
    for (const other of [{ day: '3' }, { unit: 'B' }, { scene: 'Quay' }, { verdict: 'does' as const }])
      expect(passes({ ...NO_FILTER, ...other }, one, answer)).toBe(false)
  })

  it('has its faults at its own places', () => {
    const whole = [shot('a'), shot('b'), shot('c')]
    const answers = byKey([
      { key: 'c', faults: [{ field: 'framing', rule: 'may be waist' }] } as ListedAnswer,
    ])
    const faults = { 'shots[1].name': 'is required', 'shots[2].framing': 'is too long' }
    expect(shownFaults(whole, whole.slice(1), faults, answers)).toEqual({
      'shots[0].name': 'is required',
      'shots[1].framing': 'is too long',
    })
    expect(shownFaults(whole, whole.slice(2), {}, answers)).toEqual({ 'shots[0].framing': 'may be waist' })
  })

  it('loses a picture that is none any more', () => {
    const view = {} as FinderView
    const first = withPictures(byKey([]) as never, [{ key: 'a', viewfinder: view }])
    expect([...first.keys()]).toEqual(['a'])
    expect([...withPictures(first, [{ key: 'a', viewfinder: null }]).keys()]).toEqual([])
  })
})

it('a new shot is on the day of the one before it, and needs nothing yet', () => {
  const like = shot('1', { day: '2', unit: 'B', scene: 'Cabin', framing: 'waist' })
  expect(newShot([like], like)).toMatchObject({
    day: '2',
    unit: 'B',
    scene: 'Cabin',
    framing: '',
    name: 'Shot',
  })
})
