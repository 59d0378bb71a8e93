import { describe, expect, it } from 'vitest'
import { watchOut, coverageWords, shownColumns } from './columns'
import { depthScale, hold, sorted, withMoved } from './ladder'
import type { FormatPlace, LadderRow, MovedRow } from './types'

function row(id: number, near: number | null, far: number | null, fps: number | null, margin = 1): LadderRow {
  const answer = {
    subject_distance_m: 3,
    depth: { near_m: near, far_m: far, total_m: near === null || far === null ? null : far - near },
    speed: { max_fps: fps },
    coverage: { margin_mm: margin },
    notes: [
      { level: 'info', code: 'fisheye_axis', text: '' },
      { level: 'stop', code: 'mount', text: '' },
      { level: 'stop', code: 'coverage_short', text: '' },
    ],
  }
  return {
    format_id: id,
    shown: true,
    verdict: margin < 0 ? 'short' : 'covers',
    rate: { usable_fps: fps, text: String(fps) },
    answer,
  } as unknown as LadderRow
}
const place = (name: string) => ({ format: { name }, body: { name: 'Ebb' } }) as unknown as FormatPlace
const places = new Map([
  [1, place('b')],
  [2, place('a')],
  [3, place('c')],
])

describe('the order', () => {
  const rows = [row(1, 2, 4, 60), row(2, 1, null, null), row(3, 2.5, 3.5, 120)]
  const ids = (key: string | null, down = false) => sorted(rows, places, key, down).map((r) => r.format_id)
  it('is the package’s at first', () => expect(ids(null)).toEqual([1, 2, 3]))
  it('goes by name', () => expect(ids('name')).toEqual([2, 1, 3]))
  it('puts the unknown last in both directions', () => {
    expect(ids('rate')).toEqual([1, 3, 2])
    expect(ids('rate', true)).toEqual([3, 1, 2])
  })
  it('takes infinity for the farthest', () => expect(ids('far', true)).toEqual([2, 1, 3]))
  it('leaves out what is filtered', () => {
    expect(sorted([{ ...row(1, 1, 2, 3), shown: false }], places, null, false)).toEqual([])
  })
})

describe('the scale of the depth bars', () => {
  it('is shared from the nearest to the farthest limit', () => {
    const scale = depthScale([row(1, 2, 4, 60), row(2, 3, 3.5, 60)])
    expect([2, 3, 4].map(scale.share)).toEqual([0, 50, 100])
  })
  it('ends at three times the focus when something reaches infinity', () => {
    const scale = depthScale([row(1, 1, null, 60)])
    expect(scale.share(9)).toBe(100)
    expect(scale.share(5)).toBe(50)
    expect(scale.share(null)).toBe(100)
  })
  it('stands still without limits', () => expect(depthScale([]).share(3)).toBe(0))
})

it('holds what is out of sight while something is dragged', () => {
  const before = [row(1, 1, 2, 60), row(2, 1, 2, 60)]
  const after = [row(1, 3, 4, 60), row(2, 3, 4, 60), row(3, 3, 4, 60)]
  // Nothing comes, goes or changes its place under the hand.
  expect(hold(after.toReversed(), before, new Set([1]))).toEqual([after[0], before[1]])
})

it('takes what moved into the rows, and leaves all else of them', () => {
  const [one, two, newer] = [row(1, 1, 2, 60), row(2, 1, 2, 60), row(2, 3, 4, 60)]
  const { coverage, depth, notes, ...still } = two.answer
  const moved = (id: number) =>
    ({ format_id: id, shown: true, answer: { depth: newer.answer.depth } }) as MovedRow
  const [first, second] = withMoved([one, two], [moved(2), moved(9)])
  expect(first).toBe(one)
  expect(second).toEqual({ ...two, answer: { ...still, coverage, notes, depth: newer.answer.depth } })
  expect(depth).not.toEqual(newer.answer.depth)
})

it('says the gravest first, and coverage in its own column', () => {
  expect(watchOut(row(1, 1, 2, 3)).map((n) => n.text)).toEqual(['does not mount', 'fisheye'])
  expect(coverageWords(row(1, 1, 2, 3, -2.04))).toBe('2.1 mm short')
  expect(coverageWords(row(1, 1, 2, 3, 2.04))).toBe('covers, 2.0 mm spare')
})

it('shows the columns that are chosen, in their order', () => {
  expect(shownColumns(['near', 'crop']).map((c) => c.key)).toEqual(['crop', 'near'])
  expect(shownColumns(null).length).toBeGreaterThan(6)
})
