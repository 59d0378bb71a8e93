import { describe, expect, it } from 'vitest'
import { bandPath, linePath } from './plots'
import { blurPlot, distanceTicks, limitsPlot, percentTicks, stopTicks } from './depthPlots'
import type { DepthView } from './types'

const points = [
  { x: 2, near_m: 1.8, far_m: 2.2 },
  { x: 40, near_m: 20, far_m: null },
]
const VIEW = {
  curves: [
    { format_id: 1, chosen: true, by_distance: points, by_stop: points, blur: [{ x: 5, percent: 0.5 }, { x: 100, percent: 2 }], blur_at_infinity: 2.5 },
  ],
} as unknown as DepthView // prettier-ignore
const NAMES = new Map([[1, 'UHD']])

describe('plots of depth', () => {
  it('reach from near to far, without infinity', () => {
    const plot = limitsPlot(VIEW, 'by_distance', NAMES)
    expect(plot.curves[0]).toMatchObject({ name: 'UHD', chosen: true, high: [[2, 2.2], [40, null]] }) // prettier-ignore
    expect([plot.x, plot.y[0], plot.y[1]]).toEqual([[2, 40], 1.8 * 0.95, 20 * 1.1])
    expect(stopTicks(plot).map((t) => t.text)).toEqual(['2', '40'])
  })

  it('of blur begin at none and count in round steps', () => {
    const plot = blurPlot(VIEW, NAMES)
    expect(plot.x).toEqual([5, 100])
    expect(percentTicks(plot).map((t) => t.text)).toEqual(['0', '0.5', '1', '1.5', '2', '2.5'])
  })

  it('mark feet in feet, and what is nearer in inches', () => {
    const ticks = distanceTicks([0.1, 3], 'ft')
    expect(ticks.some((t) => t.text.endsWith('"'))).toBe(true)
    expect(ticks.find((t) => t.text === "5'")?.at).toBeCloseTo(1.524)
    expect(distanceTicks([1, 10], 'm').map((t) => t.text)).toContain('5')
  })
})

describe('paths', () => {
  const same = (n: number) => n
  it('go on beyond the drawing at infinity', () => {
    expect(linePath([[1, 2], [3, null]], same, same, -50)).toBe('M1,2L3,-50') // prettier-ignore
    const curve = { id: 1, name: '', chosen: false, low: [[1, 2], [3, 4]], high: [[1, 5], [3, null]] } as never // prettier-ignore
    expect(bandPath(curve, same, same, -50)).toBe('M1,5L3,-50L3,4L1,2Z')
  })
  it('are none where there is no band', () =>
    expect(bandPath({ id: 1, name: '', chosen: false, low: [] }, same, same)).toBe(''))
})
