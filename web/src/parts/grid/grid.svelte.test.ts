import { fireEvent, render, screen, within } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { newAdapter, newLens } from '../../lib/lenses.svelte'
import { newFormat, newMode } from '../../lib/rows'
import type { BodySheet, FormatDocument } from '../../lib/types'
import { formatColumns, modeColumns } from '../documents/bodyColumns'
import { lensColumns } from '../documents/lensColumns'
import { adapterColumns, filterColumns } from '../documents/rigColumns'
import type { Column, Row } from './columns'
import Grid from './Grid.svelte'

const MODE = { ...newMode([6000, 4000], []), key: 'm', name: 'Full' }
const FORMAT = { ...newFormat([]), key: 'f', name: 'UHD' }
const SHEET = {
  modes: [{ key: 'm', photosites: [6000, 4000], rect: { x: -18, y: -12, width: 36, height: 24 }, scan_fps: 42.7, readout_ms: 23 }],
  formats: [
    { key: 'f', width_mm: 36, height_mm: 20.25, oversampling: [1.5625, 1.5625], limited_by: 'readout',
      rate_text: '25 (readout 42.7)', mb_s: 93.75, notes: ['Check this.'] },
  ],
} as unknown as BodySheet // prettier-ignore

function grid<R extends Row>(rows: R[], columns: Column<R>[], more: object = {}) {
  const acts = { onset: vi.fn(), onchoose: vi.fn(), onfigure: vi.fn(), onkeydown: vi.fn() }
  const props = {
    label: 'Rows', path: 'rows', rows, columns, chosen: rows[0]?.key, empty: 'No row yet: add the first.',
    faults: {}, make: (all: readonly R[]) => ({ ...all[0], key: `k${all.length}` }), ...acts, ...more,
  } // prettier-ignore
  return { ...acts, ...render(Grid, props as never) }
}
const formats = (count: number): FormatDocument[] =>
  Array.from({ length: count }, (_, i) => ({ ...FORMAT, key: `f${i}`, name: `Format ${i}` }))
const cell = (name: string) =>
  screen.getByRole(/^Name/.test(name) ? 'rowheader' : 'gridcell', { name: new RegExp(`^${name}:`) })
const press = (keys: string) => userEvent.keyboard(keys)

describe('a grid', () => {
  it('shows figures with what follows from them', () => {
    grid(
      [FORMAT],
      formatColumns(() => SHEET),
    )
    const row = within(screen.getAllByRole('row')[1] as HTMLElement)
    for (const text of ['3840', '36.00 × 20.25', '1.56×', '25 (readout 42.7)', 'readout', '93.8', 'scaled'])
      expect(row.getByText(text)).toBeInTheDocument()
    // A sentence stands whole above, for the row that is chosen.
    expect(screen.getAllByText('Check this.')).toHaveLength(2)
  })

  it('says what to do when it is empty', () => {
    grid(
      [],
      modeColumns(() => null),
    )
    expect(screen.getByText('No row yet: add the first.')).toBeInTheDocument()
  })

  it('has one tab stop, that the arrows move', async () => {
    const { container, onchoose, onfigure } = grid(
      formats(3),
      formatColumns(() => null),
    )
    await userEvent.tab()
    expect(cell('Name of Format 0')).toHaveFocus()
    await press('{ArrowDown}{ArrowRight}')
    expect(cell('Raster width of Format 1')).toHaveFocus()
    expect(container.querySelectorAll('td[tabindex="0"]')).toHaveLength(1)
    expect(onchoose).toHaveBeenLastCalledWith('f1')
    expect(onfigure).toHaveBeenLastCalledWith('f1', 'raster', 'Raster width of Format 1')
    await press('{Control>}{End}{/Control}')
    expect(cell('Check of Format 2')).toHaveFocus()
  })

  it('is written by typing, kept by Enter, dropped by Escape', async () => {
    const { onset } = grid(
      formats(2),
      formatColumns(() => null),
    )
    await userEvent.click(cell('Bits of Format 0'))
    await press('12')
    expect(screen.getByRole('textbox')).toHaveValue('12')
    expect(onset).not.toHaveBeenCalled()
    await press('{Escape}')
    expect(cell('Bits of Format 0')).toHaveFocus()
    await press('{F2}{Backspace}8{Enter}')
    expect(onset).toHaveBeenCalledExactlyOnceWith('rows[0].bits', 8)
    expect(cell('Bits of Format 1')).toHaveFocus()
    // What is opened and left as it was says nothing: an exact rate stays exact.
    await press('{Enter}{Enter}')
    expect(onset).toHaveBeenCalledOnce()
  })

  it('goes on writing with Tab, over the end of the row', async () => {
    const { onset } = grid(
      formats(2),
      formatColumns(() => null),
    )
    await userEvent.click(cell('Codec limit of Format 0'))
    await press('30{Tab}')
    expect(onset).toHaveBeenLastCalledWith('rows[0].highest_fps', 30)
    expect(screen.getByLabelText('Name of Format 1')).toHaveFocus()
    await press('{Shift>}{Tab}{/Shift}')
    expect(screen.getByLabelText('Codec limit of Format 0')).toHaveFocus()
  })

  it('keeps what is written when it is left for something else', async () => {
    const { onset } = grid(
      formats(1),
      formatColumns(() => null),
    )
    await userEvent.click(cell('Codec of Format 0'))
    await press('raw')
    await userEvent.click(document.body)
    expect(onset).toHaveBeenCalledExactlyOnceWith('rows[0].codec', 'raw')
  })

  it('opens at a tap, and at a second click', async () => {
    grid(
      formats(2),
      formatColumns(() => null),
    )
    await userEvent.click(cell('Bits of Format 1'))
    expect(screen.queryByRole('textbox')).toBeNull()
    await userEvent.click(cell('Bits of Format 1'))
    expect(screen.getByRole('textbox')).toHaveFocus()
    await press('{Escape}')
    const tap = new MouseEvent('click', { bubbles: true })
    Object.defineProperty(tap, 'pointerType', { value: 'touch' })
    await fireEvent(cell('Bits of Format 0'), tap)
    expect(await screen.findByLabelText('Bits of Format 0')).toHaveFocus()
  })

  it('copies and pastes blocks as one edit', async () => {
    const { onset } = grid(
      formats(3),
      formatColumns(() => null),
    )
    await userEvent.click(cell('Raster width of Format 0'))
    await press('{Shift>}{ArrowDown}{ArrowRight}{/Shift}')
    const set = vi.fn()
    await fireEvent.copy(cell('Raster width of Format 0'), { clipboardData: { setData: set } })
    expect(set).toHaveBeenCalledWith('text/plain', '3840\t2160\n3840\t2160')
    await userEvent.click(cell('Raster width of Format 2'))
    const text = '1920\t1080\r\n1280\t720\r\n'
    await fireEvent.paste(cell('Raster width of Format 2'), { clipboardData: { getData: () => text } })
    expect(onset).toHaveBeenCalledOnce()
    const [path, rows] = onset.mock.lastCall ?? []
    expect(path).toBe('rows')
    expect(rows.map((row: FormatDocument) => row.raster)).toEqual([[3840, 2160], [3840, 2160], [1920, 1080], [1280, 720]]) // prettier-ignore
    expect(screen.getByRole('log')).toHaveTextContent('2 × 2 cells pasted, 1 rows added')
  })

  it('fills down what stands first, or what stands above', async () => {
    const rows = formats(3).map((row, i) => ({ ...row, codec: `codec ${i}`, bits: 8 + i }))
    const { onset } = grid(
      rows,
      formatColumns(() => null),
    )
    await userEvent.click(cell('Codec of Format 0'))
    await press('{Shift>}{ArrowDown}{ArrowDown}{ArrowRight}{/Shift}{Control>}d{/Control}')
    expect(onset.mock.lastCall?.[1].map((row: FormatDocument) => [row.codec, row.bits])).toEqual([['codec 0', 8], ['codec 0', 8], ['codec 0', 8]]) // prettier-ignore
    await userEvent.click(cell('Codec of Format 2'))
    await press('{Control>}d{/Control}')
    expect(onset).toHaveBeenLastCalledWith('rows[2].codec', 'codec 1')
    await userEvent.click(cell('Codec of Format 0'))
    onset.mockClear()
    await press('{Control>}d{/Control}')
    expect(onset).not.toHaveBeenCalled()
  })

  it('tells what is wrong at the cell and whole above it', async () => {
    const faults = { 'rows[1].bits': 'must be a number', 'rows[0].rates[1]': 'is no rate' }
    grid(
      formats(2),
      formatColumns(() => null),
      { faults },
    )
    for (const name of ['Bits of Format 1', 'Rates of Format 0'])
      expect(cell(name)).toHaveAttribute('aria-invalid', 'true')
    // The first that is wrong is told, until another one is chosen.
    expect(screen.getByRole('alert')).toHaveTextContent('must be a number')
    await userEvent.click(cell('Rates of Format 0'))
    expect(cell('Rates of Format 0')).toHaveAccessibleDescription(/Rates of Format 0\s*is no rate/)
  })

  it('draws only the rows near the view of a long list, and keeps its height', () => {
    const { container } = grid(
      formats(400),
      formatColumns(() => SHEET),
    )
    const drawn = container.querySelectorAll('tr[data-key]').length
    expect(drawn).toBeGreaterThan(10)
    expect(drawn).toBeLessThan(100)
    const spacer = container.querySelector<HTMLElement>('tbody tr[aria-hidden]:last-child')
    expect(Number.parseFloat(spacer?.style.height ?? '')).toBeCloseTo((400 - drawn) * 28)
    expect(screen.getByRole('grid')).toHaveAttribute('aria-rowcount', '401')
  })
})

describe('the columns', () => {
  it('turn a window into millimetres and back by what the server says', async () => {
    const { onset, rerender } = grid(
      [MODE],
      modeColumns(() => SHEET),
    )
    await userEvent.click(cell('Unit of the window of Full'))
    await userEvent.selectOptions(screen.getByRole('combobox'), 'mm')
    const inMm = onset.mock.lastCall?.[1]
    expect(inMm).toMatchObject({ window: null, window_mm: [36, 24] })
    await rerender({ rows: [inMm] })
    expect(cell('Window width of Full')).toHaveTextContent('36')
    await userEvent.click(cell('Unit of the window of Full'))
    await userEvent.selectOptions(screen.getByRole('combobox'), 'sites')
    expect(onset.mock.lastCall?.[1]).toMatchObject({ window: [6000, 4000], window_mm: null })
  })

  it('set step and method of one axis together', async () => {
    const { onset } = grid(
      [MODE],
      modeColumns(() => SHEET),
    )
    await userEvent.click(cell('Sampling down of Full'))
    await userEvent.selectOptions(screen.getByRole('combobox'), '1 in 3')
    expect(onset).toHaveBeenLastCalledWith(
      'rows[0]',
      expect.objectContaining({ sampling: [1, 3], methods: ['full', 'skipped'] }),
    )
  })

  it('give raw samples to raw, and take them away again', async () => {
    const { onset, rerender } = grid(
      [FORMAT],
      formatColumns(() => SHEET),
    )
    await userEvent.click(screen.getByRole('checkbox', { name: 'Raw of UHD' }))
    const raw = onset.mock.lastCall?.[1]
    expect(raw).toMatchObject({ raw: true, samples: 'raw' })
    await rerender({ rows: [raw] })
    cell('Raw of UHD').focus()
    await press(' ')
    expect(onset.mock.lastCall?.[1]).toMatchObject({ raw: false, samples: null })
  })

  it('of a lens take a class or none, and no single circle beside a table', async () => {
    const lens = { ...newLens([], undefined), key: 'a', name: 'Heron 50', circle_by: 'focal' as const }
    const { onset } = grid(
      [lens],
      lensColumns(() => null),
    )
    await userEvent.click(cell('Class of Heron 50'))
    await userEvent.selectOptions(screen.getByRole('combobox'), 'Super 35')
    expect(onset.mock.lastCall?.[1]).toMatchObject({ designed_for: 'Super 35' })
    await userEvent.click(cell('Image circle of Heron 50'))
    await press('46')
    expect(screen.queryByRole('textbox')).toBeNull()
    expect(cell('Image circle of Heron 50')).toHaveAttribute('aria-readonly', 'true')
  })

  it('of an adapter take several classes', async () => {
    const adapter = { ...newAdapter([], []), key: 'a', name: 'plain', classes: ['full frame' as const] }
    const sheet = { notes: { a: ['12 mm long.'] } } as never
    const { onset } = grid(
      [adapter],
      adapterColumns(['W54'], sheet, () => undefined),
    )
    expect(cell('Classes of plain')).toHaveTextContent('full frame')
    await userEvent.click(cell('Classes of plain'))
    await userEvent.click(screen.getByRole('checkbox', { name: '65 mm' }))
    expect(onset).toHaveBeenLastCalledWith('rows[0].classes', ['65 mm', 'full frame'])
    expect(screen.getAllByText('12 mm long.')).not.toHaveLength(0)
  })

  it('of a filter are typed in stops and shown as it is engraved', () => {
    const filter = { key: 'a', name: 'ND 0.6', origins: {}, stops: 2, count: 2 }
    grid([filter], filterColumns({ filters: { a: { density: 0.602, factor: 4 } } } as never))
    expect(cell('Density of ND 0.6')).toHaveTextContent('0.60')
    expect(cell('Factor of ND 0.6')).toHaveTextContent('ND4')
  })
})
