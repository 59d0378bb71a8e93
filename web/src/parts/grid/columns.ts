/** What a grid shows and takes: one row of such a table for each column. Reading, writing and pasting of cells. */
import type { Snippet } from 'svelte'
import { tsvFormatRows, tsvParseRows } from 'd3-dsv'
import { ratesText } from '../../lib/format'
import { getAt, parsePath, setAt, typedList, typedNumber } from '../../lib/paths'
import type { Unit } from '../../lib/types'
import { typedWeight, weightText } from '../../lib/weights'

export interface Row {
  key?: string
  name: string
}
export interface Choice {
  value: string
  label: string
}

export interface Column<R> {
  /** Where the cell is kept in its row: `raster[0]`. */
  key: string
  /** Over the figures, in a word. */
  title: string
  /** Spelled out, with the row's name behind it: "Raster width" of UHD. */
  name: string
  /** What it means; told when a cell of it is chosen. */
  gloss?: string
  kind: 'text' | 'number' | 'weight' | 'rates' | 'choice' | 'choices' | 'check' | 'computed'
  /** In which a weight is written; kept in kilograms. */
  unit?: Unit
  /** Where it is kept, where that differs from row to row. */
  at?: (row: R) => string
  /** What is shown, where it is not the value itself. */
  text?: (row: R) => string
  choices?: (row: R) => readonly Choice[]
  /** The row with another value, where more than one figure goes with it. */
  put?: (row: R, value: unknown) => R
  /** Whether the cell cannot be entered in this row. */
  fixed?: (row: R) => boolean
  bad?: (row: R) => boolean
  /** Drawn to scale instead of written. */
  drawn?: Snippet<[R]>
  /** A figure that is computed: it stands to the right. */
  right?: boolean
  /** A sentence: cut in its cell, told whole when its row is chosen. */
  long?: boolean
  /** Shown on a telephone also in rows that are not chosen. */
  first?: boolean
  /** What stands in an empty cell. */
  empty?: string
  /** Width, in characters, of a cell that is written into. */
  size?: number
}

/**
 * Figures by the keys of their rows. Columns look them up when a cell is drawn: where figures are others the columns stay what
 * they are, and only the cells that show one are written anew.
 */
export function figuresByKey<F extends { key: string }>(
  figures: () => readonly F[] | undefined,
): (row: { key?: string }) => F | undefined {
  let of: readonly F[] | undefined
  let byKey = new Map<string, F>()
  return (row) => {
    const now = figures()
    if (now !== of) {
      of = now
      byKey = new Map(now?.map((each) => [each.key, each]))
    }
    return byKey.get(row.key ?? '')
  }
}

export const pathOf = <R>(column: Column<R>, row: R) => column.at?.(row) ?? column.key

export const valueOf = <R>(column: Column<R>, row: R) => getAt(row, parsePath(pathOf(column, row)))

export const entered = <R>(column: Column<R>, row: R) => column.kind !== 'computed' && !column.fixed?.(row)

/** A cell's text. */
export const textOf = <R>(column: Column<R>, row: R): string => column.text?.(row) ?? writtenOf(column, row)

/** A cell's value as it is written into it. */
export function writtenOf<R>(column: Column<R>, row: R): string {
  const value = valueOf(column, row)
  if (value == null) return ''
  if (column.kind === 'weight' && typeof value === 'number') return weightText(value, column.unit ?? 'm')
  if (column.kind === 'rates' && Array.isArray(value)) return ratesText(value)
  const label = (one: unknown) => column.choices?.(row).find((c) => c.value === one)?.label ?? String(one)
  if (Array.isArray(value)) return value.map(label).join(', ')
  if (column.kind === 'check') return value === true ? 'yes' : value === false ? 'no' : String(value)
  return label(value)
}

/** What a text means in a cell; what means nothing stays as it is, for the server to say what is wrong with it. */
export function readText<R>(column: Column<R>, row: R, text: string): unknown {
  const told = text.trim()
  const chosen = (one: string) => {
    const same = (other: string) => other.toLowerCase() === one.trim().toLowerCase()
    return column.choices?.(row).find((c) => same(c.label) || same(c.value))?.value ?? one.trim()
  }
  switch (column.kind) {
    case 'number':
      return typedNumber(text)
    case 'weight':
      return typedWeight(text, column.unit ?? 'm')
    case 'rates':
      return typedList(text)
    case 'choice':
      return told === '' ? null : chosen(told)
    case 'choices':
      return told === '' ? [] : told.split(/[,;]/).map(chosen)
    case 'check':
      return /^(yes|true|1|x)$/i.test(told) ? true : /^(no|false|0)?$/i.test(told) ? false : told
    case 'text':
    case 'computed':
      return told
  }
}

export const withCell = <R>(column: Column<R>, row: R, value: unknown): R =>
  column.put ? column.put(row, value) : setAt(row, parsePath(pathOf(column, row)), value)

/** A block of cells as text that spreadsheets read, and back. */
export const blockText = <R>(rows: readonly R[], columns: readonly Column<R>[]) =>
  tsvFormatRows(rows.map((row) => columns.map((column) => textOf(column, row))))

export const blockOf = (text: string): string[][] => tsvParseRows(text.replace(/\r?\n$/, ''))

/** The rows with a block written over them from a cell on. Cells that cannot be entered are passed over; missing rows are made. */
export function pasted<R>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  from: { row: number; column: number },
  block: readonly (readonly string[])[],
  make: (rows: readonly R[]) => R,
): R[] {
  const list = [...rows]
  block.forEach((line, down) => {
    const at = from.row + down
    let row = list[at] ?? make(list)
    line.forEach((text, across) => {
      const column = columns[from.column + across]
      if (column && entered(column, row)) row = withCell(column, row, readText(column, row, text))
    })
    list[at] = row
  })
  return list
}
