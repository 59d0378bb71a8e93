/** The curves of depth: what is drawn, between which bounds, with which figures on the axes. */
import type { Curve } from './plots'
import { aperture } from './format'
import { logTicks } from './ticks'
import type { DepthView, Unit } from './types'

export type Range = [number, number]
export interface DepthPlot {
  curves: Curve[]
  x: Range
  y: Range
}

const FOOT_M = 0.3048
/** Most figures on the axis of stops, and most steps on that of blur. */
const STOPS = 8
const BLUR_STEPS = 6

/** Round figures of the unit along a scale of distances; whole feet, or inches below one. */
export function distanceTicks([low, high]: Range, unit: Unit) {
  if (unit === 'm') return logTicks(low, high).map((at) => ({ at, text: String(at) }))
  return logTicks(low / FOOT_M, high / FOOT_M).map((feet) => ({
    at: feet * FOOT_M,
    text: feet < 1 ? `${Number((feet * 12).toFixed(1))}"` : `${Number(feet.toFixed(1))}'`,
  }))
}

/** Near and far limits by distance or by stop; infinity does not flatten the rest. */
export function limitsPlot(
  view: DepthView,
  which: 'by_distance' | 'by_stop',
  names: Map<number, string>,
): DepthPlot {
  const curves = view.curves.map((c): Curve => ({
    id: c.format_id,
    name: names.get(c.format_id) ?? '',
    chosen: c.chosen,
    low: c[which].map((p) => [p.x, p.near_m]),
    high: c[which].map((p) => [p.x, p.far_m]),
  }))
  const points = view.curves.flatMap((c) => c[which])
  const xs = points.map((p) => p.x)
  const near = points.map((p) => p.near_m)
  const far = points.map((p) => p.far_m ?? p.near_m)
  const top = Math.min(Math.max(...near, ...far) * 1.1, Math.max(...near) * 6)
  return { curves, x: [Math.min(...xs), Math.max(...xs)], y: [Math.min(...near, ...far) * 0.95, top] }
}

/** How soft a background is, by its distance. */
export function blurPlot(view: DepthView, names: Map<number, string>): DepthPlot {
  const curves = view.curves.map((c): Curve => ({
    id: c.format_id,
    name: names.get(c.format_id) ?? '',
    chosen: c.chosen,
    low: c.blur.map((p) => [p.x, p.percent]),
  }))
  const xs = curves.flatMap((c) => c.low.map(([a]) => a))
  const top = Math.max(...view.curves.map((c) => c.blur_at_infinity)) * 1.08
  return { curves, x: [Math.min(...xs), Math.max(...xs)], y: [0, top] }
}

export const stopTicks = (plot: DepthPlot) =>
  (plot.curves[0]?.low ?? [])
    .map(([at]) => at)
    .filter((_, i, all) => i % Math.max(1, Math.ceil(all.length / STOPS)) === 0)
    .map((at) => ({ at, text: aperture(at) }))

export function percentTicks({ y: [, top] }: DepthPlot) {
  const step = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].find((s) => top / s <= BLUR_STEPS) ?? 100
  return Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => ({
    at: i * step,
    text: `${Number((i * step).toFixed(1))}`,
  }))
}
