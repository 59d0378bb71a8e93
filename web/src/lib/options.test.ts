import { describe, expect, it } from 'vitest'
import { adapterOptions, figureOptions, formatOptions, stopOptions, withChosen, wordOptions } from './options'
import type { Body } from './types'

describe('what can be chosen', () => {
  it('has what is set, also where the list has it not', () => {
    const listed = [{ value: 1, label: 'one' }]
    expect(withChosen(listed, 1, 'again')).toEqual(listed)
    expect(withChosen(listed, 7, 'seven')).toEqual([...listed, { value: 7, label: 'seven' }])
  })
  it('rises, with the figure that is set in its place and once', () => {
    const label = (figure: number) => `${figure} fps`
    expect(figureOptions([25, 24], 24.5, label).map((o) => o.label)).toEqual(['24 fps', '24.5 fps', '25 fps'])
    expect(figureOptions([24, 25], 25, label)).toHaveLength(2)
    expect(figureOptions([24], null, label)).toHaveLength(1)
  })
  it('writes stops with the mark of the lens', () => {
    expect(stopOptions({ stops: [2.8, 2], stop: 2.1, marks: 'T' }).map((o) => o.label)).toEqual([
      'T2',
      'T2.1',
      'T2.8',
    ])
  })
  it('offers no adapter first, and words as they are', () => {
    expect(adapterOptions([{ id: 4, name: 'plain' }], 'none')).toEqual([
      { value: null, label: 'none' },
      { value: 4, label: 'plain' },
    ])
    expect(wordOptions(['width', 'height'], (side) => `by ${side}`)[1]).toEqual({
      value: 'height',
      label: 'by height',
    })
  })
  it('puts recording formats under their body', () => {
    const modes = [{ formats: [{ id: 1, name: 'UHD' }] }, { formats: [{ id: 2, name: 'HD' }] }]
    const body = { maker: 'Halewick', name: 'Ebb 64', modes } as unknown as Body
    expect(formatOptions([body], (format, { name }) => `${format.name}, ${name}`)).toEqual([
      { value: 1, label: 'UHD, Ebb 64', group: 'Halewick Ebb 64' },
      { value: 2, label: 'HD, Ebb 64', group: 'Halewick Ebb 64' },
    ])
  })
})
