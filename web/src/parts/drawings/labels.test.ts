import { describe, expect, it } from 'vitest'
import { placeNames } from './labels'

const thing = (id: string, x: number, y: number, text = 'bow lamp 0.4 %') => ({ id, x, y, text })

describe('names beside the things of a plan', () => {
  it('stand to the right where there is room, and to the left at the edge', () => {
    const [a, b] = placeNames([thing('a', 50, 80), thing('b', 380, 150)], 400, 200)
    expect([a?.x, a?.y]).toEqual([62, 84])
    expect(b?.x).toBeLessThan(380 - 80)
  })

  it('never stand over one another, nor over a thing, nor outside: thirty of them in a crowd', () => {
    const crowd = Array.from({ length: 30 }, (_, i) =>
      thing(`k${i}`, 60 + ((i * 37) % 300), 30 + ((i * 23) % 170), `thing ${i} 0.2${i} %`),
    )
    const names = placeNames(crowd, 420, 230)
    expect(names.length).toBeGreaterThan(5)
    // What letters take, a little less than what is reserved for them.
    const boxes = names.map(({ x, y, text }) => ({ l: x, r: x + 6 * text.length, t: y - 10, b: y + 3 }))
    for (const [i, one] of boxes.entries()) {
      expect(one.l >= 0 && one.r <= 420 && one.t >= 0 && one.b <= 230).toBe(true)
      for (const other of boxes.slice(i + 1)) {
        expect(one.l < other.r && other.l < one.r && one.t < other.b && other.t < one.b).toBe(false)
      }
      for (const { x, y } of crowd) {
        expect(one.l < x + 6 && x - 6 < one.r && one.t < y + 6 && y - 6 < one.b).toBe(false)
      }
    }
  })

  it('give way to those that come first', () => {
    const three = [thing('a', 100, 100), thing('b', 101, 100), thing('c', 102, 100)]
    // Left of them are two lines.
    expect(placeNames(three, 120, 108).map(({ id }) => id)).toEqual(['a', 'b'])
    expect(placeNames(three, 1000, 500).length).toBe(3)
  })
})
