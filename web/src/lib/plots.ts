/** What plots are made of: axes, marks on them, curves and their paths. */
import { area, line } from 'd3-shape'

/** From a value to pixels. */
export type Axis = (value: number) => number
/** Where an axis begins and ends, in pixels. */
export type Span = [number, number]
/** A figure on an axis. */
export interface Mark {
  at: number
  text: string
  anchor?: 'start' | 'middle' | 'end'
}

export interface Curve {
  id: number
  name: string
  chosen: boolean
  /** Lower edge, or the only line; x and y. */
  low: [number, number][]
  /** Upper edge; beyond the drawing where it is null (infinity). */
  high?: [number, number | null][]
}

const DIGITS = 1

/** A line; what is infinite lies at `beyond`. */
export function linePath(
  points: readonly (readonly [number, number | null])[],
  x: Axis,
  y: Axis,
  beyond = 0,
) {
  const path = line<readonly [number, number | null]>(
    ([a]) => x(a),
    ([, b]) => (b === null ? beyond : y(b)),
  ).digits(DIGITS)
  return path(points) ?? ''
}

/** The band between the two edges of a curve; none where it is a line. */
export function bandPath(curve: Curve, x: Axis, y: Axis, beyond = 0) {
  const { low, high } = curve
  if (!high) return ''
  const path = area<[number, number]>()
    .x(([a]) => x(a))
    .y0(([, b]) => y(b))
    .y1((_, i) => {
      const top = high[i]?.[1]
      return top == null ? beyond : y(top)
    })
    .digits(DIGITS)
  return path(low) ?? ''
}
