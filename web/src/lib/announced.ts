/** What a change of the Bench is told in, for those who do not see it: what was set, and what follows. */
import { COLUMNS } from './columns'
import { limits, withUnit } from './figures'
import { aperture, distanceWithUnit, rate } from './format'
import type { BenchState, BenchView, FormatPlace, LadderRow, Lens, Unit } from './types'

export interface Announced {
  state: BenchState
  view: BenchView
  lens: Lens | undefined
  place: FormatPlace | undefined
}

/** What was set between two states, in words; what is not among these is not told. */
function changes(before: BenchState, { state, lens, place, view }: Announced): string[] {
  const said: [keyof BenchState, () => string][] = [
    ['lens_id', () => lens?.name ?? ''],
    ['format_id', () => place?.format.name ?? ''],
    ['stop', () => `${view.lens.marks}${aperture(state.stop)}`],
    ['subject_m', () => `subject ${distanceWithUnit(state.subject_m, state.unit)}`],
    ['focus_m', () => `focus ${distanceWithUnit(state.focus_m ?? state.subject_m, state.unit)}`],
    ['fps', () => `${rate(state.fps)} frames a second`],
    ['delivery', () => `delivery ${state.delivery.aspect ?? 'as recorded'}`],
    ['reference', () => 'another reference'],
    ['coc', () => 'another rule for sharp'],
  ]
  return said
    .filter(([key]) => JSON.stringify(before[key]) !== JSON.stringify(state[key]))
    .map(([, say]) => say())
}

function inFocus({ answer: { depth, subject_distance_m: mark } }: LadderRow, unit: Unit): string[] {
  if (depth.near_m == null || mark == null) return []
  const shown = limits(depth.near_m, depth.far_m, mark, unit)
  return [`in focus ${withUnit(shown.near, shown)} to ${withUnit(shown.far, shown)}`]
}

/** One sentence; empty where nothing that is told has changed. */
export function announced(before: Announced | null, now: Announced): string {
  if (!before) return ''
  const set = changes(before.state, now)
  if (!set.length) return ''
  const row = now.view.rows.find((r) => r.format_id === now.state.format_id)
  const figure = (key: string) =>
    row && now.place ? COLUMNS.find((c) => c.key === key)?.text(row, now.place, now.state.unit) : undefined
  const old = new Set(before.view.lens.notes.map((note) => note.text))
  const warnings = now.view.lens.notes.map((note) => note.text).filter((text) => !old.has(text))
  const follows = row ? [`frames like ${figure('effective')}`, ...inFocus(row, now.state.unit)] : []
  return `${[...set, ...follows].join(', ')}. ${warnings.join(' ')}`.trim()
}
