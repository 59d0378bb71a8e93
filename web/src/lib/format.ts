/** Figures as the trade writes them. Rounding happens here and nowhere else. */
import { distanceText, highestRate as limitRate, signed } from './figures'
import type { Unit } from './types'

export const NONE = '–'
const INCH_M = 0.0254

const fixed = (value: number | null | undefined, digits: number): string =>
  value == null || !Number.isFinite(value) ? NONE : value.toFixed(digits)

/** Focal lengths and circles: 0.1 mm. */
export const mm = (value: number | null | undefined) => fixed(value, 1)

/** Angles: 0.1 degree. */
export const degrees = (value: number | null | undefined) => (value == null ? NONE : `${fixed(value, 1)}°`)

/** Crop factors: three decimals. */
export const factor = (value: number | null | undefined) => (value == null ? NONE : `×${fixed(value, 3)}`)

/** Ratios such as oversampling: two decimals. */
export const ratio = (value: number | null | undefined) => (value == null ? NONE : `${fixed(value, 2)}×`)

/** Stops with their sign; what nobody can set is none. */
export const stops = (value: number, digits = 1) => signed(value, digits, 0.005)

/** Marked apertures: as many digits as are engraved. */
export const aperture = (value: number | null | undefined) =>
  value == null ? NONE : value >= 10 ? value.toFixed(0) : String(Number(value.toFixed(value < 1 ? 2 : 1)))

/** Frame rates: whole numbers, or up to three decimals for 23.976. */
export const rate = (value: number | null | undefined) =>
  value == null ? NONE : String(Number(value.toFixed(3)))

/** A limit is rounded down: what is printed can be had. */
export const highestRate = (value: number | null | undefined) => (value == null ? NONE : limitRate(value))

/** Metres to the centimetre; feet to the half inch. */
export function distance(metres: number | null | undefined, unit: Unit): string {
  if (metres == null) return NONE
  if (unit === 'm') return metres.toFixed(2)
  const halves = Math.round((metres / INCH_M) * 2)
  const feet = Math.floor(halves / 24)
  const rest = halves % 24
  return `${feet}' ${Math.floor(rest / 2)}${rest % 2 ? '½' : ''}"`
}

/** A distance with its unit: 2.97 m, or 9' 9". */
export const distanceWithUnit = (metres: number | null | undefined, unit: Unit) =>
  metres == null ? NONE : distanceText(metres, unit)

/** Shares as per cent; what is there does not print as nothing. */
export const share = (value: number) =>
  value > 0 && value < 0.0005 ? 'less than 0.1 %' : `${(100 * value).toFixed(1)} %`

/** One step of the trade: 5 cm or an inch; ten of them with a large step. */
export function stepDistance(metres: number, unit: Unit, steps: number): number {
  const step = unit === 'm' ? 0.05 : INCH_M
  const moved = Math.round(metres / step + steps) * step
  return Number(Math.max(moved, step).toFixed(6))
}

/** Where something stands beside the axis, on whole steps of the unit. */
export function snapAside(metres: number, unit: Unit, steps = 0): number {
  const step = unit === 'm' ? 0.05 : INCH_M
  return Number(((Math.round(metres / step) + steps) * step).toFixed(6))
}

/** An exact rate as it is printed: 24000/1001 is 23.976, 30..60 is 30–60. */
function rateText(exact: string): string {
  return exact
    .split('..')
    .map((end) => {
      const [over, under] = end.split('/').map(Number)
      return under ? rate((over ?? 0) / under) : end
    })
    .join('–')
}
export const ratesText = (exact: readonly unknown[]) => exact.map((r) => rateText(String(r))).join(', ')

/** Megabytes a second: as many digits as tell. */
export const megabytes = (value: number | null | undefined) =>
  value == null ? NONE : value >= 100 ? value.toFixed(0) : value.toFixed(1)

/** Minutes on a card. */
export const minutes = (value: number | null | undefined) =>
  value == null ? NONE : value >= 100 ? value.toFixed(0) : value.toFixed(1)

/** Per cent with its sign, for what may be missing. */
export const percent = (value: number, digits = 0) => {
  const told = Math.abs(value).toFixed(digits)
  return Number(told) === 0 ? `${told} %` : `${signed(value, digits)} %`
}

/** A moment as people write it, in the time of the place: `30 Nov 2026, 19:40`. */
export const whenWords = (at: string) =>
  new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
