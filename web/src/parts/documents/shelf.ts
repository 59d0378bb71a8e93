/** How bodies and lens sets stand in their lists. */
import { mm, rate } from '../../lib/format'
import type { BodySummary, LensSetSummary } from '../../lib/types'

export interface ShelfItem {
  id: number
  version: number
  maker: string
  name: string
  /** What it measures, and what it holds. */
  figure: string
  told: string
  changes: number
  /** All that it is searched by in a long list: class, rates, mount, circle, squeeze. */
  sought: string
}

const some = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`

export const bodyItem = (body: BodySummary): ShelfItem => ({
  ...body,
  figure: `${mm(body.width_mm)} × ${mm(body.height_mm)} mm`,
  told: `${some(body.modes, 'mode')}, ${some(body.formats, 'format')}`,
  sought: [
    `${mm(body.width_mm)} × ${mm(body.height_mm)} mm`,
    body.format_class,
    body.mount,
    body.offered_fps === null ? '' : `to ${rate(body.offered_fps)} fps`,
  ]
    .filter(Boolean)
    .join(', '),
})

export function lensSetItem(set: LensSetSummary): ShelfItem {
  const [low, high] = [set.focal_min_mm, set.focal_max_mm]
  const squeezed = set.squeezes.filter((s) => s !== 1).map((s) => `${s}×`)
  return {
    ...set,
    figure: low === null || high === null ? '' : low === high ? `${low} mm` : `${low}–${high} mm`,
    told: [some(set.lenses, 'lens', 'lenses'), ...squeezed, ...set.mounts].join(', '),
    sought: [
      low === null ? '' : low === high ? `${low} mm` : `${low}–${high} mm`,
      ...set.classes,
      ...set.mounts,
      ...(squeezed.length ? squeezed : ['spherical']),
      set.largest_circle_mm === null ? '' : `Ø ${mm(set.largest_circle_mm)}`,
    ]
      .filter(Boolean)
      .join(', '),
  }
}
