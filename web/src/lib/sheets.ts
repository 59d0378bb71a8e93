/** What is known of sheets without asking: bundles to begin with, new sheets, tables cut for paper. */
import { SHEET_KINDS } from './generated/choices'
import { freeName, newKey } from './rows'
import type { Bundle, SheetPlan, SheetTable } from './types'

export type SheetKind = SheetPlan['kind']
export type Asks = (typeof SHEET_KINDS)[number]['asks'][number]

export const kindOf = (kind: SheetKind) => {
  const found = SHEET_KINDS.find((row) => row.kind === kind)
  if (!found) throw new Error(`there is no kind of sheet ${kind}`)
  return found
}
export const asksFor = (plan: SheetPlan, what: Asks) =>
  (kindOf(plan.kind).asks as readonly string[]).includes(what)
export const titleOf = (plan: SheetPlan) => plan.name || kindOf(plan.kind).title

export const PAPERS = [
  { value: 'a4', label: 'A4' },
  { value: 'letter', label: 'Letter' },
  { value: 'a6', label: 'A6' },
  { value: 'pocket', label: 'Pocket card' },
  { value: 'telephone', label: 'Telephone' },
] as const

export function newSheet(kind: SheetKind, part: Partial<SheetPlan> = {}): SheetPlan {
  return {
    key: newKey(),
    name: '',
    origins: {},
    kind,
    paper: 'a4',
    wide: kindOf(kind).wide,
    large: false,
    unit: null,
    from_front: false,
    lens_ids: [],
    lens_sets: [],
    bodies: [],
    format_ids: [],
    distances_m: [],
    stops: [],
    focal_mm: null,
    each: 'lens',
    days: [],
    which: '',
    ranked_by: 'blur',
    pay: 'hire',
    monitor_mm: 375,
    pictures: true,
    everything: false,
    given_to: '',
    made: null,
    ...part,
  }
}

/** What a bundle may begin with, by whom it is for. */
export const STARTERS: { name: string; told: string; sheets: () => SheetPlan[] }[] = [
  {
    name: 'For the cart',
    told: 'lens by format, depth, formats, cards, shutters, monitor marks',
    sheets: () =>
      (['lens_by_format', 'depth', 'formats', 'cards', 'exposure', 'flicker', 'monitor'] as const).map(
        (kind) => newSheet(kind),
      ),
  },
  {
    name: 'For the pocket',
    told: 'depth and fields on folded cards',
    sheets: () => [newSheet('depth', { paper: 'pocket' }), newSheet('field', { paper: 'pocket' })],
  },
  {
    name: 'For the director',
    told: 'what the lenses look like, and the shots with their pictures',
    sheets: () => [newSheet('look', { wide: true }), newSheet('shots')],
  },
  {
    name: 'For the rental house',
    told: 'the kit by case, adapters, coverage, claims',
    sheets: () => (['kit', 'adapters', 'coverage', 'claims'] as const).map((kind) => newSheet(kind)),
  },
]

export function newBundle(bundles: readonly Bundle[], name: string, sheets: SheetPlan[]): Bundle {
  return { key: newKey(), name: freeName(name, bundles), origins: {}, sheets }
}

/** The same sheet, once more. */
export const copyOf = (plan: SheetPlan): SheetPlan => ({ ...plan, key: newKey(), made: null })

/** What a sheet is of: all but how it was made. */
export const askedOf = (plan: SheetPlan) => JSON.stringify({ ...plan, made: null })

/** Columns of a table that fit beside one another on paper, by their widest text; the first ones come with each part. */
export function partsOf(table: Pick<SheetTable, 'columns' | 'rows' | 'fixed'>, room: number): number[][] {
  const wide = table.columns.map((column, j) => {
    const most = Math.max(
      column.title.length + column.unit.length,
      ...table.rows.map((row) => row.cells[j]?.text.length ?? 0),
    )
    return Math.min(most, column.words ? 28 : 40) + 2
  })
  const fixed = table.columns.map((_, j) => j).slice(0, table.fixed)
  const head = fixed.reduce((sum, j) => sum + (wide[j] ?? 0), 0)
  const parts: number[][] = []
  let here: number[] = []
  let used = head
  for (let j = table.fixed; j < table.columns.length;) {
    // A group is not torn apart.
    const { group, group_more } = table.columns[j] ?? { group: '', group_more: '' }
    let end = j + 1
    while (group && table.columns[end]?.group === group && table.columns[end]?.group_more === group_more)
      end += 1
    const more = wide.slice(j, end).reduce((sum, each) => sum + each, 0)
    if (here.length && used + more > room) {
      parts.push([...fixed, ...here])
      here = []
      used = head
    }
    for (; j < end; j += 1) here.push(j)
    used += more
  }
  if (here.length || !parts.length) parts.push([...fixed, ...here])
  return parts
}
