/** Two changes of one document put together: what was changed in another window, and what is changed here. */
import { alike } from './paths'

/** A place that both changed, each to something else. */
export interface Difference {
  /** In words: the row's name and the field. */
  where: string
  mine: unknown
  theirs: unknown
}

/** Both changes in one document; where both changed one place, it says mine, or theirs. */
export interface Merged<D> {
  mine: D
  theirs: D
  differences: Difference[]
}

/** Where two documents of a kind say something else, field by field. */
export function apart<D extends object>(mine: D, theirs: D): Difference[] {
  const fields = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])] as (keyof D & string)[]
  return fields
    .filter((field) => !alike(mine[field], theirs[field]))
    .map((field) => ({ where: words(field), mine: mine[field], theirs: theirs[field] }))
}

type Plain = Record<string, unknown>
type Keyed = Plain & { key: string }

/** A row that one removed while the other changed it. */
export const REMOVED = 'removed'
export const CHANGED = 'changed'

const isRow = (value: unknown): value is Keyed =>
  typeof value === 'object' && value !== null && typeof (value as Plain).key === 'string'
const isRows = (value: unknown): value is Keyed[] => Array.isArray(value) && value.every(isRow)

/**
 * Put two changes of a document together.
 *
 * Rows are followed by their keys, fields of the document and of its rows by their names; any other value is one
 * thing, which is not torn apart: a distance keeps its unit, a rule its figure.
 */
export function merged<D>(base: D, mine: D, theirs: D): Merged<D> {
  const differences: Difference[] = []
  const both = fieldsOf(base as Plain, mine as Plain, theirs as Plain, [], differences)
  return { mine: both[0] as D, theirs: both[1] as D, differences }
}

function fieldsOf(
  base: Plain,
  mine: Plain,
  theirs: Plain,
  where: string[],
  found: Difference[],
): [Plain, Plain] {
  const kept: Plain = {}
  const taken: Plain = {}
  for (const field of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const [one, other] = valueOf(base[field], mine[field], theirs[field], field, where, found)
    if (one !== undefined) kept[field] = one
    if (other !== undefined) taken[field] = other
  }
  return [kept, taken]
}

function valueOf(
  base: unknown,
  mine: unknown,
  theirs: unknown,
  field: string,
  where: string[],
  found: Difference[],
): [unknown, unknown] {
  if (alike(mine, theirs)) return [mine, mine]
  if (alike(theirs, base)) return [mine, mine]
  if (alike(mine, base)) return [theirs, theirs]
  if (isRows(mine) && isRows(theirs)) return rowsOf(isRows(base) ? base : [], mine, theirs, where, found)
  found.push({ where: [...where, words(field)].join(', '), mine, theirs })
  return [mine, theirs]
}

function rowsOf(
  base: Keyed[],
  mine: Keyed[],
  theirs: Keyed[],
  where: string[],
  found: Difference[],
): [Keyed[], Keyed[]] {
  const [before, here, there] = [base, mine, theirs].map((rows) => new Map(rows.map((row) => [row.key, row])))
  const kept: Keyed[] = []
  const taken: Keyed[] = []
  for (const key of order(base, mine, theirs)) {
    const [was, one, other] = [before?.get(key), here?.get(key), there?.get(key)]
    const row = one ?? other ?? was
    const named = [...where, row ? nameOf(row) : key]
    if (one && other) {
      const [a, b] = fieldsOf(was ?? ({} as Plain), one, other, named, found)
      kept.push(a as Keyed)
      taken.push(b as Keyed)
    } else if (one || other) {
      const left = one ?? other
      if (!left) continue
      // New in one of them; or removed in one, and as it was in the other.
      if (was && alike(left, was)) continue
      if (was) {
        found.push({
          where: named.join(', '),
          mine: one ? CHANGED : REMOVED,
          theirs: one ? REMOVED : CHANGED,
        })
        if (one) kept.push(left)
        else taken.push(left)
      } else {
        kept.push(left)
        taken.push(left)
      }
    }
  }
  return [kept, taken]
}

/** Every row's key: in my order where I moved rows, else in theirs; what only the other has stands after what it stood after. */
function order(base: Keyed[], mine: Keyed[], theirs: Keyed[]): string[] {
  const keys = (rows: Keyed[]) => rows.map((row) => row.key)
  const common = (rows: Keyed[]) => keys(rows).filter((key) => base.some((row) => row.key === key))
  const inBase = (rows: Keyed[]) => keys(base).filter((key) => rows.some((row) => row.key === key))
  const moved = !alike(common(mine), inBase(mine))
  const [lead, rest] = moved ? [keys(mine), keys(theirs)] : [keys(theirs), keys(mine)]
  const all = [...lead]
  rest.forEach((key, i) => {
    if (all.includes(key)) return
    const after = rest.slice(0, i).findLast((other) => all.includes(other))
    all.splice(after === undefined ? 0 : all.indexOf(after) + 1, 0, key)
  })
  return all
}

function nameOf(row: Keyed): string {
  for (const field of ['name', 'label', 'told']) {
    const value = row[field]
    if (typeof value === 'string' && value) return value
  }
  return 'a row without a name'
}

/** "close_focus_m" is the close focus. */
const words = (field: string) => field.replace(/_(id|m|mm|deg|stops|percent|kg)$/, '').replaceAll('_', ' ')

const MOST_LETTERS = 60

/** A value of a document in a few words. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'string' || typeof value === 'number') return shortened(String(value))
  if (Array.isArray(value)) {
    if (value.length === 0) return 'nothing'
    return value.every((each) => typeof each !== 'object')
      ? shortened(value.join(', '))
      : `${value.length} ${value.length === 1 ? 'entry' : 'entries'}`
  }
  const parts = Object.entries(value)
    .filter(([, each]) => each !== null && typeof each !== 'object')
    .map(([field, each]) => `${words(field)} ${String(each)}`)
  return shortened(parts.join(', ') || 'something else')
}

const shortened = (text: string) =>
  text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS - 1).trimEnd()}…` : text
