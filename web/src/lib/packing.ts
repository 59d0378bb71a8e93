/** Packing without a page: kits, their order, the rows of the stock, and amounts in words. */
import { freeName, newKey } from './rows'
import type { KitPlan, KitShot, KitStep, KitThing, Packing, Stock, StockThing, ThingName } from './types'

type By = KitStep['by']

/** What a kit is made small by, in words that can be put in an order. */
export const OBJECTIVES: Record<By, { words: string; slack: string; about: string }> = {
  lenses: { words: 'fewest lenses', slack: 'lenses more', about: 'How many lenses are carried' },
  changes: {
    words: 'fewest changes',
    slack: 'changes more',
    about: 'How often another lens or body has to be put up, in the order of the list',
  },
  weight: { words: 'least weight', slack: '% more', about: 'Kilograms of everything that is carried' },
  cost: { words: 'least cost', slack: '% more', about: 'Of what is not owned, for the days of hire' },
  wishes: {
    words: 'nearest to the wishes',
    slack: '% more missed',
    about: 'What the best choice of every shot misses of its wishes',
  },
}
const EVERY: By[] = ['lenses', 'changes', 'weight', 'cost', 'wishes']

export const VERDICT_SIGNS: Record<KitShot['verdict'], { look: string; sign: string; words: string }> = {
  does: { look: 'ok', sign: '✓', words: 'done' },
  depends: { look: 'warn', sign: '?', words: 'done, if' },
  nearly: { look: 'warn', sign: '≈', words: 'nearly' },
  cannot: { look: 'bad', sign: '✗', words: 'nothing here does it' },
  given_up: { look: 'bad', sign: '✗', words: 'given up' },
  open: { look: 'soft', sign: '–', words: 'open' },
}

export const newKit = (kits: readonly KitPlan[]): KitPlan => ({
  ...({ key: newKey(), name: freeName('Kit', kits), origins: {}, note: '' } as const),
  order: EVERY.map((by) => ({ by, slack: 0 })),
  only: [],
  must: [],
  never: [],
  weight_limit_kg: null,
  framing_percent: 3,
  kept: null,
})

/** All objectives, those of the kit in their order first. */
export function wholeOrder(order: readonly KitStep[]): KitStep[] {
  const named = order.map((step) => step.by)
  return [...order, ...EVERY.filter((by) => !named.includes(by)).map((by) => ({ by, slack: 0 }))]
}

/** The order with one of its words at another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const rest = list.filter((_, i) => i !== from)
  const item = list[from]
  if (item === undefined) return [...list]
  rest.splice(Math.max(0, Math.min(rest.length, to)), 0, item)
  return rest
}

export const sameThing = (a: ThingName, b: ThingName) =>
  a.kind === b.kind && a.name === b.name && a.of === b.of

/** Lists of names with one more, or without it. */
export const toggled = (list: readonly ThingName[], thing: ThingName, on: boolean): ThingName[] => [
  ...list.filter((other) => !sameThing(other, thing)),
  ...(on ? [thing] : []),
]

export const wordsOf = (thing: { name: string; of: string }) => thing.name || `all of ${thing.of}`

/** Thousands are set apart; cents only where there are some. */
export function money(value: number | null | undefined, currency: string): string {
  if (value == null) return '–'
  const digits = Math.abs(value - Math.round(value)) < 0.005 ? 0 : 2
  const [whole = '', cents] = value.toFixed(digits).split('.')
  const set = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f')
  return `${set}${cents ? `.${cents}` : ''}${currency ? ` ${currency}` : ''}`
}

const KINDS = { lens: 0, body: 1, adapter: 2 } as const

/** The things of a kit with their places: lenses, bodies, adapters, those that are used most first. */
export const thingRows = (things: readonly KitThing[]) =>
  things
    .map((each, place) => ({ ...each, place }))
    .toSorted((a, b) => KINDS[a.kind] - KINDS[b.kind] || b.used.length - a.used.length)

export const count = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`

/** A row of the stock as the grid shows it: of a thing, or of a whole lens set. */
export interface StockRow extends Omit<Stock, 'key'> {
  key: string
  name: string
  /** What the equipment says; the row's own is only asked for where it says nothing. */
  known: StockThing | null
  set: boolean
}

const BLANK: Omit<Stock, 'key' | 'thing'> = {
  owned: false,
  count: 1,
  from_day: '',
  owner: '',
  serial: '',
  per_day: null,
  per_week: null,
  to_buy: null,
  weight_kg: null,
  case: '',
  note: '',
}

type Said = Omit<Stock, 'key' | 'thing'>
const FIELDS = Object.keys(BLANK) as (keyof Said)[]
const alike = (a: Said, b: Said) => FIELDS.every((field) => a[field] === b[field])
const statedOf = (document: Packing, thing: ThingName) =>
  document.stock.find((each) => sameThing(each.thing, thing))

/** Every thing that there is, in the order of the package; a lens set stands before its lenses, which have what it says. */
export function stockRows(document: Packing, things: readonly StockThing[]): StockRow[] {
  const rows: StockRow[] = []
  const row = (thing: ThingName, known: StockThing | null, like: Stock | undefined) => {
    const said = statedOf(document, thing) ?? like
    const name = thing.name || `All of ${thing.of}`
    rows.push({ ...BLANK, ...said, thing, known, set: thing.name === '', key: stockKey(thing), name })
  }
  let of = ''
  for (const { kind, name, ...each } of things) {
    const set = { kind: 'lens' as const, name: '', of: each.of }
    if (kind === 'lens' && each.of !== of) row(set, null, undefined)
    of = each.of
    row(
      { kind, name, of: each.of },
      { kind, name, ...each },
      kind === 'lens' ? statedOf(document, set) : undefined,
    )
  }
  return rows
}

export const stockKey = (thing: ThingName) => [thing.kind, thing.of, thing.name].join('|')

/** The stock after rows were changed: what says nothing of its own is left out. */
export function stockOf(document: Packing, before: readonly StockRow[], now: readonly StockRow[]): Stock[] {
  const others = document.stock.filter((each) => !before.some((row) => sameThing(row.thing, each.thing)))
  const stated = now.flatMap((row): Stock[] => {
    const was = before.find((each) => sameThing(each.thing, row.thing))
    const own = statedOf(document, row.thing)
    const untouched = was !== undefined && alike(was, row)
    if ((untouched && !own) || (!untouched && alike(row, BLANK) && !row.thing.of)) return []
    const said = Object.fromEntries(FIELDS.map((field) => [field, row[field]])) as Said
    return [{ ...said, thing: row.thing, key: own?.key ?? newKey() }]
  })
  return [...stated, ...others]
}

/** The list of shots with those of a day in another order; all others stay where they are. */
export function reordered<S extends { key?: string }>(shots: readonly S[], keys: readonly string[]): S[] {
  const waiting = keys.map((key) => shots.find((shot) => shot.key === key))
  return shots.map((shot) => (keys.includes(shot.key ?? '') ? (waiting.shift() ?? shot) : shot))
}
