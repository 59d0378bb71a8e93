/** Reads near and far from curves that the server has computed: straight lines between its points, and no rule of the job. */
import type { DepthCurves } from './types'

export interface NearFar {
  near_m: number
  /** None where it is infinite. */
  far_m: number | null
}

/** Where a figure lies among others that rise or fall: the place before it, and the share of the way to the next. */
function place(figures: readonly number[], figure: number): [number, number] | null {
  const first = figures[0]
  const last = figures.at(-1)
  if (first === undefined || last === undefined) return null
  const falling = first > last
  for (let i = 0; i + 1 < figures.length; i++) {
    const a = figures[i] ?? 0
    const b = figures[i + 1] ?? 0
    const inside = falling ? figure <= a && figure >= b : figure >= a && figure <= b
    if (inside) return [i, a === b ? 0 : (figure - a) / (b - a)]
  }
  return null
}

const between = (figures: readonly number[], [i, share]: [number, number]) =>
  (figures[i] ?? 0) * (1 - share) + (figures[i + 1] ?? figures[i] ?? 0) * share

/** Near and far; null where the lens does not focus so near, or is not marked so. */
export function nearFar(curves: DepthCurves, focusM: number, stop: number): NearFar | null {
  const last = curves.at.at(-1) ?? 0
  const at = place(curves.at, Math.max(1 / focusM, last))
  const stops = curves.stops.length === 1 ? ([0, 0] as [number, number]) : place(curves.stops, stop)
  if (!at || !stops) return null
  const read = (rows: readonly (readonly number[])[]) =>
    between(
      [between(rows[stops[0]] ?? [], at), between(rows[stops[0] + 1] ?? rows[stops[0]] ?? [], at)],
      [0, stops[1]],
    )
  const far = read(curves.far)
  return { near_m: 1 / read(curves.near), far_m: far <= 0 ? null : 1 / far }
}
