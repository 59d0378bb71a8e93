/**
 * What a lens does to an outline out of focus: each point becomes a disc, so that what shows at a place is the share of the
 * disc around it that the outline covers. Lengths are pixels of the grain at which it is averaged.
 */

/** Where something shows along one axis of the frame: from where on, and how far. */
export interface Stretch {
  from: number
  long: number
}

/** Where an outline shows that is spread by `reach`: a person close by may be many frames high, and most of that never does. */
export function showing(outline: number[], reach: number, [from, to]: [number, number]): Stretch | null {
  const first = Math.max(Math.min(...outline) - reach, from)
  const last = Math.min(Math.max(...outline) + reach, to)
  return last > first ? { from: first, long: last - first } : null
}

/** A disc, or the ellipse that a squeezed lens makes of it, row by row. */
export interface Disc {
  /** Whole pixels that it reaches beyond a pixel. */
  marginX: number
  marginY: number
  /** Half of its width in each row, from `-marginY` to `marginY`. */
  halves: number[]
  /** Its area. */
  area: number
}

export function discOf(rx: number, ry: number): Disc {
  const [marginX, marginY] = [Math.ceil(rx) + 1, Math.ceil(ry) + 1]
  const halves = Array.from({ length: 2 * marginY + 1 }, (_, i) => rowOf(i - marginY, rx, ry))
  return { marginX, marginY, halves, area: halves.reduce((sum, half) => sum + 2 * half, 0) }
}

/** Half the width of an ellipse in a row of pixels: its mean over the row, so that discs of few pixels are round, too. */
function rowOf(row: number, rx: number, ry: number): number {
  const STEPS = 8
  let sum = 0
  for (let i = 0; i < STEPS; i++) {
    const y = (row + (i + 0.5) / STEPS - 0.5) / ry
    if (Math.abs(y) < 1) sum += rx * Math.sqrt(1 - y * y)
  }
  return sum / STEPS
}

/**
 * The cover of `wide` by `high` pixels, 0 to 255, averaged over the disc around each. `rgba` is a picture of the outline, of
 * `stride` pixels a row, with the disc's margins on all sides; its cover is its alpha.
 */
export function spread(
  rgba: Uint8ClampedArray,
  stride: number,
  disc: Disc,
  wide: number,
  high: number,
): Float32Array {
  // Sums along each row, so that a stretch of any length costs two looks; half pixels lie between two of them.
  const sums = new Float32Array((stride + 1) * (high + 2 * disc.marginY))
  for (let y = 0; y < high + 2 * disc.marginY; y++) {
    let sum = 0
    for (let x = 0; x < stride; x++)
      sums[y * (stride + 1) + x + 1] = sum += rgba[4 * (y * stride + x) + 3] ?? 0
  }
  const out = new Float32Array(wide * high)
  for (const [row, half] of disc.halves.entries()) {
    if (half <= 0) continue
    const [low, top] = [disc.marginX + 0.5 - half, disc.marginX + 0.5 + half]
    const [lowAt, topAt] = [Math.floor(low), Math.floor(top)]
    const [lowPart, topPart] = [low - lowAt, top - topAt]
    for (let y = 0; y < high; y++) {
      const base = (y + row) * (stride + 1)
      if (sums[base + stride] === 0) continue
      for (let x = 0; x < wide; x++) {
        const [a, b] = [base + x + lowAt, base + x + topAt]
        const upper = (sums[b] ?? 0) * (1 - topPart) + (sums[b + 1] ?? 0) * topPart
        const lower = (sums[a] ?? 0) * (1 - lowPart) + (sums[a + 1] ?? 0) * lowPart
        out[y * wide + x] = (out[y * wide + x] ?? 0) + upper - lower
      }
    }
  }
  return out.map((sum) => sum / disc.area)
}
