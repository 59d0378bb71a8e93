import { describe, expect, it } from 'vitest'
import { EMPTY } from './logEntries'
import { alike, asItWas, onFor, said } from './putOn'
import type { OnCamera, Planned } from './types'

const on = (part: Partial<OnCamera>): OnCamera => ({ ...EMPTY, ...part })
const PLAN = on({
  body: 'Ebb',
  mode: 'Full',
  format: 'UHD',
  lens: '35',
  lens_set: 'Wren',
  stop: 2.8,
  focus_m: 4,
  crops: [],
})
const WAS = on({ body: 'Ebb', mode: 'Full', format: 'UHD', lens: '65', lens_set: 'Wren', stop: 1.9, focus_m: 2, crops: [], card: 'A003', serial: '17' }) // prettier-ignore
const shot = (key: string, plan: OnCamera | null = PLAN) => ({ shot: key, on: plan }) as unknown as Planned

describe('what is on a camera', () => {
  it('is as planned where nobody said anything', () => {
    expect(onFor(null, shot('s'), EMPTY)).toEqual(PLAN)
    expect(onFor(null, shot('s', null), EMPTY)).toEqual(EMPTY)
    expect(asItWas(null, shot('s'), EMPTY)).toBeNull()
  })
  it('stays as it was said for the same shot, with its focus', () => {
    expect(onFor({ on: WAS, shot: 's' }, shot('s'), EMPTY)).toEqual(WAS)
    expect(asItWas({ on: WAS, shot: 's' }, shot('s'), EMPTY)).toBeNull()
  })
  it('is asked about for a new shot, and differs from nothing until it is answered', () => {
    const last = { on: WAS, shot: 's' }
    expect(onFor(last, shot('t'), EMPTY)).toEqual({ ...PLAN, card: 'A003' })
    // The focus of one shot is never that of another.
    expect(asItWas(last, shot('t'), EMPTY)).toEqual({ ...WAS, focus_m: 4 })
    expect(asItWas(last, shot('t', null), EMPTY)).toBeNull()
    expect(onFor(last, shot('t', null), EMPTY)).toEqual({ ...WAS, focus_m: null })
  })
  it('is not asked about where it is as planned for the new shot, or where nobody stated the rest', () => {
    const same = { on: on({ ...PLAN, focus_m: 9, card: 'A004' }), shot: 's' }
    expect(asItWas(same, shot('t'), EMPTY)).toBeNull()
    const little = { on: on({ lens: '35', crops: null }), shot: 's' }
    expect(asItWas(little, shot('t'), EMPTY)).toBeNull()
    expect(asItWas({ on: on({ lens: '50', crops: null }), shot: 's' }, shot('t'), EMPTY)?.lens).toBe('50')
  })
  it('is not asked about for a stop that nobody sets more exactly', () => {
    const last = { on: on({ ...PLAN, stop: 2.9, card: 'A004' }), shot: 's' }
    expect(asItWas(last, shot('t'), EMPTY)).toBeNull()
    expect(asItWas({ ...last, on: { ...last.on, stop: 3.4 } }, shot('t'), EMPTY)?.stop).toBe(3.4)
  })
  it('keeps which of several lenses it is, as long as it is that lens', () => {
    const last = { on: { ...WAS, lens: '35' }, shot: 's' }
    expect(onFor(last, shot('t'), EMPTY).serial).toBe('17')
  })
  it('holds for every shot where it was booked for none', () => {
    expect(onFor({ on: WAS, shot: null }, shot('t'), EMPTY)).toEqual({ ...WAS, focus_m: 4 })
    expect(asItWas({ on: WAS, shot: null }, shot('t'), EMPTY)).toBeNull()
  })
})

it('turning the focus says nothing of the camera', () => {
  expect([said({}), said({ focus_m: 3 }), said({ focus_m: 3, stop: 2 })]).toEqual([false, false, true])
  expect(alike(WAS, { ...WAS, focus_m: 7 })).toBe(true)
  expect(alike(WAS, { ...WAS, stop: 7 })).toBe(false)
  // However its facts are ordered.
  expect(alike(WAS, Object.fromEntries(Object.entries(WAS).reverse()) as unknown as OnCamera)).toBe(true)
})
