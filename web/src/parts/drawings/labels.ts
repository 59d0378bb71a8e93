/** Labels beside points: each is put where it covers neither another label nor a point, or is left out. */
export interface LabelledPoint<K = number> {
  id: K
  x: number
  y: number
  text: string
}

const LINE = 14
const CHARACTER = 6.1
const GAP = 8
/** How far from its thing a name begins, and how far a thing reaches. */
const BESIDE = 12
const THING = 8

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}
const overlap = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

type Place = { left: number; base: number }

function placed<K>(
  points: readonly LabelledPoint<K>[],
  /** How far a point reaches. */
  reach: number,
  /** Where a label may begin, and on which line it stands, from the best to the least. */
  places: (point: LabelledPoint<K>, wide: number) => Place[],
  inside: (box: Box) => boolean,
): LabelledPoint<K>[] {
  const taken: Box[] = points.map(({ x, y }) => ({
    left: x - reach,
    right: x + reach,
    top: y - reach,
    bottom: y + reach,
  }))
  return points.flatMap((point) => {
    const wide = point.text.length * CHARACTER
    for (const { left, base } of places(point, wide)) {
      const box = { left, right: left + wide, top: base - LINE + 3, bottom: base + 3 }
      if (!inside(box) || taken.some((other) => overlap(box, other))) continue
      taken.push(box)
      return [{ ...point, x: left, y: base }]
    }
    return []
  })
}

/** Labels of the points of curves: right of the axis, left of `right`. */
export function placeLabels(points: readonly LabelledPoint[], right: number): LabelledPoint[] {
  const places = ({ x, y }: LabelledPoint, wide: number) => [
    // Curves fall to the right: above right and below left are clear of them.
    { left: x + 3, base: y - GAP },
    { left: x - 3 - wide, base: y + GAP + 10 },
    { left: x - wide / 2, base: y - GAP },
    { left: x + GAP, base: y + 4 },
    { left: x - GAP - wide, base: y + 4 },
  ]
  return placed(points, 5, places, (box) => box.left > 40 && box.right < right)
}

/** Names of things in a plan: beside each on either side, then a line higher or lower; the first of them first. */
export function placeNames<K>(
  things: readonly LabelledPoint<K>[],
  width: number,
  height: number,
): LabelledPoint<K>[] {
  const places = ({ x, y }: LabelledPoint<K>, wide: number) =>
    [4, 4 - LINE, 4 + LINE].flatMap((lower) => [
      { left: x + BESIDE, base: y + lower },
      { left: x - BESIDE - wide, base: y + lower },
    ])
  const inside = (box: Box) => box.left >= 0 && box.right <= width && box.top >= 0 && box.bottom <= height
  return placed(things, THING, places, inside)
}
