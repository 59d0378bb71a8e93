/** Labels beside points: each is put where it covers neither another label nor a point, or is left out. */
export interface LabelledPoint {
  id: number
  x: number
  y: number
  text: string
}

const LINE = 14
const CHARACTER = 6.1
const GAP = 8

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}
const overlap = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

export function placeLabels(points: readonly LabelledPoint[], right: number): LabelledPoint[] {
  const taken: Box[] = points.map(({ x, y }) => ({ left: x - 5, right: x + 5, top: y - 5, bottom: y + 5 }))
  const placed: LabelledPoint[] = []
  for (const { id, x, y, text } of points) {
    const wide = text.length * CHARACTER
    const tries = [
      // Curves fall to the right: above right and below left are clear of them.
      { left: x + 3, base: y - GAP },
      { left: x - 3 - wide, base: y + GAP + 10 },
      { left: x - wide / 2, base: y - GAP },
      { left: x + GAP, base: y + 4 },
      { left: x - GAP - wide, base: y + 4 },
    ]
    const found = tries.find(({ left, base }) => {
      const box = { left, right: left + wide, top: base - LINE + 3, bottom: base + 3 }
      return box.left > 40 && box.right < right && !taken.some((other) => overlap(box, other))
    })
    if (!found) continue
    taken.push({
      left: found.left,
      right: found.left + wide,
      top: found.base - LINE + 3,
      bottom: found.base + 3,
    })
    placed.push({ id, x: found.left, y: found.base, text })
  }
  return placed
}
