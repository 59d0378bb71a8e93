/** How the rows of a comparison are written. */
import { aperture, degrees, distanceWithUnit, highestRate, mm, NONE, percent, stops } from './format'
import type { ComparedRow, Unit } from './types'

/** Names of the set-ups, in order. */
export const LETTERS = ['A', 'B', 'C', 'D']

export function comparedText(row: ComparedRow, index: number, unit: Unit): string {
  const written = row.texts[index]
  if (written != null) return written
  if (row.infinite[index]) return '∞'
  const value = row.values[index]
  if (value == null) return NONE
  switch (row.unit) {
    case 'm':
      return distanceWithUnit(value, unit)
    case 'mm':
      return `${mm(value)} mm`
    case 'um':
      return `${value.toFixed(1)} µm`
    case 'deg':
      return degrees(value)
    case 'percent':
      return `${value.toFixed(value < 10 ? 2 : 1)} %`
    case 'stops':
      return `${stops(value)} stops`
    case 'ratio':
      return `${value.toFixed(3)}×`
    case 'px':
      return String(Math.round(value))
    case 'fps':
      return `${highestRate(value)} fps`
    case 'stop':
      return `f/${aperture(value)}`
    case 'mp':
      return `${value.toFixed(1)} MP`
  }
}

/** Where a fault of a comparison lies: "columns[1].stop" is the stop of set-up B. */
export function setupWords(path: string): string {
  const found = /^columns\[(\d)\]\.?(.*)$/.exec(path)
  if (!found) return path.replaceAll('_', ' ')
  const field = (found[2] ?? '').replace(/_(id|m|mm|deg|stops|percent)$/, '').replaceAll('_', ' ')
  return `set-up ${'ABCD'[Number(found[1])]}${field ? `, ${field}` : ''}`
}

/** How far a value is from the master's, where that can be said in per cent. */
export function differenceText(row: ComparedRow, index: number, master: number): string {
  const [first, value] = [row.values[master], row.values[index]]
  if (index === master || first == null || value == null || !first) return ''
  return row.unit === 'stops' || row.unit === 'px' ? '' : percent(100 * (value / first - 1), 1)
}

export const PART_NAMES = {
  focal_mm: 'focal length',
  distance_mm: 'distance',
  f_number: 'aperture',
  coc_mm: 'circle of confusion',
  width_mm: "picture's width",
} as const
