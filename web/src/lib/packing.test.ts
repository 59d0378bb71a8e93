import { describe, expect, it } from 'vitest'
import { money, moved, newKit, reordered, stockOf, stockRows, toggled, wholeOrder } from './packing'
import type { Packing, StockThing } from './types'

const thing = (kind: StockThing['kind'], name: string, of = ''): StockThing => ({
  kind,
  name,
  of,
  weight_kg: null,
  owned: false,
  count: 1,
  from_day: '',
  cost: null,
  stated: false,
})
const THINGS = [
  thing('body', 'Ebb 64'),
  thing('lens', 'Merrow 29', 'Merrow'),
  thing('lens', 'Merrow 35', 'Merrow'),
]
const EMPTY: Packing = {
  schema: 'hextan.packing',
  schema_version: 1,
  currency: '',
  hire_days: null,
  together_on: null,
  moves: { lens: 4, body: 8, gimbal: 6, mode: 1 },
  stock: [],
  kits: [],
}

describe('the order of a kit', () => {
  it('has every objective', () =>
    expect(wholeOrder([{ by: 'cost', slack: 5 }]).map((step) => step.by)).toEqual([
      'cost',
      'lenses',
      'changes',
      'weight',
      'wishes',
    ]))
  it.each([
    [0, 2, ['b', 'c', 'a']],
    [2, 0, ['c', 'a', 'b']],
    [1, 9, ['a', 'c', 'b']],
    [7, 0, ['a', 'b', 'c']],
  ])('moves a word from %i to %i', (from, to, result) =>
    expect(moved(['a', 'b', 'c'], from, to)).toEqual(result),
  )
  it('names of kits differ', () => expect(newKit([newKit([])]).name).not.toBe(newKit([]).name))
})

describe('the stock', () => {
  it('has a row for every thing, a set before its lenses', () =>
    expect(stockRows(EMPTY, THINGS).map((row) => row.name)).toEqual([
      'Ebb 64',
      'All of Merrow',
      'Merrow 29',
      'Merrow 35',
    ]))
  it('keeps only what says something', () => {
    const rows = stockRows(EMPTY, THINGS)
    expect(stockOf(EMPTY, rows, rows)).toEqual([])
    const changed = rows.map((row) => (row.set ? { ...row, per_day: 20 } : row))
    const stock = stockOf(EMPTY, rows, changed)
    expect(stock.map((row) => [row.thing.of, row.thing.name, row.per_day])).toEqual([['Merrow', '', 20]])
    // Its lenses have what it says, and say nothing themselves when it changes.
    const next = { ...EMPTY, stock }
    const now = stockRows(next, THINGS)
    expect(now.map((row) => row.per_day)).toEqual([null, 20, 20, 20])
    const dearer = now.map((row) => (row.set ? { ...row, per_day: 30 } : row))
    expect(stockOf(next, now, dearer)).toHaveLength(1)
    // One of them may say otherwise.
    const own = now.map((row) => (row.name === 'Merrow 35' ? { ...row, owned: true } : row))
    expect(stockOf(next, now, own).map((row) => [row.thing.name, row.owned, row.per_day])).toEqual([
      ['', false, 20],
      ['Merrow 35', true, 20],
    ])
  })
  it('keeps what is said of things that are gone', () => {
    const gone = { ...EMPTY, stock: stockOf(EMPTY, [], []) }
    const sold = { ...stockRows(EMPTY, [thing('body', 'Sold')])[0], owned: true }
    const kept = {
      ...gone,
      stock: stockOf(EMPTY, stockRows(EMPTY, [thing('body', 'Sold')]), [sold as never]),
    }
    const rows = stockRows(kept, THINGS)
    expect(stockOf(kept, rows, rows).map((row) => row.thing.name)).toEqual(['Sold'])
  })
})

describe('lists', () => {
  it('take a name once', () => {
    const name = { kind: 'body' as const, name: 'Ebb 64', of: '' }
    expect(toggled([name], name, true)).toEqual([name])
    expect(toggled([name], { ...name }, false)).toEqual([])
  })
  it('of shots are put in another order where they stand', () => {
    const shots = ['a', 'x', 'b', 'c'].map((key) => ({ key }))
    expect(reordered(shots, ['c', 'a', 'b']).map((shot) => shot.key)).toEqual(['c', 'x', 'a', 'b'])
  })
})

it.each([
  [1234567, 'EUR', '1\u202f234\u202f567 EUR'],
  [20.5, '', '20.50'],
  [null, 'EUR', '–'],
])('writes %s as an amount', (value, currency, text) => expect(money(value, currency)).toBe(text))
