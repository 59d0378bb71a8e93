import { describe, expect, it } from 'vitest'
import fixture from '../../../tests/fixtures/figures.json'
import * as figures from './figures'
import type { Unit } from './types'

interface Cases {
  limits: { near_m: number; far_m: number | null; mark_m: number; unit: Unit; shown: figures.Limits }[]
  total: { total_m: number | null; unit: Unit; shown: string }[]
  distance: { metres: number; unit: Unit; shown: string }[]
  highest_rate: { fps: number; shown: string }[]
  signed: { value: number; digits: number; nothing: number; shown: string }[]
  crop: { factor: number; shown: string }[]
  needed_light: { amount: number; shown: string }[]
  margin: { margin_mm: number; shown: string }[]
}
// The core's own tests are held to the same file.
const cases = fixture as unknown as Cases

describe('figures are shown as the core shows them', () => {
  it.each(cases.limits)('limits $near_m to $far_m in $unit', (c) =>
    expect(figures.limits(c.near_m, c.far_m, c.mark_m, c.unit)).toEqual(c.shown),
  )
  it.each(cases.total)('a total of $total_m in $unit', (c) =>
    expect(figures.totalText(c.total_m, c.unit)).toBe(c.shown),
  )
  it.each(cases.distance)('$metres m in $unit', (c) =>
    expect(figures.distanceText(c.metres, c.unit)).toBe(c.shown),
  )
  it.each(cases.highest_rate)('at most $fps fps', (c) => expect(figures.highestRate(c.fps)).toBe(c.shown))
  it.each(cases.signed)('$value with its sign', (c) =>
    expect(figures.signed(c.value, c.digits, c.nothing)).toBe(c.shown),
  )
  it.each(cases.crop)('a crop of $factor', (c) => expect(figures.cropText(c.factor)).toBe(c.shown))
  it.each(cases.needed_light)('$amount lux needed', (c) =>
    expect(figures.neededLight(c.amount)).toBe(c.shown),
  )
  it.each(cases.margin)('a margin of $margin_mm mm', (c) =>
    expect(figures.marginText(c.margin_mm)).toBe(c.shown),
  )
})

describe('both limits in a line', () => {
  it('names the unit once', () => {
    expect(figures.limitsText(figures.limits(2.412, 3.967, 3, 'm'))).toBe('2.42 – 3.96 m')
    expect(figures.limitsText(figures.limits(0.9934, 1.0067, 1, 'm'))).toBe('−6 / +6 mm')
    const feet = figures.limits(2.9, null, 6, 'ft')
    expect([figures.withUnit(feet.near, feet), figures.withUnit(feet.far, feet)]).toEqual([`9' 6½"`, '∞'])
  })
})
