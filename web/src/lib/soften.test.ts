import { describe, expect, it } from 'vitest'
import { discOf, showing, spread } from './soften'

/** A picture with the margins of a disc around it, and what it covers. */
function picture(
  wide: number,
  high: number,
  [mx, my]: [number, number],
  covered: (x: number, y: number) => boolean,
) {
  const stride = wide + 2 * mx
  const rgba = new Uint8ClampedArray(4 * stride * (high + 2 * my))
  for (let y = -my; y < high + my; y++) {
    for (let x = -mx; x < wide + mx; x++) if (covered(x, y)) rgba[4 * ((y + my) * stride + x + mx) + 3] = 255
  }
  return { rgba, stride }
}

/** The share of a disc around a pixel that is covered, counted point by point. */
function counted(x: number, y: number, rx: number, ry: number, covered: (x: number, y: number) => boolean) {
  let [all, lit] = [0, 0]
  const STEP = 0.05
  for (let dy = -ry; dy <= ry; dy += STEP) {
    for (let dx = -rx; dx <= rx; dx += STEP) {
      if ((dx / rx) ** 2 + (dy / ry) ** 2 > 1) continue
      all++
      if (covered(Math.floor(x + 0.5 + dx), Math.floor(y + 0.5 + dy))) lit++
    }
  }
  return (255 * lit) / all
}

describe('an outline spread over its disc', () => {
  const shape = (x: number, y: number) => x >= 4 && x < 9 && y >= 2 && y < 13
  it.each([
    [5, 5],
    [2.5, 5],
    [1.6, 1.6],
    [4.4, 2.2],
  ])('is at each place the share of the disc that it covers: %f by %f', (rx, ry) => {
    const disc = discOf(rx, ry)
    const { rgba, stride } = picture(14, 15, [disc.marginX, disc.marginY], shape)
    const soft = spread(rgba, stride, disc, 14, 15)
    for (let y = 0; y < 15; y++) {
      for (let x = 0; x < 14; x++) {
        // Rows of pixels are averaged, points are counted: with discs of a pixel or two a twentieth of white apart.
        expect(Math.abs((soft[y * 14 + x] ?? 0) - counted(x, y, rx, ry, shape))).toBeLessThan(12)
      }
    }
  })

  it('is whole where all of the disc is covered, and nothing where none of it is', () => {
    const disc = discOf(3, 3)
    const everywhere = picture(4, 4, [disc.marginX, disc.marginY], () => true)
    for (const share of spread(everywhere.rgba, everywhere.stride, disc, 4, 4))
      expect(share).toBeCloseTo(255, 2)
    const nowhere = picture(4, 4, [disc.marginX, disc.marginY], () => false)
    expect([...spread(nowhere.rgba, nowhere.stride, disc, 4, 4)]).toEqual(Array(16).fill(0))
  })

  it('loses no light: what leaves a pixel arrives at others', () => {
    const disc = discOf(2, 3)
    const one = picture(11, 11, [disc.marginX, disc.marginY], (x, y) => x === 5 && y === 5)
    const sum = spread(one.rgba, one.stride, disc, 11, 11).reduce((all, share) => all + share, 0)
    expect(sum).toBeCloseTo(255, 1)
  })
})

it('shows within the frame, as far as the disc carries it there', () => {
  // Most of a person close by lies beyond the frame.
  expect(showing([-900, 40, 700], 10, [0, 400])).toEqual({ from: 0, long: 400 })
  expect(showing([100, 150], 10, [0, 400])).toEqual({ from: 90, long: 70 })
  expect(showing([-30, -5], 10, [0, 400])).toEqual({ from: 0, long: 5 })
  expect(showing([-30, -12], 10, [0, 400])).toBeNull()
  expect(showing([412, 500], 10, [0, 400])).toBeNull()
})
