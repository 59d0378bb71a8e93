import { describe, expect, it } from 'vitest'
import { asked, groupsIn, replaced } from './spans'
import type { Span } from './types'

const span = (part: Partial<Span>): Span => ({
  start: 0,
  end: 1,
  text: 'a',
  group: 'plain',
  taken_for: '',
  asked: '',
  options: [],
  ...part,
})

describe('stretches of a text', () => {
  it('are replaced by whole signs, whatever stands before them', () => {
    expect(replaced('🎥 1920 x 1080 25p', { start: 2, end: 13 }, 'reads 1920 x 1080')).toBe(
      '🎥 reads 1920 x 1080 25p',
    )
    expect(replaced('UHD', { start: 0, end: 3 }, '')).toBe('')
  })

  it('are asked about only where something is open, and the legend names what is there', () => {
    const open = span({ asked: 'which?', group: 'unused' })
    expect(asked([span({}), open])).toEqual([open])
    expect(groupsIn([span({ group: 'rate' }), open, span({ group: 'lens' })]).map((g) => g.label)).toEqual([
      'lens',
      'rate',
      'not used',
    ])
  })
})
