import { describe, expect, it } from 'vitest'
import { apart, merged, valueWords } from './merging'
import { alike } from './paths'

interface Row {
  key: string
  name: string
  stop?: number | null
  distance?: { m: number; unit: string } | null
  formats?: Row[]
}
const row = (key: string, more: Partial<Row> = {}): Row => ({ key, name: `Shot ${key}`, ...more })
const list = (...rows: Row[]) => ({ title: 'Low Water', shots: rows })
const keys = (document: { shots: Row[] }) => document.shots.map((each) => each.key).join('')

describe('two changes of one document', () => {
  const base = list(row('a', { stop: 2 }), row('b'), row('c'))

  it('are both there where they touch different rows, or different fields of one', () => {
    const mine = list(row('a', { stop: 4 }), row('b'), row('c'))
    const theirs = {
      ...list(row('a', { stop: 2, name: 'Deck' }), row('b', { stop: 8 }), row('c')),
      title: 'High Water',
    }
    const both = merged(base, mine, theirs)
    expect(both.differences).toEqual([])
    expect(both.mine).toEqual({
      title: 'High Water',
      shots: [row('a', { stop: 4, name: 'Deck' }), row('b', { stop: 8 }), row('c')],
    })
    expect(both.theirs).toEqual(both.mine)
  })

  it('are asked about where one place says two things, and all else stays either way', () => {
    const mine = list(row('a', { stop: 4 }), row('b', { stop: 1.4 }), row('c'))
    const theirs = list(row('a', { stop: 5.6 }), row('b'), row('c'), row('d'))
    const both = merged(base, mine, theirs)
    expect(both.differences).toEqual([{ where: 'Shot a, stop', mine: 4, theirs: 5.6 }])
    for (const document of [both.mine, both.theirs]) {
      expect(keys(document)).toBe('abcd')
      expect(document.shots[1]?.stop).toBe(1.4)
    }
    expect([both.mine.shots[0]?.stop, both.theirs.shots[0]?.stop]).toEqual([4, 5.6])
  })

  it('never tear a value apart', () => {
    const metres = list(row('a', { distance: { m: 3, unit: 'm' } }))
    const mine = list(row('a', { distance: { m: 4, unit: 'm' } }))
    const theirs = list(row('a', { distance: { m: 3, unit: 'ft' } }))
    const both = merged(metres, mine, theirs)
    expect(both.differences).toHaveLength(1)
    expect(both.mine.shots[0]?.distance).toEqual({ m: 4, unit: 'm' })
    expect(both.theirs.shots[0]?.distance).toEqual({ m: 3, unit: 'ft' })
  })

  it('remove a row that nobody changed, and ask about one that was', () => {
    const gone = list(row('a', { stop: 2 }), row('c'))
    expect(keys(merged(base, gone, list(row('a', { stop: 8 }), row('b'), row('c'))).mine)).toBe('ac')
    const changed = list(row('a', { stop: 2 }), row('b', { stop: 8 }), row('c'))
    const both = merged(base, gone, changed)
    expect(both.differences).toEqual([{ where: 'Shot b', mine: 'removed', theirs: 'changed' }])
    expect([keys(both.mine), keys(both.theirs)]).toEqual(['ac', 'abc'])
    const turned = merged(base, changed, gone)
    expect([keys(turned.mine), keys(turned.theirs)]).toEqual(['abc', 'ac'])
  })

  it('keep the order of who moved rows, and new rows after what they stood after', () => {
    const moved = list(row('c'), row('a', { stop: 2 }), row('b'))
    const added = list(row('a', { stop: 2 }), row('x'), row('b'), row('c'), row('y'))
    expect(keys(merged(base, moved, added).mine)).toBe('cyaxb')
    expect(keys(merged(base, added, moved).mine)).toBe('cyaxb')
    expect(keys(merged(base, list(row('n'), ...base.shots), base).mine)).toBe('nabc')
  })

  it('go down into the rows of rows', () => {
    const deep = (fps: number, name: string) => ({
      modes: [row('m', { formats: [row('f', { stop: fps, name })] })],
    })
    const both = merged(deep(25, 'UHD'), deep(50, 'UHD'), deep(25, 'UHD, Log'))
    expect(both.mine).toEqual(deep(50, 'UHD, Log'))
    expect(both.differences).toEqual([])
  })
})

/** Small, repeatable chance: a linear congruence. */
function chance(seed: number) {
  let state = seed * 2654435761
  return (most: number) => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 3266489917) >>> 0
    return state % most
  }
}

it('loses nothing of two hundred random pairs of edits', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const below = chance(seed)
    const names = 'abcdefgh'.slice(0, 2 + below(6)).split('')
    const base = list(...names.map((key) => row(key, { stop: below(4) })))
    const edit = (mark: string) => {
      let shots = base.shots.map((each) => (below(3) ? each : { ...each, stop: 10 + below(3) }))
      if (below(3) === 0) shots = shots.filter(() => below(4) > 0)
      if (below(3) === 0) shots.splice(below(shots.length + 1), 0, row(mark, { stop: 1 }))
      if (below(4) === 0) shots.reverse()
      return { ...base, shots }
    }
    const [mine, theirs] = [edit('X'), edit('Y')]
    const both = merged(base, mine, theirs)
    const at = (document: typeof base, key: string) => document.shots.find((each) => each.key === key)
    for (const key of [...names, 'X', 'Y']) {
      const [was, one, other] = [base, mine, theirs].map((document) => at(document, key))
      const asked = both.differences.some((each) => each.where.startsWith(`Shot ${key}`))
      const wanted = alike(one, was) ? other : one
      if (!asked) expect(at(both.mine, key), `${seed} ${key}`).toEqual(wanted)
      if (!asked) expect(at(both.theirs, key), `${seed} ${key}`).toEqual(wanted)
      if (asked) expect([at(both.mine, key), at(both.theirs, key)]).toEqual([one, other])
      // Only what both changed otherwise is asked about.
      expect(asked, `${seed} ${key}`).toBe(!alike(one, was) && !alike(other, was) && !alike(one, other))
    }
    expect(new Set(both.mine.shots.map((each) => each.key)).size).toBe(both.mine.shots.length)
    // One that changed nothing has nothing to say.
    expect(merged(base, base, theirs).mine).toEqual(theirs)
    expect(merged(base, mine, base).mine).toEqual(mine)
  }
})

it('tells values in a few words', () => {
  expect([null, '', true, 2.8, 'Deck', [1, 2], [], [{ a: 1 }], { m: 3, unit: 'ft' }].map(valueWords)).toEqual([
    'nothing', 'nothing', 'yes', '2.8', 'Deck', '1, 2', 'nothing', '1 entry', 'm 3, unit ft',
  ]) // prettier-ignore
  expect(valueWords('x'.repeat(100))).toHaveLength(60)
  expect(apart({ stop: 2, subject_m: 3 }, { stop: 2, subject_m: 4 })).toEqual([
    { where: 'subject', mine: 3, theirs: 4 },
  ])
})
