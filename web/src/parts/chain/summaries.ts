/** What each link of the band is set to, in a line. */
import { aperture, distanceWithUnit, mm, rate } from '../../lib/format'
import type { BenchState, BenchView, FormatPlace, Lens, Package } from '../../lib/types'
import { aspectLabel, type LinkName } from './links'

export function summaries(
  state: BenchState,
  view: BenchView,
  equipment: Package,
  place: FormatPlace,
  lens: Lens,
): Record<LinkName, string> {
  const set = equipment.lens_sets.find((s) => s.lenses.some((other) => other.id === lens.id))
  const adapter = equipment.adapters.find((a) => a.id === state.adapter_id)
  const crops = view.crops.filter((crop) => crop.on && crop.reason === null)
  const { width_mm, height_mm } = view.links.readout
  const { long_edge_px, protect } = state.delivery
  const circle = view.lens.circle_mm ? `Ø ${mm(view.lens.circle_mm)}` : ''
  const squeeze = lens.squeeze === 1 ? '' : `${lens.squeeze}× squeeze`
  return {
    subject: state.focus_m === null ? 'focus on it' : `focus ${distanceWithUnit(state.focus_m, state.unit)}`,
    lens: [set?.name, circle, squeeze].filter(Boolean).join(', '),
    adapter: adapter ? `${adapter.lens_mount} to ${adapter.body_mount}` : `${lens.mount} mount`,
    readout: `${place.body.name}, ${mm(width_mm)} × ${mm(height_mm)} mm`,
    recording: `${rate(state.fps)} fps, ${crops.map((c) => c.name.toLowerCase()).join(', ') || 'no crop'}`,
    delivery: `${long_edge_px ?? '–'} px${protect ? `, ${Math.round(100 * protect)} % spare` : ''}`,
  }
}

/** What each link is set to, in a word or two: all of the band on a telephone. */
export function chipWords(
  state: BenchState,
  view: BenchView,
  equipment: Package,
  place: FormatPlace,
  lens: Lens,
): Record<LinkName, string> {
  const adapters = [state.adapter_id, state.second_adapter_id].flatMap(
    (id) => equipment.adapters.find((a) => a.id === id)?.name ?? [],
  )
  const zoom = view.lens.zoom_marks_mm.length ? ` at ${mm(view.lens.focal_mm)}` : ''
  const stop = view.lens.stop === null ? '' : ` ${view.lens.marks}${aperture(view.lens.stop)}`
  const off = state.focus_m === null ? '' : `, focus ${distanceWithUnit(state.focus_m, state.unit)}`
  return {
    subject: `${distanceWithUnit(state.subject_m, state.unit)}${off}`,
    lens: `${lens.name}${zoom}${stop}`,
    adapter: adapters.join(' + ') || 'no adapter',
    readout: place.mode.name,
    recording: `${place.format.name} ${rate(state.fps)} fps`,
    delivery: aspectLabel(state.delivery.aspect),
  }
}
