import { describe, expect, it } from 'vitest'
import { newFormat, newMode } from '../../lib/rows'
import type { BodyDocument } from '../../lib/types'
import { placeLabels } from '../drawings/labels'
import { pathWords, withoutMode } from './origins'

it('says paths in words, and takes a mode out with all that speaks of it', () => {
  const mode = {
    ...newMode([6000, 4000], []),
    key: 'm',
    name: 'S35',
    formats: [{ ...newFormat([]), name: 'UHD' }],
  }
  const claims = { crops: [{ key: 'k', mode: 'm', factor: 1.5 }], tapes: [], speeds: [], pixels: [] }
  const crops = [{ key: 'c', name: 'Steady', rules: [{ mode: 'm', factor: 1.1 }] }]
  const document = { modes: [mode], crops, claims } as unknown as BodyDocument
  expect(pathWords(document, 'modes[0].formats[0].rates[2]')).toBe('S35, UHD, rates')
  expect(pathWords(document, 'pitch_um')).toBe('pitch um')
  const without = withoutMode(document, 'm')
  expect(without.crops[0]?.rules).toEqual([])
  expect(without.claims.crops).toEqual([])
})

describe('labels', () => {
  it('never cover one another', () => {
    const points = Array.from({ length: 40 }, (_, id) => ({
      id,
      x: 60 + ((id * 37) % 400),
      y: 20 + ((id * 53) % 200),
      text: `Scan mode ${id}`,
    }))
    const placed = placeLabels(points, 600)
    expect(placed.length).toBeGreaterThan(5)
    for (const a of placed)
      for (const b of placed)
        if (a.id < b.id)
          expect(
            Math.abs(a.y - b.y) >= 14 || a.x + a.text.length * 6.1 <= b.x || b.x + b.text.length * 6.1 <= a.x,
          ).toBe(true)
  })
})
