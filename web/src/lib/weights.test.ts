import { describe, expect, it } from 'vitest'
import { typedWeight, weightText, weightWords } from './weights'

describe('weights', () => {
  it.each([
    ['1.8', 'm', 1.8],
    ['1,8 kg', 'ft', 1.8],
    ['950 g', 'm', 0.95],
    ['10', 'ft', 4.5359237],
    ['3 lb 8 oz', 'm', 1.587573295],
    ['3 lb 8', 'm', 1.587573295],
    ['4.4lbs', 'm', 1.995806428],
  ] as const)('reads %s on a production in %s', (text, unit, kg) =>
    expect(typedWeight(text, unit)).toBeCloseTo(kg, 9),
  )
  it.each(['1,234', 'heavy', '3 kg 8 oz', '3 kg 8', '2 stone'])('leaves %s to be asked about', (text) =>
    expect(typedWeight(text, 'ft')).toBe(text),
  )
  it('is empty where nothing is typed', () => expect(typedWeight(' ', 'm')).toBeNull())
  it('stands as it was typed', () => {
    expect(weightText(typedWeight('9.9', 'ft') as number, 'ft')).toBe('9.9')
    expect(weightText(1.85, 'm')).toBe('1.85')
    expect(weightWords(4.5359237, 'ft', 1)).toBe('10.0 lb')
  })
})
