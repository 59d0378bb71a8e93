/** What can be chosen, as the rows of a choice (parts/controls/Choice). */
import { aperture } from './format'
import type { Body, Package, RecordingFormat } from './types'

export interface Option<V> {
  value: V
  label: string
  /** What it stands under. */
  group?: string
  disabled?: boolean
  /** A sign beside it, and what the sign says. */
  sign?: string
  words?: string
}

/** The same list with what is chosen now, where the list has it not. */
export function withChosen<V>(options: readonly Option<V>[], value: V, label: string): Option<V>[] {
  return options.some((option) => option.value === value) ? [...options] : [...options, { value, label }]
}

/** Plain words that stand for themselves. */
export function wordOptions<const V extends string>(
  words: readonly V[],
  label = (word: V): string => word,
): Option<V>[] {
  return words.map((value) => ({ value, label: label(value) }))
}

/** Rising figures, with the one that is set. */
export function figureOptions(
  figures: readonly number[],
  set: number | null | undefined,
  label: (figure: number) => string,
): Option<number>[] {
  const all = [...new Set(set == null ? figures : [...figures, set])].toSorted((a, b) => a - b)
  return all.map((value) => ({ value, label: label(value) }))
}

/** The marks of a lens's ring, with the stop that is set. */
export function stopOptions(lens: {
  stops: readonly number[]
  stop: number | null
  marks: string
}): Option<number>[] {
  return figureOptions(lens.stops, lens.stop, (stop) => `${lens.marks}${aperture(stop)}`)
}

/** Anything that has a name and a number. */
export function namedOptions(
  rows: readonly { id: number; name: string }[],
  group?: string,
): Option<number>[] {
  return rows.map(({ id, name }) => ({ value: id, label: name, ...(group ? { group } : {}) }))
}

/** Adapters, or none. */
export function adapterOptions(
  adapters: readonly { id: number; name: string }[],
  none: string,
): Option<number | null>[] {
  return [{ value: null, label: none }, ...namedOptions(adapters)]
}

/** Every lens of these sets, set by set. */
export function lensOptions(sets: Package['lens_sets']): Option<number>[] {
  return sets.flatMap((set) => namedOptions(set.lenses, `${set.maker} ${set.name}`))
}

/** Every recording format of these bodies, body by body. */
export function formatOptions(
  bodies: readonly Body[],
  label: (format: RecordingFormat, body: Body) => string = (format) => format.name,
): Option<number>[] {
  return bodies.flatMap((body) =>
    body.modes
      .flatMap((mode) => mode.formats)
      .map((format) => ({
        value: format.id,
        label: label(format, body),
        group: `${body.maker} ${body.name}`,
      })),
  )
}
