/** Rows of a body's document: new ones, copies, and names that are not taken yet. */
import { moved } from './paths'
import type { FormatDocument, ModeDocument } from './types'

export const newKey = () => crypto.randomUUID().replaceAll('-', '')

/** A name that no row has yet: "Full (2)". */
export function freeName(name: string, rows: readonly { name: string }[]): string {
  const taken = new Set(rows.map((row) => row.name))
  const bare = name.replace(/ \(\d+\)$/, '').slice(0, 72)
  if (!taken.has(name)) return name
  for (let i = 2; ; i++) if (!taken.has(`${bare} (${i})`)) return `${bare} (${i})`
}

export function newMode(photosites: readonly number[], rows: readonly { name: string }[]): ModeDocument {
  return {
    key: newKey(),
    name: freeName('New scan mode', rows),
    origins: {},
    window: [...photosites],
    window_mm: null,
    offset: [0, 0],
    sampling: [1, 1],
    methods: ['full', 'full'],
    row_time_us: null,
    overhead_us: 0,
    max_fps: null,
    menu: { name: '', where: '', overridden_by: '', finder: '', knocked: '' },
    formats: [],
  }
}

export function newFormat(rows: readonly { name: string }[]): FormatDocument {
  return {
    key: newKey(),
    name: freeName('New format', rows),
    origins: {},
    raster: [3840, 2160],
    map: 'scale',
    codec: '',
    bits: null,
    samples: null,
    compression: null,
    megabits: null,
    megabits_at_fps: null,
    raw: false,
    interlaced: false,
    rates: ['24', '25'],
    highest_fps: null,
    needs: [],
    from_firmware: null,
  }
}

export function copyOfFormat(format: FormatDocument, rows: readonly { name: string }[]): FormatDocument {
  return { ...format, key: newKey(), name: freeName(format.name, rows) }
}

export function copyOfMode(mode: ModeDocument, rows: readonly { name: string }[]): ModeDocument {
  const formats = (mode.formats ?? []).map((f) => ({ ...f, key: newKey() }))
  return { ...mode, key: newKey(), name: freeName(mode.name, rows), formats }
}

/** What can be done with the rows of a list; each gives a new list and the key of the row that is chosen then. */
export interface RowEdit<T> {
  rows: T[]
  chosen: string | undefined
}

export function inserted<T extends { key?: string }>(
  rows: readonly T[],
  row: T,
  after: string | undefined,
): RowEdit<T> {
  const at = rows.findIndex((r) => r.key === after)
  const list = [...rows]
  list.splice(at < 0 ? rows.length : at + 1, 0, row)
  return { rows: list, chosen: row.key }
}

export function shifted<T extends { key?: string }>(
  rows: readonly T[],
  key: string | undefined,
  by: number,
): RowEdit<T> {
  const at = rows.findIndex((r) => r.key === key)
  return { rows: at < 0 ? [...rows] : moved(rows, at, at + by), chosen: key }
}

export function deleted<T extends { key?: string }>(rows: readonly T[], key: string | undefined): RowEdit<T> {
  const at = rows.findIndex((r) => r.key === key)
  const list = rows.filter((r) => r.key !== key)
  return { rows: list, chosen: list[Math.min(at, list.length - 1)]?.key }
}

/** The chosen row; where it has gone, the first. */
export const chosenOf = <T extends { key?: string }>(rows: readonly T[], key: string | undefined) =>
  rows.find((row) => row.key === key) ?? rows[0]
