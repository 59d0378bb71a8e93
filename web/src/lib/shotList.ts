/** Shots without a page: their verdicts in words, which are shown, and a list whose shown part was changed. */
import type { Faults } from './faults'
import { freeName, newKey } from './rows'
import type { FinderView, ListedAnswer, Shot, ShotChange, ShotVerdict } from './types'

export const VERDICTS: Record<ShotVerdict, { look: string; sign: string; words: string }> = {
  does: { look: 'ok', sign: '✓', words: 'does it' },
  depends: { look: 'warn', sign: '?', words: 'does it, if' },
  nearly: { look: 'warn', sign: '≈', words: 'nearly' },
  cannot: { look: 'bad', sign: '✗', words: 'not with this' },
  open: { look: 'soft', sign: '–', words: 'open' },
}

/** What is shown of the list. */
export interface ShotFilter {
  day: string
  unit: string
  scene: string
  verdict: ShotVerdict | ''
}

export const NO_FILTER: ShotFilter = { day: '', unit: '', scene: '', verdict: '' }

export function passes(filter: ShotFilter, shot: Shot, answer: ListedAnswer | undefined): boolean {
  const alike = (wanted: string, said: string) => wanted === '' || said.trim() === wanted
  return (
    alike(filter.day, shot.day) &&
    alike(filter.unit, shot.unit) &&
    alike(filter.scene, shot.scene) &&
    (filter.verdict === '' || answer?.verdict === filter.verdict)
  )
}

/** A list after the rows that are shown of it were changed: what is not shown stays where it is. */
export function merged<R extends { key?: string }>(
  whole: readonly R[],
  shown: readonly R[],
  now: readonly R[],
): R[] {
  const places = new Set(shown.map((row) => row.key))
  const last = whole.findLastIndex((row) => places.has(row.key))
  const waiting = [...now]
  const found: R[] = []
  whole.forEach((row, i) => {
    if (!places.has(row.key)) found.push(row)
    else if (waiting.length) found.push(waiting.shift() as R)
    if (i === last) found.push(...waiting.splice(0))
  })
  return [...found, ...waiting]
}

/** Anything by the key of its shot. */
export const byKey = <T extends { key: string }>(rows: readonly T[]): ReadonlyMap<string, T> =>
  new Map(rows.map((row) => [row.key, row]))

/** Rules that are broken in the list, and cells that cannot be read, by their places among the rows that are shown. */
export function shownFaults(
  whole: readonly Shot[],
  shown: readonly Shot[],
  faults: Faults,
  answers: ReadonlyMap<string, ListedAnswer>,
): Faults {
  const places = new Map(shown.map((shot, i) => [shot.key, i]))
  const found: Record<string, string> = {}
  for (const [path, rule] of Object.entries(faults)) {
    const [, at, rest] = /^shots\[(\d+)\](.*)$/.exec(path) ?? []
    const place = places.get(whole[Number(at)]?.key ?? '')
    if (place !== undefined) found[`shots[${place}]${rest}`] = rule
  }
  for (const [key, answer] of answers) {
    const place = places.get(key)
    if (place === undefined) continue
    for (const fault of answer.faults) found[`shots[${place}].${fault.field}`] ??= fault.rule
  }
  return found
}

/** Pictures after some were drawn anew; a shot without an image loses the one that it had. */
export function withPictures(
  pictures: ReadonlyMap<string, FinderView>,
  drawn: readonly { key: string; viewfinder: FinderView | null }[],
): ReadonlyMap<string, FinderView> {
  const next = new Map(pictures)
  for (const { key, viewfinder } of drawn) {
    if (viewfinder) next.set(key, viewfinder)
    else next.delete(key)
  }
  return next
}

/** A new shot: in the scene, on the day and with the unit of the one before it. */
export function newShot(rows: readonly Shot[], like: Shot | undefined): Shot {
  return {
    ...BLANK,
    key: newKey(),
    name: freeName('Shot', rows),
    scene: like?.scene ?? '',
    day: like?.day ?? '',
    unit: like?.unit ?? '',
  }
}

export const BLANK: Shot = {
  key: '', name: '', origins: {}, scene: '', what: '', height: '', day: '', unit: '', notes: '', framing: '', distance: '',
  room: '', speed: '', deliveries: '', hold: '', background: '', stop: '', light: '', lamps: '', picture: '', nearest: '',
  rig: '', look: '', glass: '', body: '', keep_out: '', keep_out_by: '', wishes: {}, pin: null, extra: {},
} // prettier-ignore

/** What a change makes of the shot's own row; null where something of the equipment has to change. */
export function partOf(shot: Shot, change: ShotChange): Partial<Shot> | null {
  let part: Partial<Shot> = {}
  for (const edit of change.edits) {
    if (edit.kind === 'unpin') part = { ...part, pin: null }
    else if (edit.kind === 'bring') part = { ...part, pin: JSON.parse(edit.to) as Shot['pin'] }
    else if (edit.kind === 'wish')
      part = { ...part, wishes: { ...shot.wishes, ...part.wishes, [edit.field]: 1 } }
    else if (edit.field) part = { ...part, [edit.field]: edit.to }
    else return null
  }
  return part
}
