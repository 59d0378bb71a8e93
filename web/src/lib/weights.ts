/** Weights as they are shown and typed: in kilograms, or in pounds where distances are in feet. */
import { typedNumber } from './paths'
import type { Unit } from './types'

/** By the agreement of 1959. */
const KG_OF_LB = 0.45359237
const KG: Record<string, number> = { kg: 1, g: 0.001, lb: KG_OF_LB, lbs: KG_OF_LB, oz: KG_OF_LB / 16 }

export const weightUnit = (unit: Unit) => (unit === 'ft' ? 'lb' : 'kg')

export const weightFigure = (kg: number, unit: Unit) => (unit === 'ft' ? kg / KG_OF_LB : kg)

export const weightWords = (kg: number, unit: Unit, digits = 2) =>
  `${weightFigure(kg, unit).toFixed(digits)} ${weightUnit(unit)}`

/** A weight as it stands in its field. */
export const weightText = (kg: number, unit: Unit) =>
  String(Number(weightFigure(kg, unit).toPrecision(unit === 'ft' ? 4 : 6)))

/** What a text means, kg: 1.8, 4 lb, 4 lb 6 oz, 4 lb 6, 950 g; what means nothing stays as it is, and is asked about. */
export function typedWeight(text: string, unit: Unit): number | string | null {
  const told = text.trim().toLowerCase()
  const bare = typedNumber(told)
  if (bare === null) return null
  if (typeof bare === 'number') return bare * (KG[weightUnit(unit)] ?? 1)
  const [, first, one, second] =
    /^([\d.,]+)\s*(kg|g|lbs?|oz)\.?(?:\s*([\d.,]+)\s*(?:oz\.?)?)?$/.exec(told) ?? []
  const [whole, rest] = [first, second ?? '0'].map((part) => typedNumber(part ?? ''))
  if (typeof whole !== 'number' || typeof rest !== 'number' || (second && !one?.startsWith('lb'))) return text
  return whole * (KG[one ?? ''] ?? 1) + rest * (KG['oz'] ?? 0)
}
