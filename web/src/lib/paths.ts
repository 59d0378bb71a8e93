/** Paths into a document, as the server writes them: `modes[0].formats[3].rates[1]`. */
export type Step = string | number

export function parsePath(path: string): Step[] {
  return [...path.matchAll(/([^.[\]]+)|\[(\d+)\]/g)].map((m) =>
    m[2] === undefined ? (m[1] ?? '') : Number(m[2]),
  )
}

/** A copy in which one place says something else; everything beside the path is shared. */
export function setAt<T>(whole: T, path: readonly Step[], value: unknown): T {
  const [step, ...rest] = path
  if (step === undefined) return value as T
  const copy = (Array.isArray(whole) ? [...whole] : { ...whole }) as Record<Step, unknown>
  copy[step] = setAt(copy[step], rest, value)
  return copy as T
}

export function getAt(whole: unknown, path: readonly Step[]): unknown {
  return path.reduce<unknown>((at, step) => (at as Record<Step, unknown> | null | undefined)?.[step], whole)
}

const THOUSANDS = /^\d{1,3},\d{3}$/

/** What has to be asked of a figure whose comma may part thousands or decimals; nothing of any other. */
export const eitherWay = (text: string) =>
  THOUSANDS.test(text.trim())
    ? `may mean ${text.trim().replace(',', '')} or ${text.trim().replace(',', '.')}: write it without the comma, or with a point`
    : ''

/** What was typed for a number: a number where it is one, null for nothing, else the text itself for the server to refuse. */
export function typedNumber(text: string): number | string | null {
  const told = text.trim()
  if (told === '') return null
  // Thousands to some, decimals to others: it is asked.
  if (THOUSANDS.test(told)) return told
  const value = Number(told.replace(',', '.'))
  return Number.isFinite(value) && /^[-+.,\d]+(e[-+]?\d+)?$/i.test(told) ? value : told
}

/**
 * What was typed for a list, cut at semicolons, spaces and commas. Beside another sign that parts them a comma between digits
 * is a decimal one (23,976 24 25); of several in a row each parts (2,4,6); a single one may be either, stays, and is asked about.
 */
export function typedList(text: string): string[] {
  const spans = text.replace(/\s*(–|-|\.\.)\s*/g, '$1')
  const parts = spans.split(/\s*;\s*|,\s+|\s+,?\s*/).filter((part) => part !== '' && part !== ',')
  const alone = parts.length === 1
  return parts.flatMap((part) => {
    const bare = part.replace(/^,|,$/g, '')
    const commas = bare.split(',').length - 1
    if (commas > 1) return bare.split(',').filter((each) => each !== '')
    return alone ? [bare] : [bare.replace(',', '.')]
  })
}

/** What was typed for a list of numbers; the server refuses what is none, and asks about what may be one or two. */
export const typedNumbers = (text: string) =>
  typedList(text).map((part) => (part.includes(',') ? part : typedNumber(part)))

/** A list with an entry moved to another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const copy = [...list]
  const [item] = copy.splice(from, 1)
  if (item !== undefined) copy.splice(Math.max(0, Math.min(to, copy.length)), 0, item)
  return copy
}

const nothing = (value: unknown): boolean =>
  value == null || value === '' || (typeof value === 'object' && Object.values(value).every(nothing))

/** Whether two documents say the same, whatever the order of their keys, and with what is empty left out or not. */
export function alike(a: unknown, b: unknown): boolean {
  if (nothing(a) || nothing(b)) return nothing(a) && nothing(b)
  if (typeof a !== 'object' || typeof b !== 'object') return a === b
  const [one, two] = [a as Record<string, unknown>, b as Record<string, unknown>]
  return [...new Set([...Object.keys(one), ...Object.keys(two)])].every((key) => alike(one[key], two[key]))
}
