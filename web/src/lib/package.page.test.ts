import { beforeEach, describe, expect, it, vi } from 'vitest'
import { faultsOf } from './faults'
import { fromAddress, toAddress } from './finder'
import { percent, ratesText } from './format'
import { Latest } from './latest'
import { alike, getAt, moved, parsePath, setAt, typedList, typedNumber, typedNumbers } from './paths'
import { placeOf } from './router.svelte'
import { copyOfMode, deleted, freeName, inserted, newFormat, newMode, shifted } from './rows'

describe('paths', () => {
  it('two documents are alike whatever the order of keys, and empty or left out', () => {
    expect(alike({ a: 1, b: [{ c: '' }] }, { b: [{}], a: 1, d: null })).toBe(true)
    expect(alike({ a: '3' }, { a: '3 m' })).toBe(false)
    expect(alike([1], [1, 2])).toBe(false)
  })

  it('reads the paths that the server writes', () => {
    expect(parsePath('modes[0].formats[12].rates[1]')).toEqual(['modes', 0, 'formats', 12, 'rates', 1])
    expect(parsePath('pitch_um')).toEqual(['pitch_um'])
  })

  it('changes one place and shares the rest', () => {
    const whole = { modes: [{ window: [1, 2] }, { window: [3, 4] }], crops: [] }
    const changed = setAt(whole, parsePath('modes[1].window[0]'), 9)
    expect(changed.modes[1]?.window).toEqual([9, 4])
    expect(changed.modes[0]).toBe(whole.modes[0])
    expect(changed.crops).toBe(whole.crops)
    expect(whole.modes[1]?.window).toEqual([3, 4])
    expect(getAt(changed, ['modes', 1, 'window', 0])).toBe(9)
    expect(getAt(changed, ['modes', 7, 'window'])).toBeUndefined()
  })

  it.each([
    ['6.35', 6.35],
    ['6,35', 6.35],
    [' 42 ', 42],
    ['', null],
    ['wide', 'wide'],
    ['0x10', '0x10'],
    ['1e3', 1000],
    ['-', '-'],
  ])('takes %s for what it is', (text, value) => expect(typedNumber(text)).toBe(value))

  it('moves within a list and stays at its ends', () => {
    expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c'])
    expect(moved(['a', 'b'], 1, 5)).toEqual(['a', 'b'])
    expect(moved(['a', 'b'], 7, 0)).toEqual(['a', 'b'])
  })
})

describe('rows', () => {
  const rows = [newFormat([]), { ...newFormat([]), name: 'UHD' }]

  it('gives names that are free', () => {
    expect(freeName('UHD', rows)).toBe('UHD (2)')
    expect(freeName('UHD (2)', [...rows, { name: 'UHD (2)' }])).toBe('UHD (3)')
    expect(freeName('HD', rows)).toBe('HD')
  })

  it('inserts below, moves, deletes, and says what is chosen then', () => {
    const [first, second] = rows
    const more = inserted(rows, newFormat(rows), first?.key)
    expect(more.rows.map((r) => r.name)).toEqual(['New format', 'New format (2)', 'UHD'])
    expect(more.chosen).toBe(more.rows[1]?.key)
    expect(shifted(rows, second?.key, -1).rows[0]).toBe(second)
    expect(deleted(rows, second?.key)).toEqual({ rows: [first], chosen: first?.key })
    expect(deleted(rows.slice(0, 1), first?.key).chosen).toBeUndefined()
  })

  it('copies a mode with its formats under keys of their own', () => {
    const mode = { ...newMode([6000, 4000], []), formats: rows }
    const copy = copyOfMode(mode, [mode])
    expect(copy.name).toBe('New scan mode (2)')
    const keys = [mode, copy].flatMap((m) => [m.key, ...(m.formats ?? []).map((f) => f.key)])
    expect(new Set(keys).size).toBe(6)
  })
})

describe('figures', () => {
  it('prints exact rates as the trade does', () => {
    expect(ratesText(['24000/1001', '25', '30..60', '60000/1001..120'])).toBe('23.976, 25, 30–60, 59.94–120')
    expect(typedList('23.976, 25 ;1-60,')).toEqual(['23.976', '25', '1-60'])
    // A comma between digits is a decimal one beside other signs, parts where there are several, and is asked about alone.
    expect(typedList('23,976 24 25')).toEqual(['23.976', '24', '25'])
    expect(typedList('1 - 60, 23,976')).toEqual(['1-60', '23.976'])
    expect(typedNumbers('2,4,6')).toEqual([2, 4, 6])
    expect(typedNumbers('2, 4; 6')).toEqual([2, 4, 6])
    expect(typedNumbers('1,5')).toEqual(['1,5'])
    expect(typedNumbers('1,5 3')).toEqual([1.5, 3])
    expect([typedNumber('2,8'), typedNumber('1,234')]).toEqual([2.8, '1,234'])
  })

  it('gives no sign to what rounds to nothing', () => {
    expect([percent(-0.04, 1), percent(6.83, 1), percent(-50)]).toEqual(['0.0 %', '+6.8 %', '−50 %'])
  })
})

it('carries what the finder is asked in the address', () => {
  const ask = { rate: { must: true, weight: 1, fps: '100', interlaced: false }, raw: null }
  const back = fromAddress(`?${toAddress(ask)}`)
  expect(back).toEqual({ rate: ask.rate })
  expect(fromAddress('?ask={"bits":{"least":10}}')).toEqual({ bits: { must: true, weight: 1, least: 10 } })
  expect(fromAddress('?ask=nonsense')).toBeNull()
  expect(fromAddress('')).toBeNull()
})

it.each([
  ['/', { productionId: null, view: 'productions', rest: [], unknown: false }],
  ['/p/3', { productionId: 3, view: 'bench', rest: [], unknown: false }],
  ['/p/3/bench', { productionId: 3, view: 'bench', rest: [], unknown: false }],
  ['/p/3/package/bodies/7', { productionId: 3, view: 'package', rest: ['bodies', '7'], unknown: false }],
  ['/p/3/elsewhere', { productionId: null, view: 'bench', rest: [], unknown: true }],
])('%s names a view, or none', (path, place) => expect(placeOf(path)).toEqual(place))

it('tells faults by the field, without the prefix of the question', () => {
  const faults = [{ field: 'document.modes[0].name', rule: 'is required' }]
  expect(faultsOf({ code: 'invalid_input', message: '', faults }, 'document.')).toEqual({
    'modes[0].name': 'is required',
  })
  expect(faultsOf({ code: 'stale_write', message: '', faults })).toEqual({})
})

describe('the newest question', () => {
  beforeEach(() => void vi.useFakeTimers())

  it('is the only one that waits while another is under way', async () => {
    const asked: number[] = []
    let now = 0
    const latest = new Latest(
      () => now,
      (question) => {
        asked.push(question)
        return new Promise((done) => setTimeout(done, 100))
      },
    )
    for (now = 1; now <= 5; now++) latest.want()
    now = 5
    await vi.advanceTimersByTimeAsync(250)
    expect(asked).toEqual([1, 5])
    vi.useRealTimers()
  })
})
