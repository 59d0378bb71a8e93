/** The ladder's order and the scale that its depth bars share. */
import { COLUMNS } from './columns'
import type { FormatPlace, LadderRow, MovedRow } from './types'

/** The rows that pass the filters, in the wanted order; equal rows keep the package's order. */
export function sorted(
  rows: LadderRow[],
  places: Map<number, FormatPlace>,
  key: string | null,
  descending: boolean,
): LadderRow[] {
  const shown = rows.filter((row) => row.shown)
  const column = COLUMNS.find((c) => c.key === key)
  if (!column && key !== 'name') return shown
  const valueOf = (row: LadderRow) => {
    const place = places.get(row.format_id)
    if (!place) return null
    return column ? column.sortBy(row, place) : `${place.format.name} ${place.body.name}`
  }
  const sign = descending ? -1 : 1
  const compare = (a: string | number, b: string | number) =>
    typeof a === 'string' ? a.localeCompare(String(b)) : a - Number(b)
  return shown.toSorted((a, b) => {
    const [x, y] = [valueOf(a), valueOf(b)]
    // What is not known stands at the end, in both directions.
    if (x === null || y === null) return Number(x === null) - Number(y === null)
    return sign * compare(x, y)
  })
}

/** Where a distance stands on the bars: per cent from the nearest near limit to the farthest far limit. */
export function depthScale(rows: LadderRow[]): { share: (metres: number | null) => number } {
  const nears = rows.map((r) => r.answer.depth.near_m).filter((n) => n !== null)
  const low = Math.min(...nears)
  const fars = rows.map((r) => r.answer.depth.far_m).filter((f) => f !== null)
  const focus = rows[0]?.answer.subject_distance_m ?? low
  const endless = rows.some((r) => r.answer.depth.near_m !== null && r.answer.depth.far_m === null)
  const high = Math.min(Math.max(...fars, endless ? focus * 3 : low), focus * 3)
  const span = high - low
  return {
    share: (metres) => {
      if (!Number.isFinite(span) || span <= 0) return 0
      return metres === null ? 100 : Math.max(0, Math.min(100, (100 * (metres - low)) / span))
    },
  }
}

/** The last drawn rows in their places, with the new ones for what is in sight. */
export function hold(rows: LadderRow[], last: LadderRow[], inSight: ReadonlySet<number>): LadderRow[] {
  const fresh = new Map(rows.map((row) => [row.format_id, row]))
  return last.map((row) => (inSight.has(row.format_id) ? (fresh.get(row.format_id) ?? row) : row))
}

/** Rows with what moved of them. */
export function withMoved(rows: LadderRow[], moved: MovedRow[]): LadderRow[] {
  const fresh = new Map(moved.map((row) => [row.format_id, row]))
  return rows.map((row) => {
    const now = fresh.get(row.format_id)
    return now ? { ...row, ...now, answer: { ...row.answer, ...now.answer } } : row
  })
}
