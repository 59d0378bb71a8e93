/**
 * How figures are shown: limits to the safe side, and no figure that hides what is judged. The same rules as
 * `src/hextan/core/base/figures.py`; tests/fixtures/figures.json holds both.
 */
import type { Unit } from './types'

/** Totals below this are told about the mark, metres. */
const ABOUT_THE_MARK_M = 0.025
/** A margin below this is "just" covered or "just" short, mm. */
const JUST_MM = 0.05
/** What rounding in a computation leaves, in units of the last digit shown. */
const GRAIN = 1e-6
const SIXTEENTH_M = 0.0254 / 16
/** From so many sixteenths of an inch on, the steps in which feet and inches are told. */
const STEPS: readonly (readonly [least: number, step: number])[] = [
  [80, 8],
  [40, 4],
  [20, 2],
  [0, 1],
]
const LEAST_SIXTEENTHS = 10
/** In what parts of an inch a small depth is told: in the coarsest of which it has at least ten. */
const PARTS = [16, 32, 64]
/** A far limit, or a depth, from here on is beyond anything that can be set. */
const BEYOND = { m: 1000, ft: 3000 }
const FRACTIONS: Record<number, string> = { 4: '¼', 8: '½', 12: '¾' }

/** Near and far limits as they are shown; `about` tells them about the mark, with their signs. */
export interface Limits {
  near: string
  far: string
  unit: string
  about: boolean
}

const steps = (metres: number, step: number, up: boolean) => {
  const scaled = metres / (SIXTEENTH_M * step)
  return up ? Math.ceil(scaled - GRAIN) : Math.floor(scaled + GRAIN)
}
const stepFor = (totalM: number) => STEPS.find(([least]) => totalM / SIXTEENTH_M >= least)?.[1] ?? 1

function rounded(value: number, digits: number, up: boolean): string {
  const scaled = value * 10 ** digits
  const whole = up ? Math.ceil(scaled - GRAIN) : Math.floor(scaled + GRAIN)
  return (whole / 10 ** digits).toFixed(digits)
}

/** Decimals of a metre that give two significant digits of a total; at least centimetres. */
const digitsFor = (totalM: number) => Math.max(2, 1 - Math.floor(Math.log10(Math.max(totalM, 1e-9)) + 1e-12))

/** Millimetres rounded down, with more digits rather than as nothing. */
function someMm(metres: number, least: number): string {
  let digits = least
  while (metres > 0 && digits < 9 && Math.floor(metres * 1000 * 10 ** digits + GRAIN) === 0) digits += 1
  return rounded(metres * 1000, digits, false)
}

const partsOf = (metres: number, part: number) => Math.floor((metres * part) / 0.0254 + GRAIN)

/** What stands for a far limit that is beyond what can be set. */
function beyond(nearM: number, farM: number, unit: Unit): string | null {
  const bound = unit === 'm' ? BEYOND.m : BEYOND.ft * 0.3048
  if (!(nearM < bound && bound <= farM)) return null
  return unit === 'm' ? `>${BEYOND.m}` : `>${BEYOND.ft}'`
}

/** Sixteenths, or smaller parts, of an inch as inches: 1 5/16. */
export function inches(parts: number, part = 16): string {
  const whole = Math.floor(parts / part)
  const rest = parts % part
  if (!rest) return String(whole)
  const sign = FRACTIONS[(rest * 16) / part]
  if (sign) return `${whole || ''}${sign}`
  let [over, under] = [rest, part]
  while (over % 2 === 0) [over, under] = [over / 2, under / 2]
  return `${whole ? `${whole} ` : ''}${over}/${under}`
}

/** Sixteenths of an inch as feet and inches: 9' 6½". */
export function feetAndInches(sixteenths: number): string {
  const told = inches(sixteenths % 192)
  const bare = Object.values(FRACTIONS).includes(told)
  return `${Math.floor(sixteenths / 192)}' ${bare ? '0' : ''}${told}"`
}

/** Depth limits: at least two significant digits of the total, near rounded up and far down; null is infinity. */
export function limits(nearM: number, farM: number | null, markM: number, unit: Unit): Limits {
  const total = farM === null ? Infinity : farM - nearM
  if (farM !== null && total < ABOUT_THE_MARK_M) return about(markM - nearM, farM - markM, total, unit)
  if (unit === 'm') {
    const digits = farM === null ? 2 : digitsFor(total)
    const far = farM === null ? '∞' : (beyond(nearM, farM, unit) ?? rounded(farM, digits, false))
    return { near: rounded(nearM, digits, true), far, unit: 'm', about: false }
  }
  const step = farM === null ? 8 : stepFor(total)
  const near = feetAndInches(steps(nearM, step, true) * step)
  const far =
    farM === null ? '∞' : (beyond(nearM, farM, unit) ?? feetAndInches(steps(farM, step, false) * step))
  return { near, far, unit: '', about: false }
}

function about(beforeM: number, behindM: number, totalM: number, unit: Unit): Limits {
  for (const part of unit === 'ft' ? PARTS : []) {
    const [before, behind] = [partsOf(beforeM, part), partsOf(behindM, part)] as const
    if ((totalM * part) / 0.0254 >= LEAST_SIXTEENTHS && Math.min(before, behind) > 0)
      return { near: `−${inches(before, part)}`, far: `+${inches(behind, part)}`, unit: 'in', about: true }
  }
  const digits = Math.max(0, digitsFor(totalM) - 3)
  return { near: `−${someMm(beforeM, digits)}`, far: `+${someMm(behindM, digits)}`, unit: 'mm', about: true }
}

/** Both limits with their unit: 2.42 – 3.96 m, or −6 / +6 mm about the mark. */
export const limitsText = (shown: Limits) =>
  `${shown.near}${shown.about ? ' / ' : ' – '}${shown.far}${shown.unit ? ` ${shown.unit}` : ''}`

/** One limit with its unit where it is not told by signs: −6 mm, 2.42 m, 9' 6". */
export const withUnit = (text: string, shown: Limits) =>
  text === '∞' || !shown.unit ? text : `${text} ${shown.unit}`

/** A total depth, rounded down: at least two significant digits; null is infinity. */
export function totalText(totalM: number | null, unit: Unit): string {
  if (totalM === null) return '∞'
  const far = beyond(0, totalM, unit)
  if (far !== null) return unit === 'm' ? `${far} m` : far
  if (unit === 'ft' && totalM / SIXTEENTH_M >= LEAST_SIXTEENTHS) {
    const step = stepFor(totalM)
    const told = steps(totalM, step, false) * step
    return told >= 192 ? feetAndInches(told) : `${inches(told)}"`
  }
  for (const part of unit === 'ft' ? PARTS : [])
    if ((totalM * part) / 0.0254 >= LEAST_SIXTEENTHS) return `${inches(partsOf(totalM, part), part)}"`
  return totalM >= 0.1
    ? `${rounded(totalM, 2, false)} m`
    : `${someMm(totalM, Math.max(0, digitsFor(totalM) - 3))} mm`
}

/** A distance with its unit, to the nearest: centimetres or half inches; near ones in millimetres or sixteenths. */
export function distanceText(metres: number, unit: Unit): string {
  if (unit === 'm')
    return metres >= 0.1 ? `${metres.toFixed(2)} m` : `${told(metres * 1000, metres >= 0.01 ? 0 : 1)} mm`
  const sixteenths = Math.round(metres / SIXTEENTH_M)
  if (sixteenths < LEAST_SIXTEENTHS) return distanceText(metres, 'm')
  if (sixteenths < 80) return `${inches(sixteenths)}"`
  return feetAndInches(Math.round(metres / SIXTEENTH_M / 8) * 8)
}

/** A limit on the rate, rounded down: what is printed can be had. */
export function highestRate(fps: number): string {
  const nearest = Math.round(fps * 1.001) / 1.001
  if (fps > 10 && Math.abs(fps - nearest) <= 6e-4 && Math.abs(fps - Math.round(fps)) > 1e-9)
    return String(Math.floor(nearest * 1000) / 1000)
  let digits = 1
  while (digits < 6 && Math.floor(fps * 10 ** digits + GRAIN) === 0) digits += 1
  return rounded(fps, digits, false).replace(/\.0$/, '')
}

function told(value: number, least: number): string {
  let digits = least
  while (digits < 9 && value !== 0 && Number(value.toFixed(digits)) === 0) digits += 1
  return value.toFixed(digits)
}

/** A figure whose sign is judged: more digits rather than a zero, no sign where it is nothing. */
export function signed(value: number, digits: number, nothing = 0): string {
  if (Math.abs(value) <= nothing) return (0).toFixed(digits)
  return `${value > 0 ? '+' : '−'}${told(Math.abs(value), digits)}`
}

/** By how much a circle covers or is short. */
export function marginText(marginMm: number): string {
  const size = Math.abs(marginMm)
  if (size < 1e-9) return 'just covers'
  if (size < JUST_MM)
    return marginMm > 0 ? `just covers, ${told(size, 2)} mm spare` : `just short, by ${told(size, 2)} mm`
  if (marginMm > 0) return `covers, ${size >= 0.1 ? rounded(size, 1, false) : size.toFixed(2)} mm spare`
  return `${rounded(size, 1, true)} mm short`
}

/** The same where little is spare: makers measure circles differently. */
export const justCoversText = (marginMm: number) => marginText(marginMm).replace(/^covers,/, 'just covers,')

/** A crop that has to be taken: rounded up, with enough digits to differ from none. */
export function cropText(factor: number): string {
  let digits = 2
  while (digits < 9 && factor > 1 && Number(rounded(factor - 1, digits, false)) === 0) digits += 1
  return `×${rounded(factor, digits, true)}`
}

/** Light that is needed, lux or foot-candles: rounded up, to three significant digits, without an exponent. */
export function neededLight(amount: number): string {
  if (!(amount > 0)) return '0'
  if (amount === Infinity) return '∞'
  const digits = 2 - Math.floor(Math.log10(amount))
  const whole = Math.ceil((digits >= 0 ? amount * 10 ** digits : amount / 10 ** -digits) - GRAIN)
  const shown = digits <= 0 ? String(whole * 10 ** -digits) : (whole / 10 ** digits).toFixed(digits)
  return shown.replace(/^\d+/, (all) => all.replace(/\B(?=(\d{3})+$)/g, ','))
}
