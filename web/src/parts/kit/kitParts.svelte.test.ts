import { fireEvent, render, screen, within } from '@testing-library/svelte'
import { sized } from '../../lib/testing/sized'
import userEvent from '@testing-library/user-event'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { newLens, newMount } from '../../lib/lenses.svelte'
import type { CoverageView, KitLadder, KitMatrix, Package } from '../../lib/types'
import CircleAlongPlot from '../drawings/CircleAlongPlot.svelte'
import CircleDrawing from '../drawings/CircleDrawing.svelte'
import Combinations from '../documents/Combinations.svelte'
import FrameShapes from '../drawings/FrameShapes.svelte'
import KeptState from '../page/KeptState.svelte'
import KitLadderDrawing from './KitLadderDrawing.svelte'
import KitMatrixTable from './KitMatrixTable.svelte'
import KitSettings from './KitSettings.svelte'
import LensDetail from '../documents/LensDetail.svelte'
import { rowKeys } from '../grid/rowKeys'
import FlangeDrawing from '../documents/FlangeDrawing.svelte'
import { lensSetItem } from '../documents/shelf'
import ZoomRange from '../chain/ZoomRange.svelte'

beforeAll(() => sized(600, 300))

const LENS = { ...newLens([], undefined), key: 'a', name: 'Heron 50', image_circle_mm: 46 }
const FIGURES = {
  key: 'a', angle_deg: [28], view_class: 'normal' as const, circle_mm: [46], covers: 'full frame', transmission: 0.81,
  close: { magnification: 0.1, field_m: 0.249, extension_percent: 9.1 }, notes: ['Look at this.'],
} // prettier-ignore
const EQUIPMENT = {
  bodies: [
    { id: 1, name: 'Skerry', maker: 'H', mount: 'W54', crops: [{ id: 5, name: 'Steady' }], modes: [{ id: 7, name: 'Full', formats: [] }] },
    { id: 2, name: 'Skiff', maker: 'C', mount: 'K50', crops: [], modes: [] },
  ],
  lens_sets: [{ id: 3, name: 'Heron', maker: 'L', lenses: [{ id: 4, name: 'Heron 50', mount: 'W54' }] }],
  adapters: [], references: [], reference: { name: 'super35', by: 'width', own: null, scan_mode_id: null }, deliveries: [],
} as unknown as Package // prettier-ignore

describe('lenses in a grid', () => {
  it('turns one circle into a table and back', async () => {
    const onset = vi.fn()
    const more = {
      at: 'lenses[0]',
      figures: FIGURES,
      fault: () => undefined,
      origin: () => undefined,
      onset,
      onfigure: vi.fn(),
    }
    const view = render(LensDetail, { lens: LENS, ...more })
    expect(screen.getByText(/81 % of the light comes through \(0.30 stop lost\)/)).toBeInTheDocument()
    expect(screen.getByText('Look at this.')).toBeInTheDocument()
    await userEvent.selectOptions(screen.getByLabelText('Circle of Heron 50 along'), 'stop')
    const table = onset.mock.lastCall?.[1]
    expect(table).toMatchObject({
      circle_by: 'stop',
      image_circle_mm: null,
      circles: [{ at: 2, circle_mm: 46 }],
    })
    const fault = (path: string) => (path.endsWith('circles[0].at') ? 'must be greater than 0' : undefined)
    await view.rerender({ lens: table, ...more, fault })
    expect(screen.getByRole('alert')).toHaveTextContent('row 1 must be greater than 0')
    await userEvent.selectOptions(screen.getByLabelText('Circle of Heron 50 along'), 'one value')
    expect(onset.mock.lastCall?.[1]).toMatchObject({ circle_by: null, circles: [], image_circle_mm: 46 })
  })

  it('draws the circle to scale over the usual windows', () => {
    const windows = [{ name: 'full frame', width: 36, height: 24 }, { name: 'Super 35', width: 25, height: 13.2 }] // prettier-ignore
    const { container } = render(CircleDrawing, { lens: LENS, figures: FIGURES, windows })
    expect(container.querySelector('circle')).toHaveAttribute('r', '23')
    expect(screen.getByText('full frame ✓')).toBeInTheDocument()
    expect(container.querySelectorAll('rect.covered')).toHaveLength(2)
  })

  it('stands in the list with its range', () => {
    const set = { id: 1, version: 1, maker: 'L', name: 'Heron', lenses: 1, focal_min_mm: 50, focal_max_mm: 50, squeezes: [1, 2],
                  mounts: ['W54'], classes: ['Super 35' as const], largest_circle_mm: 31.5, changes: 0, catalogue_lens_set_id: null } // prettier-ignore
    expect(lensSetItem(set)).toMatchObject({ figure: '50 mm', told: '1 lens, 2×, W54' })
    expect(lensSetItem({ ...set, focal_max_mm: 90, lenses: 2 })).toMatchObject({
      figure: '50–90 mm',
      told: '2 lenses, 2×, W54',
    })
    expect(lensSetItem({ ...set, focal_min_mm: null }).figure).toBe('')
    expect(lensSetItem(set).sought).toBe('50 mm, Super 35, W54, 2×, Ø 31.5')
    expect(lensSetItem({ ...set, squeezes: [1] }).sought).toContain('spherical')
  })
})

describe('mounts and adapters', () => {
  it('draws flange distances to one scale, and says where one is not stated', () => {
    const way = (flange_mm: number | null) => {
      const mount = { ...newMount([]), key: 'm', name: 'W54', flange_mm }
      const { container } = render(FlangeDrawing, { mount, longest: 50 })
      const line = container.querySelector('.way')
      return Number(line?.getAttribute('x2')) - Number(line?.getAttribute('x1'))
    }
    expect(way(50) / way(25)).toBeCloseTo(2)
    way(null)
    expect(screen.getByText('not stated: infinity cannot be checked')).toBeInTheDocument()
  })

  it('tells what goes on what, with all ways of one', async () => {
    const way = {
      adapter_ids: [1],
      name: 'plain',
      verdict: 'consequences' as const,
      reasons: [],
      consequences: ['log by hand'],
      magnification: 1,
      stops_lost: 0,
    }
    const combinations = [
      { lens_id: 4, body_id: 1, verdict: 'consequences' as const, why_not: null, ways: [way] },
      { lens_id: 4, body_id: 2, verdict: 'impossible' as const, why_not: 'no adapter leads there', ways: [] },
    ]
    render(Combinations, { package: EQUIPMENT, combinations })
    expect(screen.getByText('! 1 possible, with consequences')).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: '! plain' }))
    expect(screen.getByText(/log by hand/)).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: '✗ impossible' }))
    expect(screen.getByText('No adapter leads there.')).toBeInTheDocument()
    expect(screen.queryByText(/log by hand/)).toBeNull()
  })
})

const figures = (effective: number, verdict: 'covers' | 'short') => ({
  focal_mm: [50], effective_mm: [effective], angle_deg: [28], view_class: ['normal' as const], verdict: [verdict],
  circle_mm: [30], needed_mm: [29], dark_share: [verdict === 'short' ? 0.02 : 0], dark_corners: [verdict === 'short' ? ['top left'] : []],
}) // prettier-ignore
const MATRIX = {
  reference: { name: 'super35', width_mm: 24.89, height_mm: 18.66, by: 'width' },
  columns: [{ format_id: 9, format_ids: [9, 10], name: 'UHD', mode: 'Full', body: 'Skerry', body_id: 1, also: ['HD'], format_class: 'Super 35', recorded_mm: [25, 14], picture_mm: [25, 10.5], highest_fps: 60, needs: ['needs the recorder'] }],
  rows: [
    { lens_id: 4, lens_set_id: 3, name: 'Heron 50', set: 'Heron', focal_min_mm: 50, focal_max_mm: 50, squeeze: 1, projection: 'rectilinear',
      ways: [{ adapter_ids: [], name: 'directly', magnification: 1, stops_lost: 0, consequences: [] }], via: [0], why_not: {}, pair_notes: { 1: ['support it'] }, stands_in: { image_circle_mm: 'its circle is assumed' }, ...figures(49.1, 'covers'), long: null },
    { lens_id: 5, lens_set_id: 3, name: 'Zoom', set: 'Heron', focal_min_mm: 20, focal_max_mm: 80, squeeze: 1, projection: 'rectilinear',
      ways: [{ adapter_ids: [2], name: 'reducer', magnification: 0.71, stops_lost: -0.9, consequences: [] }], via: [0], why_not: {}, pair_notes: { 1: ['support it'] }, stands_in: { image_circle_mm: 'its circle is assumed' }, ...figures(20, 'short'), long: figures(80, 'covers') },
  ],
} as unknown as KitMatrix // prettier-ignore

describe('the whole kit', () => {
  it('tells a cell of the matrix', async () => {
    render(KitMatrixTable, {
      matrix: MATRIX,
      hrefOf: (l: number, f: number, a: number[]) => `/b/${l}/${f}/${a.join('.')}`,
    })
    const zoom = screen.getByRole('row', { name: /^Zoom/ })
    expect(within(zoom).getByText('×0.71')).toBeInTheDocument()
    const cell = within(zoom).getByRole('cell')
    expect(cell).toHaveTextContent('20.0–80.0')
    expect(cell).toHaveTextContent('✗✓')
    await userEvent.hover(cell)
    expect(screen.getByText(/2.0 % dark \(top left\)/)).toBeInTheDocument()
    expect(screen.getByRole('link', { name: 'To the Bench' })).toHaveAttribute('href', '/b/5/9/2')
  })

  it('moves by arrow keys', async () => {
    render(KitMatrixTable, { matrix: MATRIX, hrefOf: () => '' })
    const [first, second] = screen.getAllByRole('cell').filter((c) => c.hasAttribute('data-r'))
    first?.focus()
    await userEvent.keyboard('{ArrowDown}')
    expect(second).toHaveFocus()
    await userEvent.keyboard('{ArrowDown}')
    expect(second).toHaveFocus()
  })

  it('takes all bodies or sets as no choice', async () => {
    const onchange = vi.fn()
    const ask = { mounted: 'simplest' as const, delivery: { aspect: 2.39 }, crop_ids: [] }
    const view = render(KitSettings, { ask, package: EQUIPMENT, onchange })
    await userEvent.click(screen.getByRole('button', { name: 'Skiff' }))
    expect(onchange).toHaveBeenLastCalledWith({ body_ids: [1] })
    await view.rerender({ ask: { ...ask, body_ids: [1] }, package: EQUIPMENT, onchange })
    await userEvent.click(screen.getByRole('button', { name: 'Skiff' }))
    expect(onchange).toHaveBeenLastCalledWith({ body_ids: null })
    await userEvent.selectOptions(screen.getByLabelText('Reference for crop factors'), 'window7')
    expect(onchange.mock.lastCall?.[0].reference).toMatchObject({ name: 'scan_mode', scan_mode_id: 7 })
    await userEvent.click(screen.getByText('In-camera crops'))
    await userEvent.click(screen.getByLabelText(/Steady/))
    expect(onchange).toHaveBeenLastCalledWith({ crop_ids: [5] })
  })

  it('draws equal steps of the ladder equally far, and gaps from mark to mark', async () => {
    const rung = (effective_mm: number) => ({ format_id: 9, lens_id: effective_mm, lens: `L${effective_mm}`, adapter_ids: [], via: null, magnification: 1,
      effective_mm, effective_long_mm: null, focal_mm: effective_mm, angle_deg: 30, view_class: 'normal', verdict: 'covers' }) // prettier-ignore
    const ladder = { reference: MATRIX.reference, pictures: [{ format_id: 9, format_ids: [9, 10], names: ['UHD', 'HD'], mode: 'Full', body: 'Skerry', highest_fps: 60, needs: ['needs the recorder'] }],
      rungs: [rung(25), rung(50), rung(100)], gaps: [{ from_mm: 50, to_mm: 100, ratio: 2, buys: [], buy_for: null, elsewhere: [] }],
      doubles: [], classes: [{ name: 'wide', from_mm: null, to_mm: 40, least_angle_deg: 40 }], words: ['Three.'] } as unknown as KitLadder // prettier-ignore
    const ononly = vi.fn()
    const { container } = render(KitLadderDrawing, { ladder, ononly })
    const x = [...container.querySelectorAll('.prime')].map((r) => Number(r.getAttribute('x')) + 1.6)
    expect((x[1] ?? 0) - (x[0] ?? 0)).toBeCloseTo((x[2] ?? 0) - (x[1] ?? 0), 6)
    const gap = container.querySelector('.gap')
    expect(Number(gap?.getAttribute('x'))).toBeCloseTo(x[1] ?? 0, 6)
    expect(Number(gap?.getAttribute('width'))).toBeCloseTo((x[2] ?? 0) - (x[1] ?? 0), 6)
    const field = screen.getByRole('group', { name: /arrow keys/ })
    field.focus()
    await userEvent.keyboard('{ArrowRight}{ArrowRight}')
    expect(screen.getByText(/L50: 50.0 mm/)).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: /UHD/ }))
    expect(ononly).toHaveBeenLastCalledWith(null)
  })
})

describe('a zoom and its circle', () => {
  it('goes from mark to mark by keys and to any place by hand', async () => {
    const onset = vi.fn()
    render(ZoomRange, { low: 20, high: 80, focal: 40, marks: [20, 25, 40, 50, 80], coversFrom: 25, onset })
    const slider = screen.getByRole('slider')
    expect(slider).toHaveValue('200')
    await fireEvent.keyDown(slider, { key: 'ArrowRight' })
    expect(onset).toHaveBeenLastCalledWith(50)
    await fireEvent.keyDown(slider, { key: 'ArrowDown' })
    expect(onset).toHaveBeenLastCalledWith(25)
    await fireEvent.input(slider, { target: { value: '300' } })
    expect(onset).toHaveBeenLastCalledWith(57)
  })

  it('is set on the plot, infinity at the right', async () => {
    const along = { by: 'focus', now: null, needed_mm: 30, safe_mm: 30.6, points: [
      { at: 1, circle_mm: 32, verdict: 'covers' }, { at: 10, circle_mm: 30.2, verdict: 'marginal' }, { at: null, circle_mm: 29, verdict: 'short' } ] } as NonNullable<CoverageView['along']> // prettier-ignore
    const onset = vi.fn()
    const { container } = render(CircleAlongPlot, { along, onset })
    expect(container.querySelectorAll('circle.short')).toHaveLength(1)
    const plot = screen.getByRole('img')
    const click = new MouseEvent('click', { bubbles: true })
    Object.defineProperty(click, 'offsetX', { value: 590 })
    await fireEvent(plot, click)
    expect(onset).toHaveBeenLastCalledWith(null)
  })

  it('shows a circle of the scene squeezed and round again', () => {
    const { container } = render(FrameShapes, { squeeze: 2, width: 20, height: 17 })
    const [squeezed, round] = container.querySelectorAll('ellipse')
    expect(Number(squeezed?.getAttribute('ry')) / Number(squeezed?.getAttribute('rx'))).toBeCloseTo(2)
    expect(round?.getAttribute('rx')).toBe(round?.getAttribute('ry'))
    expect(screen.getByText(/2.35:1/)).toBeInTheDocument()
  })
})

it('says what has to be corrected before it is kept', async () => {
  const view = render(KeptState, { faults: {}, words: (path: string) => path })
  expect(screen.queryByRole('status')).toBeNull()
  await view.rerender({
    faults: { a: 'is wrong', b: 'too' },
    words: (path: string) => `the ${path}`,
  })
  expect(screen.getByRole('status')).toHaveTextContent(
    '2 figures to correct, not saved until then: the a: is wrong',
  )
})

it('does with rows what the keys say', () => {
  const acts = { add: vi.fn(), move: vi.fn(), delete: vi.fn() }
  const press = (key: string, altKey = true) =>
    rowKeys(new KeyboardEvent('keydown', { key, altKey, cancelable: true }), acts)
  press('ArrowUp')
  press('ArrowDown')
  press('Enter')
  press('Delete')
  press('Enter', false)
  expect(acts.move.mock.calls).toEqual([[-1], [1]])
  expect([acts.add.mock.calls.length, acts.delete.mock.calls.length]).toEqual([1, 1])
})
