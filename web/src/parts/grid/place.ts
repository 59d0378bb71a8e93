/** Where the keyboard goes in a grid. */
export interface Place {
  row: number
  column: number
}

/** Rows that Page Up and Page Down pass. */
const PAGE = 12

/** Where a key leads from a place, or null where it leads nowhere. */
export function led(from: Place, key: string, ctrl: boolean, size: Place): Place | null {
  const last = { row: size.row - 1, column: size.column - 1 }
  const to = {
    ArrowUp: { ...from, row: ctrl ? 0 : from.row - 1 },
    ArrowDown: { ...from, row: ctrl ? last.row : from.row + 1 },
    ArrowLeft: { ...from, column: ctrl ? 0 : from.column - 1 },
    ArrowRight: { ...from, column: ctrl ? last.column : from.column + 1 },
    PageUp: { ...from, row: from.row - PAGE },
    PageDown: { ...from, row: from.row + PAGE },
    Home: { row: ctrl ? 0 : from.row, column: 0 },
    End: { row: ctrl ? last.row : from.row, column: last.column },
  }[key]
  if (!to) return null
  return {
    row: Math.max(0, Math.min(to.row, last.row)),
    column: Math.max(0, Math.min(to.column, last.column)),
  }
}

/** The next cell that can be entered, row by row, or null behind the last one (before the first one). */
export function following(
  from: Place,
  by: 1 | -1,
  size: Place,
  entered: (at: Place) => boolean,
): Place | null {
  for (let n = from.row * size.column + from.column + by; n >= 0 && n < size.row * size.column; n += by) {
    const at = { row: Math.floor(n / size.column), column: n % size.column }
    if (entered(at)) return at
  }
  return null
}

/** The cells between two corners, whichever way they were drawn. */
export const between = (a: Place, b: Place) => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.column, b.column),
  right: Math.max(a.column, b.column),
})
