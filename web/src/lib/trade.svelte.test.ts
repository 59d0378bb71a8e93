import { afterEach, describe, expect, it } from 'vitest'
import { trade } from './trade.svelte'

afterEach(() => (trade.words = 'cine'))

describe('words of the trade', () => {
  it.each([
    ['cine', 'EI 1600, +6 dB', 'EI 800', '180°', 'Frames like, on full frame', 'EI 800 is too much'],
    ['video', '+6 dB (EI 1600)', 'EI 800', '1/50 s', 'Frames like, on full frame', 'EI 800 is too much'],
    ['stills', 'ISO 1600, +6 dB', 'ISO 800', '1/50 s', '35 mm equivalent', 'ISO 800 is too much'],
  ] as const)('of %s', (words, withGain, plain, shutter, like, told) => {
    trade.words = words
    expect(trade.ei(1600, 6)).toBe(withGain)
    expect(trade.ei(800)).toBe(plain)
    expect(trade.listed(800, true, 0)).toBe(words === 'video' ? '0 dB native (EI 800)' : '800 native, 0 dB')
    expect(trade.listed(800, false, null)).toBe('800')
    expect(trade.shutter(180, 25)).toBe(shutter)
    expect(trade.framesLike('full frame')).toBe(like)
    expect(trade.framesLike('Super 35')).toBe('Frames like, on Super 35')
    expect(trade.told('EI 800 is too much')).toBe(told)
  })
})
