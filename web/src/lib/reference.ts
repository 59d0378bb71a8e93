/** What crops are told against: the production's reference, or another that is looked at on the Bench. */
import type { BenchState, Package } from './types'

export type Reference = NonNullable<BenchState['reference']>

const same = (a: Reference, b: Reference) =>
  a.name === b.name &&
  a.by === b.by &&
  a.scan_mode_id === b.scan_mode_id &&
  a.own?.name === b.own?.name &&
  a.own?.width_mm === b.own?.width_mm &&
  a.own?.height_mm === b.own?.height_mm

/** Nothing where it is the production's own. */
export const orHouse = (reference: Reference, house: Reference) => (same(reference, house) ? null : reference)

/** Whether a Bench looks at another one than the production's. */
export const looksElsewhere = (reference: Reference | null | undefined, house: Reference) =>
  reference != null && !same(reference, house)

/** What it is called; a scan mode's window by the mode. */
export function referenceName({ name, own, scan_mode_id }: Reference, { bodies }: Pick<Package, 'bodies'>) {
  if (own) return own.name
  if (name !== 'scan_mode') return name === 'full_frame' ? 'full frame' : 'Super 35'
  const modes = bodies.flatMap((body) => body.modes)
  return modes.find((mode) => mode.id === scan_mode_id)?.name ?? 'a window'
}
