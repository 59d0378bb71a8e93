/** Single steps on the Bench, as keys take them: the next lens, mark, format, pin, reference. */
import { stepDistance } from './format'
import { orHouse, type Reference } from './reference'
import { neighbour } from './shortcuts'
import type { BenchState, BenchView, Lens } from './types'

/** What of the Bench a step needs. */
export interface Stepped {
  state: BenchState
  /** What the production counts against. */
  house: Reference
  view: BenchView | null
  lenses: Lens[]
  change: (part: Partial<BenchState>, kind?: string) => void
}

/** Most formats that are pinned at once. */
const PINS = 4

export function stepLens({ state, lenses, change }: Stepped, by: number) {
  const at = lenses.findIndex((lens) => lens.id === state.lens_id)
  const next = neighbour(lenses, at, by)
  if (next) change({ lens_id: next.id, focal_mm: null })
}

export function stepStop({ view, change }: Stepped, by: number) {
  if (!view) return
  const at = view.lens.stops.findIndex((stop) => stop >= (view.lens.stop ?? 0) - 1e-6)
  const next = neighbour(view.lens.stops, at, by)
  if (next) change({ stop: next }, 'stop')
}

export function stepFormat({ state, view, change }: Stepped, by: number) {
  const rows = view?.rows.filter((row) => row.shown) ?? []
  const at = rows.findIndex((row) => row.format_id === state.format_id)
  const next = neighbour(rows, at, by)
  if (next) change({ format_id: next.format_id }, 'choose')
}

export const stepSubject = ({ state, change }: Stepped, by: number) =>
  change({ subject_m: stepDistance(state.subject_m, state.unit, by) }, 'step subject')

export function togglePin({ state, change }: Stepped) {
  const { pinned, format_id: id } = state
  change({ pinned: pinned.includes(id) ? pinned.filter((p) => p !== id) : [...pinned, id].slice(-PINS) })
}

export function nextReference({ state, house, change }: Stepped) {
  const now = state.reference ?? house
  const name = now.name === 'super35' ? 'full_frame' : 'super35'
  change({ reference: orHouse({ by: now.by, name, own: null, scan_mode_id: null }, house) })
}
