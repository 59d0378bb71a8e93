/** The columns of the list of shots: what each needs, and what is answered. */
import { aperture, distanceWithUnit, mm } from '../../lib/format'
import { NEEDS as KEYS, SHOT_CELLS } from '../../lib/generated/choices'
import { VERDICTS } from '../../lib/shotList'
import type { ListedAnswer, Shot, Unit } from '../../lib/types'
import type { Column } from '../grid/columns'

export type Need = (typeof KEYS)[number]

/** The cells of a shot by their names, as the core has them. */
const CELLS = new Map(SHOT_CELLS.map((cell) => [cell.key as string, cell]))
const cellOf = (key: string) => {
  const cell = CELLS.get(key)
  if (!cell) throw new Error(`There is no cell ${key}.`)
  return cell
}

/** Needs that may be wishes, in the order in which they are asked for. */
export const NEEDS = KEYS.map((key) => ({ ...cellOf(key), key }))

const text = (key: keyof Shot & string, more: Partial<Column<Shot>> = {}): Column<Shot> => {
  const { title, size, gloss } = cellOf(key)
  return { key, title, name: title, kind: 'text', size, ...(gloss ? { gloss } : {}), ...more }
}

const ABOUT = [text('name', { name: 'Number', first: true }), text('what', { first: true })]
const PLACE = [text('scene'), text('day'), text('unit'), text('height')]
const SAFETY = [text('lamps'), text('keep_out'), text('keep_out_by'), text('notes')]

/** What stands in a cell: a wish says so. */
const said = (shot: Shot, key: Need) => `${shot[key]}${shot[key] && shot.wishes[key] ? ' (wish)' : ''}`

export function shotColumns(
  answers: () => ReadonlyMap<string, ListedAnswer>,
  /** Whether any of them is off the main format of its unit. */
  offMain: boolean,
  unit: Unit,
  against: string,
  all: boolean,
): Column<Shot>[] {
  const of = (shot: Shot) => answers().get(shot.key)
  const best = (shot: Shot) => of(shot)?.best
  const needs = NEEDS.filter((need) => all || ['framing', 'distance', 'speed'].includes(need.key)).map(
    (need): Column<Shot> => ({
      ...text(need.key, { first: need.key === 'framing' }),
      text: (shot) => said(shot, need.key),
    }),
  )
  const told: Column<Shot>[] = [
    { key: 'answer.verdict', title: 'Verdict', name: 'Verdict', kind: 'computed', first: true, text: (s) => verdictWords(of(s)), bad: (s) => of(s)?.verdict === 'cannot' },
    { key: 'answer.lens', title: 'Lens', name: 'Lens', kind: 'computed', first: true, text: (s) => lensWords(best(s)) },
    { key: 'answer.stop', title: 'Stop', name: 'Stop set', kind: 'computed', right: true, text: (s) => stopWords(best(s)) },
    { key: 'answer.like', title: 'Like', name: 'Frames like', kind: 'computed', right: true, first: true, gloss: `What it frames like on ${against}, by width`, text: (s) => mm(best(s)?.effective_mm) },
    { key: 'answer.from', title: 'From', name: 'Distance used', kind: 'computed', right: true, text: (s) => distanceWithUnit(best(s)?.distance_m, unit) },
    { key: 'answer.format', title: 'Format', name: 'Format', kind: 'computed', text: (s) => (best(s) ? `${best(s)?.format}, ${best(s)?.body}` : '') },
    ...(offMain ? [{ key: 'answer.main', title: 'Off main', name: 'What forces it off the main format', kind: 'computed', text: (s) => of(s)?.off_main ?? '' } satisfies Column<Shot>] : []),
    { key: 'answer.binds', title: 'Binds', name: 'What binds', kind: 'computed', text: (s) => of(s)?.binds ?? '' },
  ] // prettier-ignore
  return all ? [...ABOUT, ...PLACE, ...needs, ...SAFETY, ...told.slice(0, 2)] : [...ABOUT, ...needs, ...told]
}

export function lensWords(choice: ListedAnswer['best'] | undefined): string {
  if (!choice) return ''
  return choice.is_zoom ? `${choice.lens_told} at ${Math.round(choice.focal_mm)}` : choice.lens_told
}

export const stopWords = (choice: ListedAnswer['best'] | undefined) =>
  choice?.stop == null ? '' : `${choice.marks}${aperture(choice.stop)}`

export function verdictWords(answer: ListedAnswer | undefined): string {
  if (!answer) return ''
  const { sign, words } = VERDICTS[answer.verdict]
  return `${sign} ${words}`
}
