/** Marks of the kit's ladder, in words, and the figures on its axis. */
import { degrees, mm } from '../../lib/format'
import type { KitLadder, Rung } from '../../lib/types'

export const TICKS = [
  4, 6, 8, 10, 12, 16, 20, 25, 32, 40, 50, 65, 85, 100, 135, 180, 250, 350, 500, 700, 1000, 1500, 2000,
]

export const words = (r: Rung) =>
  `${r.lens}${r.via ? ` with ${r.via}` : ''}: ${mm(r.effective_mm)}${
    r.effective_long_mm === null ? '' : `–${mm(r.effective_long_mm)}`
  } mm, ${degrees(r.angle_deg)}, ${r.view_class}${r.verdict === 'covers' ? '' : r.verdict === 'marginal' ? ', just covers' : ', circle not stated'}`

/** What effective focal lengths are counted against. */
export function against({ reference: { name, by } }: KitLadder) {
  const window = { full_frame: 'full frame', super35: 'Super 35' }[name as string] ?? 'the chosen window'
  return `${window} by ${by}`
}
