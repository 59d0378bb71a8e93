import { describe, expect, it } from 'vitest'
import { nearFar } from './depthCurves'
import { changed, clockOf, lastOn, listed, newBooking, newTake, nextTake } from './logEntries'
import type { DepthCurves, SetDay } from './types'
import type { Waiting } from './waiting'

const CURVES: DepthCurves = {
  lens: 'x', format: 'y', focal_mm: 50, marks: 'T', coc_mm: 0.02, rule: 'fixed', slack: 0,
  stops: [2, 4], at: [1, 0.5, 0.0001],
  near: [[1.1, 0.6, 0.1], [1.2, 0.7, 0.2]],
  far: [[0.9, 0.4, -0.1], [0.8, 0.3, -0.2]],
} // prettier-ignore

describe('near and far of curves', () => {
  it('are read at a point, between two, and between two stops', () => {
    expect(nearFar(CURVES, 1, 2)).toEqual({ near_m: 1 / 1.1, far_m: 1 / 0.9 })
    const between = nearFar(CURVES, 1 / 0.75, 2)
    expect(between?.near_m).toBeCloseTo(1 / 0.85, 12)
    expect(nearFar(CURVES, 1, 3)?.near_m).toBeCloseTo(1 / 1.15, 12)
  })
  it('go to infinity, and are none where the lens does not go', () => {
    expect(nearFar(CURVES, 1e6, 2)).toEqual({ near_m: 10, far_m: null })
    expect(nearFar(CURVES, 0.9, 2)).toBeNull()
    expect(nearFar(CURVES, 1, 1.4)).toBeNull()
    expect(nearFar({ ...CURVES, at: [], near: [[]], far: [[]] }, 1, 2)).toBeNull()
  })
})

const WRITER = { by: 'Nell', unit: 'A', day: '1' }
const AT = new Date('2026-05-18T20:00:00Z')
const on = newTake(WRITER, null, 1, {} as never, AT).on
const day = (takes: SetDay['takes'], cameras: SetDay['cameras'] = []): SetDay => ({
  day: '1', days: [], shots: [], takes, cameras, bodies: [], adapters: [], plan: null, picture: { aspect: null, long_edge_px: null },
}) // prettier-ignore
const seen = (entry: ReturnType<typeof newTake>): SetDay['takes'][number] =>
  ({ entry, revision: 1, before: [], clock: '21:00', double: '', held: { differences: [], told: '', gone: [], near_m: null, far_m: null, brighter_stops: null } }) // prettier-ignore
const waiting = (entry: Waiting['entry'], basedOn = 0): Waiting => ({
  production: 1,
  entry,
  basedOn,
  since: '',
  state: 'waiting',
})

describe('the takes of a day with those that wait', () => {
  const first = newTake(WRITER, { shot: 's', name: '12B' } as never, 1, on, AT)
  it('stand newest first, each once, as it was written last', () => {
    const second = newTake(
      WRITER,
      { shot: 's', name: '12B' } as never,
      2,
      on,
      new Date('2026-05-18T20:05:00Z'),
    )
    const rows = listed(day([seen(first)]), [waiting(second), waiting({ ...first, circled: true }, 1)])
    expect(rows.map((row) => [row.entry.take, row.entry.circled, row.revision])).toEqual([
      [2, false, 1],
      [1, true, 2],
    ])
    expect(nextTake(rows, 's', 'A')).toBe(3)
    expect(nextTake(rows, 's', 'B')).toBe(1)
  })
  it('are what the server took after the day was read, until it is read again', () => {
    const taken = { revision: 2, entry: { ...first, removed: true } }
    expect(listed(day([seen(first)]), [], [taken])).toEqual([])
    const rows = listed(day([]), [waiting({ ...first, circled: true }, 1)], [{ revision: 1, entry: first }])
    expect(rows.map((row) => [row.entry.circled, row.revision])).toEqual([[true, 2]])
  })
  it('leave out what was removed, and other days', () => {
    expect(listed(day([seen(first)]), [waiting({ ...first, removed: true }, 1)])).toEqual([])
    expect(listed(day([]), [waiting({ ...first, day: '2' })])).toEqual([])
  })
  it('tell what is on a camera: what waits here before what the server knows', () => {
    const known = day([], [{ unit: 'A', on, clock: '', by: '', kind: 'take', shot: 's' }])
    expect(lastOn(known, [], 'A')?.shot).toBe('s')
    const booked = newBooking(WRITER, { shot: 't' } as never, { ...on, lens: 'Merrow 21' })
    expect(lastOn(known, [booked], 'A')).toMatchObject({ shot: 't', on: { lens: 'Merrow 21' } })
    expect(newBooking(WRITER, null, on).shot).toBeNull()
    // What was taken back is not on, though its first version was not read again yet.
    expect(lastOn(known, [booked, { ...booked, removed: true }], 'A')?.shot).toBe('s')
    expect(lastOn(known, [], 'B')).toBeNull()
  })
  it('keep when they happened when they are changed, and say who changed them', () => {
    const later = changed(first, 'Owen', { circled: true })
    expect([later.at, later.by, later.key, later.circled]).toEqual([first.at, 'Owen', first.key, true])
    expect(clockOf({ at: '2026-05-18T23:30:00Z', offset_min: 60 })).toBe('00:30')
  })
})
