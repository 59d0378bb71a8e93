/** Entries of the log as they are written here. */
import type {
  BodyOption,
  Booking,
  LensOption,
  LogEntry,
  LogKept,
  OnCamera,
  Planned,
  SetDay,
  Take,
  TakeHeld,
  Tick,
} from './types'
import type { Waiting } from './waiting'

/** A key that nobody else makes; without a secure context a random one. */
export const newKey = (): string =>
  globalThis.crypto?.randomUUID?.() ??
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  )

/** Moments go to the millisecond, so that what is logged in one second stays in its order: `2026-05-18T20:07:40.120Z`. */
export const moment = (at: Date): string => at.toISOString()

/** How far this device's hour is from UTC, minutes. */
export const zoneMinutes = (at = new Date()): number => -at.getTimezoneOffset()

/** The moment that it is. */
export const now = (): string => moment(new Date())

export interface Writer {
  by: string
  unit: string
  day: string
}

const written = (writer: Writer, at: Date) => ({
  key: newKey(),
  at: moment(at),
  offset_min: zoneMinutes(at),
  by: writer.by,
  written_at: moment(at),
  unit: writer.unit,
  day: writer.day,
  removed: false,
})

export const EMPTY: OnCamera = {
  body: '', mode: '', format: '', lens: '', lens_set: '', serial: '', adapters: [], focal_mm: null, stop: null, ei: null, nd_stops: null,
  fps: null, shutter_deg: null, focus_m: null, crops: null, squeeze: null, card: '',
} // prettier-ignore

export const newTake = (
  writer: Writer,
  shot: Planned | null,
  take: number,
  on: OnCamera,
  at = new Date(),
): Take => ({
  ...written(writer, at),
  kind: 'take',
  shot: shot?.shot ?? null,
  shot_name: shot?.name ?? '',
  take,
  on,
  circled: false,
  note: '',
  seconds: null,
  said: null,
})

export const newBooking = (
  writer: Writer,
  shot: Planned | null,
  on: OnCamera,
  note = '',
  at = new Date(),
): Booking => ({
  ...written(writer, at),
  kind: 'booking',
  shot: shot?.shot ?? null,
  on,
  note,
})

export const newTick = (writer: Writer, body: string, item: string, at = new Date()): Tick => ({
  ...written(writer, at),
  kind: 'tick',
  body,
  item,
  ticked: true,
  note: '',
})

/** A later version of an entry: when it happened stays, who wrote it and when is new. */
export const changed = <E extends LogEntry>(entry: E, by: string, part: Partial<E>): E => ({
  ...entry,
  ...part,
  by,
  written_at: now(),
})

/** The time of day of an entry, by the clock of whoever wrote it. */
export function clockOf(entry: { at: string; offset_min: number }): string {
  const local = new Date(Date.parse(entry.at) + entry.offset_min * 60_000)
  return local.toISOString().slice(11, 16)
}

/** A take in the list: as the server has it, or on its way there. */
export interface ListedTake {
  entry: Take
  revision: number
  clock: string
  /** None until the server has held it against the plan. */
  seen: TakeHeld | null
  waiting: Waiting | null
}

/** The takes of a day with those that arrived after it was read and those that wait, the newest first. */
export function listed(
  day: SetDay | null,
  waiting: readonly Waiting[],
  arrived: readonly LogKept[] = [],
): ListedTake[] {
  const list = new Map<string, ListedTake>()
  for (const seen of day?.takes ?? [])
    list.set(seen.entry.key, {
      entry: seen.entry,
      revision: seen.revision,
      clock: seen.clock,
      seen,
      waiting: null,
    })
  for (const { entry, revision } of arrived)
    if (entry.kind === 'take' && entry.day === day?.day)
      list.set(entry.key, { entry, revision, clock: clockOf(entry), seen: null, waiting: null })
  for (const item of waiting) {
    const { entry } = item
    if (entry.kind !== 'take' || entry.day !== day?.day) continue
    const before = list.get(entry.key)
    list.set(entry.key, {
      entry,
      revision: Math.max(before?.revision ?? 0, item.basedOn + 1),
      clock: clockOf(entry),
      seen: null,
      waiting: item,
    })
  }
  return [...list.values()]
    .reverse()
    .filter((take) => !take.entry.removed)
    .sort((a, b) => b.entry.at.localeCompare(a.entry.at))
}

/** What was last shot with or booked on a camera, with what was written here since the day was read. */
export function lastOn(
  day: SetDay | null,
  written: readonly LogEntry[],
  unit: string,
): { on: OnCamera; shot: string | null } | null {
  // What was taken back is not on, whatever earlier versions of it say.
  const back = written.filter((e) => e.kind === 'booking' && e.removed).map((e) => e.key)
  const here = written
    .filter((e) => (e.kind === 'take' || e.kind === 'booking') && e.unit === unit && !e.removed)
    .findLast((e) => !back.includes(e.key))
  if (here?.kind === 'take' || here?.kind === 'booking') return here
  return day?.cameras.find((camera) => camera.unit === unit) ?? null
}

/** The number of the next take of a shot on a camera. */
export const nextTake = (takes: readonly ListedTake[], shot: string | null, unit: string): number =>
  1 +
  Math.max(0, ...takes.filter((t) => t.entry.shot === shot && t.entry.unit === unit).map((t) => t.entry.take))

/** The lens of a name, out of its set where it is said: several sets may have one of that name. */
export function lensIn(body: BodyOption | null, on: OnCamera): LensOption | null {
  const found = body?.lenses.filter((lens) => lens.name === on.lens) ?? []
  return found.find((lens) => lens.lens_set === on.lens_set) ?? found[0] ?? null
}
