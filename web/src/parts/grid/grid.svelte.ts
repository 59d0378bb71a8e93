/** One grid: which cell is chosen, which is being written, and what keys, pasting and copying do. */
import { tick } from 'svelte'
import type { Faults } from '../../lib/faults'
import {
  blockOf,
  blockText,
  entered,
  pasted,
  pathOf,
  readText,
  valueOf,
  writtenOf,
  type Column,
  type Row,
} from './columns'
import { between, following, led, type Place } from './place'
import { Windowed } from './windowed.svelte'

export interface GridProps<R extends Row> {
  /** What the rows are, in the plural. */
  label: string
  columns: readonly Column<R>[]
  rows: readonly R[]
  /** Path of the list in its document. */
  path: string
  chosen: string | undefined
  /** What is shown when there is no row. */
  empty: string
  /** Rules that are broken, by path. */
  faults: Faults
  /** Kind of a figure's own origin, or undefined. */
  origin?: (key: string, field: string) => string | undefined
  make: (rows: readonly R[]) => R
  onset: (path: string, value: unknown) => void
  onchoose: (key: string) => void
  onfigure?: ((key: string, field: string, label: string) => void) | undefined
  /** Keys that are about whole rows. */
  onkeydown?: (event: KeyboardEvent) => void
}

const below = (faults: Faults, path: string) => Object.entries(faults).find(([at]) => at.startsWith(path))

export type Way = 'down' | 'up' | 'next' | 'before' | 'stay'

export class GridState<R extends Row> {
  /** The chosen cell, by its row's key and its column's. */
  active = $state.raw<{ key: string; column: string } | null>(null)
  /** The other corner of a chosen block. */
  corner = $state.raw<Place | null>(null)
  /** The text that the chosen cell is written with: what was typed, or null for what is there. */
  writing = $state.raw<{ start: string | null } | null>(null)
  /** What was done last, for those who do not see it. */
  said = $state('')
  body = $state.raw<HTMLElement>()
  readonly view: Windowed

  constructor(readonly props: GridProps<R>) {
    this.view = new Windowed(
      () => this.props.rows.length,
      () => this.body,
    )
  }

  /** Where the chosen cell is; a row that has gone leaves its place to the chosen one. */
  readonly at = $derived.by((): Place => {
    const { rows, columns, chosen } = this.props
    const find = (key: string | undefined) => rows.findIndex((row) => row.key === key)
    const row = this.active ? find(this.active.key) : -1
    return {
      row: row >= 0 ? row : Math.max(0, find(chosen)),
      column: Math.max(
        0,
        columns.findIndex((column) => column.key === this.active?.column),
      ),
    }
  })
  readonly block = $derived(between(this.at, this.corner ?? this.at))

  get size(): Place {
    return { row: this.props.rows.length, column: this.props.columns.length }
  }
  label = (column: Column<R>, row: R) => `${column.name} of ${row.name}`
  fault(column: Column<R>, row: R, i: number): string | undefined {
    const { faults, path } = this.props
    const at = `${path}[${i}].${pathOf(column, row)}`
    // Rates are a list in one cell.
    return faults[at] ?? (column.kind === 'rates' ? below(faults, `${at}[`)?.[1] : undefined)
  }
  /** What is wrong with the chosen cell, or else the first thing that is wrong here, and whose it is. */
  readonly wrong = $derived.by((): { label: string; rule: string } | null => {
    const { rows, columns, faults, path } = this.props
    const { at } = this
    const told = (column: Column<R> | undefined, row: R | undefined, i: number) => {
      const rule = column && row && this.fault(column, row, i)
      return rule ? { label: this.label(column, row), rule } : null
    }
    const here = this.active ? told(columns[at.column], rows[at.row], at.row) : null
    const [, first] = /^\[(\d+)\]/.exec(below(faults, `${path}[`)?.[0].slice(path.length) ?? '') ?? []
    const i = Number(first)
    return here ?? columns.map((column) => told(column, rows[i], i)).find((one) => one !== null) ?? null
  })

  /** Choose a cell, and look at it. */
  choose(to: Place, corner: Place | null = null) {
    const row = this.props.rows[to.row]
    const column = this.props.columns[to.column]
    if (!row?.key || !column) return
    this.active = { key: row.key, column: column.key }
    this.corner = corner
    this.writing = null
    this.props.onchoose(row.key)
    if (column.kind !== 'computed')
      this.props.onfigure?.(row.key, pathOf(column, row).replace(/\[\d\]$/, ''), this.label(column, row))
  }

  async go(to: Place, corner: Place | null = null) {
    this.choose(to, corner)
    this.view.reveal(to.row)
    await tick()
    this.body
      ?.querySelector<HTMLElement>('[role=gridcell][tabindex="0"], [role=rowheader][tabindex="0"]')
      ?.focus()
  }

  write(start: string | null) {
    const row = this.props.rows[this.at.row]
    const column = this.props.columns[this.at.column]
    if (row && column && entered(column, row)) this.writing = { start }
  }

  /** Keep what was written, as it is meant, and go on. */
  async done(text: string, way: Way) {
    const { at } = this
    const row = this.props.rows[at.row]
    const column = this.props.columns[at.column]
    this.writing = null
    if (!row || !column) return
    if (text !== writtenOf(column, row)) this.set(at, readText(column, row, text))
    await this.#on(at, way)
  }

  async #on(at: Place, way: Way) {
    const free = ({ row, column }: Place) => {
      const [r, c] = [this.props.rows[row], this.props.columns[column]]
      return r !== undefined && c !== undefined && entered(c, r)
    }
    if (way === 'stay') return
    if (way === 'next' || way === 'before') {
      const to = following(at, way === 'next' ? 1 : -1, this.size, free)
      await this.go(to ?? at)
      if (to) this.write(null)
      return
    }
    await this.go(led(at, way === 'down' ? 'ArrowDown' : 'ArrowUp', false, this.size) ?? at)
  }

  set(at: Place, value: unknown) {
    const row = this.props.rows[at.row]
    const column = this.props.columns[at.column]
    if (!row || !column) return
    const path = `${this.props.path}[${at.row}]`
    if (column.put) this.props.onset(path, column.put(row, value))
    else this.props.onset(`${path}.${pathOf(column, row)}`, value)
  }

  keydown(event: KeyboardEvent) {
    if (this.writing) return
    this.props.onkeydown?.(event)
    if (event.defaultPrevented || event.altKey) return
    const ctrl = event.ctrlKey || event.metaKey
    const { at } = this
    const from = event.shiftKey ? (this.corner ?? at) : at
    const to = led(from, event.key, ctrl, this.size)
    const column = this.props.columns[at.column]
    const row = this.props.rows[at.row]
    if (to) {
      event.preventDefault()
      // With Shift the far corner moves, and the chosen cell stays.
      if (event.shiftKey) this.corner = to
      else void this.go(to)
    } else if (!column || !row || !entered(column, row)) return
    else if (event.key === ' ' && column.kind === 'check') {
      event.preventDefault()
      this.set(at, valueOf(column, row) !== true)
    } else if (event.key === 'Enter' || event.key === 'F2' || event.key === ' ') {
      event.preventDefault()
      this.write(null)
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault()
      this.clear()
    } else if (event.key === 'Escape') this.corner = null
    else if (ctrl && event.key.toLowerCase() === 'd') {
      event.preventDefault()
      this.fillDown()
    } else if (event.key.length === 1 && !ctrl) {
      // The letter itself is the first of what is written.
      event.preventDefault()
      this.write(event.key)
    }
  }

  /** Empty the chosen cells. */
  clear() {
    const { top, bottom, left, right } = this.block
    this.#over(
      Array.from({ length: bottom - top + 1 }, () => Array.from({ length: right - left + 1 }, () => '')),
    )
  }

  copy(event: ClipboardEvent) {
    if (this.writing || !event.clipboardData) return
    const { top, bottom, left, right } = this.block
    event.preventDefault()
    event.clipboardData.setData(
      'text/plain',
      blockText(this.props.rows.slice(top, bottom + 1), this.props.columns.slice(left, right + 1)),
    )
    this.said = `${bottom - top + 1} × ${right - left + 1} cells copied`
  }

  paste(event: ClipboardEvent) {
    if (this.writing || !event.clipboardData) return
    event.preventDefault()
    const block = blockOf(event.clipboardData.getData('text/plain'))
    const wide = Math.max(0, ...block.map((line) => line.length))
    if (wide === 0) return
    const { top, bottom, left, right } = this.block
    // One cell fills the block that is chosen.
    const one = block.length === 1 && wide === 1 ? block[0]?.[0] : undefined
    const before = this.props.rows.length
    if (one === undefined) this.#over(block)
    else
      this.#over(
        Array.from({ length: bottom - top + 1 }, () => Array.from({ length: right - left + 1 }, () => one)),
      )
    const more = Math.max(0, top + block.length - before)
    this.said = `${block.length} × ${wide} cells pasted${more ? `, ${more} rows added` : ''}`
  }

  /** Write the first row of the chosen block into all of it; a single cell takes what stands above it. */
  fillDown() {
    const { columns, rows } = this.props
    const { top, bottom, left, right } = this.block
    const source = rows[top === bottom ? top - 1 : top]
    if (!source) return
    const line = columns.slice(left, right + 1).map((column) => writtenOf(column, source))
    this.#over(Array.from({ length: bottom - top + 1 }, () => line))
    this.said = `Filled down over ${bottom - top + 1} row${bottom === top ? '' : 's'}`
  }

  /** Write a block from the chosen cell on, as one edit. */
  #over(block: string[][]) {
    const { rows, columns, path, make, onset } = this.props
    const from = { row: this.block.top, column: this.block.left }
    const column = columns[from.column]
    const row = rows[from.row]
    if (block.length === 1 && block[0]?.length === 1 && column && row) {
      if (entered(column, row)) this.set(from, readText(column, row, block[0][0] ?? ''))
    } else onset(path, pasted(rows, columns, from, block, make))
  }
}
