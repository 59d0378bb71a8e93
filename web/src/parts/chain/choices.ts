/** What comes with a choice in the band: the adapters of a lens, the first format of a scan mode. */
import type { BenchState, BenchView, FormatPlace, Lens, Package } from '../../lib/types'

/** What the trays of the band are given. */
export interface TrayProps {
  state: BenchState
  view: BenchView
  place: FormatPlace
  lens: Lens
  package: Package
  places: Map<number, FormatPlace>
  onlens: (lensId: number) => void
  onchange: (part: Partial<BenchState>, kind?: string) => void
}

/** Another lens of the same mount keeps what it is put on with; otherwise it comes with the least trouble. */
export function withLens(equipment: Package, view: BenchView, now: Lens, id: number): Partial<BenchState> {
  const next = equipment.lens_sets.flatMap((set) => set.lenses).find((lens) => lens.id === id)
  const [first = null, second = null] = view.kit.find((choice) => choice.lens_id === id)?.adapter_ids ?? []
  const adapters = next?.mount === now.mount ? {} : { adapter_id: first, second_adapter_id: second }
  return { lens_id: id, focal_mm: null, ...adapters }
}

/** A lens as it goes on the chosen body, with whatever it goes through. */
export function asItGoesOn(view: BenchView, id: number): Partial<BenchState> {
  const [first = null, second = null] = view.kit.find((choice) => choice.lens_id === id)?.adapter_ids ?? []
  return { lens_id: id, focal_mm: null, adapter_id: first, second_adapter_id: second }
}

export function withMode(equipment: Package, id: number): Partial<BenchState> {
  const format = equipment.bodies.flatMap((body) => body.modes).find((mode) => mode.id === id)?.formats[0]
  return format ? { format_id: format.id } : {}
}
