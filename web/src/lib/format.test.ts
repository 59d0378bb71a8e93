import { describe, expect, it } from 'vitest'
import * as format from './format'

describe('figures of the trade', () => {
  it.each([
    [28.42, '28.4'],
    [100, '100.0'],
    [null, '–'],
  ])('focal length %s', (value, text) => expect(format.mm(value)).toBe(text))

  it.each([
    [2.97, 'm', '2.97'],
    [2.9718, 'ft', `9' 9"`],
    [2.8956, 'ft', `9' 6"`],
    [0.6096, 'ft', `2' 0"`],
    [2.9083, 'ft', `9' 6½"`],
    // Rounding must never print twelve inches.
    [0.6095, 'ft', `2' 0"`],
  ] as const)('distance %s in %s', (metres, unit, text) => expect(format.distance(metres, unit)).toBe(text))

  it('writes units and infinity', () => {
    expect(format.distanceWithUnit(2.97, 'm')).toBe('2.97 m')
    expect(format.distance(null, 'm')).toBe('–')
  })

  it.each([
    [23.976, '23.976'],
    [25, '25'],
    [59.94005994, '59.94'],
  ])('rate %s', (value, text) => expect(format.rate(value)).toBe(text))

  it.each([
    [62.644, '62.6'],
    [240, '240'],
    [399.96, '399.9'],
    [null, '–'],
  ])('highest rate %s', (value, text) => expect(format.highestRate(value)).toBe(text))

  it.each([
    [2.8, '2.8'],
    [2, '2'],
    [11, '11'],
    [0.95, '0.95'],
    [3.9276, '3.9'],
  ])('aperture %s', (value, text) => expect(format.aperture(value)).toBe(text))

  it('signs stops', () => {
    expect(format.stops(-0.988)).toBe('−1.0')
    expect(format.stops(0.971)).toBe('+1.0')
  })
})

describe('steps', () => {
  it('go by five centimetres, on the mark', () => {
    expect(format.stepDistance(3.2, 'm', 1)).toBe(3.25)
    expect(format.stepDistance(3.21, 'm', 1)).toBe(3.25)
    expect(format.stepDistance(3.2, 'm', -10)).toBe(2.7)
  })
  it('go by an inch', () => expect(format.stepDistance(2.8956, 'ft', 1)).toBeCloseTo(2.921, 6))
  it('never reach zero', () => expect(format.stepDistance(0.05, 'm', -3)).toBe(0.05))
})
