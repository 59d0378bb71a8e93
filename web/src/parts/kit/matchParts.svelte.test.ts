import { fireEvent, render, screen, within } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import type {
  BenchView,
  CoverageAsk,
  CoverageView,
  FieldAnswer,
  FieldAsk,
  FormatPlace,
  KitMatch,
  Lens,
  MatchAsk,
  Matched,
  Package,
  SlowMotion,
} from '../../lib/types'
import FieldPanel from './FieldPanel.svelte'
import LensAsSet from './LensAsSet.svelte'
import LensLadder from '../chain/LensLadder.svelte'
import MatchPanel from './MatchPanel.svelte'
import RoomDrawing from '../drawings/RoomDrawing.svelte'
import SlowMotionPanel from './SlowMotionPanel.svelte'

// jsdom lays nothing out: the drawings get a size to draw to.
beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 600 })
})

const LENSES = [
  { id: 4, name: 'Heron 50', mount: 'W54', focal_min_mm: 50, focal_max_mm: 50, projection: 'rectilinear' },
  { id: 5, name: 'Zoom', mount: 'K50', focal_min_mm: 20, focal_max_mm: 80, projection: 'rectilinear' },
  { id: 6, name: 'Fish', mount: 'W54', focal_min_mm: 8, focal_max_mm: 8, projection: 'equisolid' },
] as unknown as Lens[] // prettier-ignore
const EQUIPMENT = {
  bodies: [{ id: 1, name: 'Skerry', maker: 'H', mount: 'W54', crops: [], modes: [{ id: 7, name: 'Full', formats: [{ id: 9, name: 'UHD' }, { id: 10, name: 'HD' }] }] }],
  lens_sets: [{ id: 3, name: 'Heron', maker: 'L', lenses: LENSES }],
  adapters: [{ id: 1, name: 'plain', magnification: 1, lens_mount: 'K50', body_mount: 'W54' }],
  references: [],
  reference: { name: 'super35', by: 'width', own: null, scan_mode_id: null },
  deliveries: [],
} as unknown as Package // prettier-ignore
const NEAR: Matched = {
  lens_id: 4, lens: 'Heron 50', adapter_ids: [], via: null, zoom: false, focal_mm: 50, set_mm: 50, needed_mm: 48, error_mm: 2,
  error_deg: -1.2, size_percent: -4, width_percent: -4, same: false, covers: true, marginal: false,
} // prettier-ignore
const read = (text: string) => Promise.resolve({ data: { metres: Number(text) } })
const no = () => undefined

describe('the nearest match', () => {
  const answer: KitMatch = {
    wanted: { focal_mm: 50, on: 'full_frame', on_mm: [36, 24], by: 'width', angle_deg: 39.6, field_m: 2.1 },
    rows: [
      { format_id: 9, names: ['UHD', 'HD'], mode: 'Full', body: 'Skerry', needed_mm: 48, nearest: NEAR, simplest: { ...NEAR, lens: 'Plain 45' },
        neighbours: [{ ...NEAR, lens_id: 8, lens: 'Heron 35', size_percent: 30, width_percent: 30 }], not_covering: { ...NEAR, lens: 'Small 48', covers: false },
        move: { distance_m: 3.1, by_m: 0.1, background_ratio: 1.01, text: 'Move it.' }, notes: ['needs the recorder'] },
      { format_id: 11, names: ['Other'], mode: 'M', body: 'Skiff', needed_mm: null, nearest: null, simplest: null, neighbours: [], not_covering: null, move: null, notes: [] },
    ],
    words: ['One.'],
  } // prettier-ignore
  const ask: MatchAsk = {
    focal_mm: 50,
    subject_m: 3,
    background_m: 2,
    on: { name: 'full_frame', by: 'width' },
  }

  it('tells the errors, and the rest in its place', async () => {
    render(MatchPanel, { ask, answer, package: EQUIPMENT, unit: 'm', fault: no, read, onchange: vi.fn() })
    const row = screen.getByRole('row', { name: /^UHD \+1/ })
    for (const told of ['48.0 mm', '· Heron 50', '+2.0 mm', '−1.2°', '−4.0 %', 'Move it.'])
      expect(row).toHaveTextContent(told)
    expect(screen.getByText('✗ no lens of the kit can be mounted')).toBeInTheDocument()
    await userEvent.click(within(row).getByRole('button'))
    expect(screen.getByText(/Next wider: Heron 35, \+30.0 % of the width/)).toBeInTheDocument()
    expect(screen.getByText(/Without reducer or extender: Plain 45/)).toBeInTheDocument()
    expect(screen.getByText(/Small 48 would be nearer/)).toBeInTheDocument()
    expect(screen.getByText('The same picture: UHD, HD.')).toBeInTheDocument()
  })

  it('asks for another window, dimension and distance', async () => {
    const onchange = vi.fn()
    render(MatchPanel, { ask, answer: null, package: EQUIPMENT, unit: 'm', fault: no, read, onchange })
    await userEvent.selectOptions(screen.getByLabelText('Window of the wanted lens'), 'window7')
    expect(onchange.mock.lastCall?.[0].on).toMatchObject({ name: 'scan_mode', scan_mode_id: 7 })
    await userEvent.selectOptions(screen.getByLabelText('Window of the wanted lens'), 'super35')
    expect(onchange.mock.lastCall?.[0].on).toMatchObject({ name: 'super35', scan_mode_id: null })
    await userEvent.selectOptions(screen.getByLabelText('Dimension that is matched'), 'diagonal')
    expect(onchange.mock.lastCall?.[0].on).toMatchObject({ by: 'diagonal' })
    const field = screen.getByLabelText('Distance of the subject for the match')
    await userEvent.clear(field)
    await userEvent.type(field, '4{Enter}')
    expect(onchange).toHaveBeenLastCalledWith({ subject_m: 4 })
  })
})

const FOUND = {
  format_id: 9, format: 'UHD', body: 'Skerry', lens_id: 4, lens: 'Heron 50', adapter_ids: [], via: null, focal_mm: 50, set_mm: 50,
  distance_m: 4, field_m: 1, width_m: 1.8, height_m: 1, percent: 5, same: false, high_mm: 13.5, close_focus_m: 0.5,
  verdict: 'covers' as const, candidate: null, binds: [],
} // prettier-ignore
const FIELD: FieldAnswer = {
  wanted: { by: 'height', field_m: 0.95 },
  longest_m: 3,
  answers: [FOUND, { ...FOUND, lens: 'Heron 35', percent: 20, verdict: 'short' }],
  framings: [
    { framing: 'waist', field_m: 0.95, distance_m: 4, binds: 'the room' },
    { framing: 'face', field_m: 0.3, distance_m: 1.2, binds: null },
  ],
  binds: ['The room binds.'],
}

describe('field and distance', () => {
  const ask: FieldAsk = {
    find: 'distance',
    person: { framing: 'waist', height_m: 1.7, headroom: 0.08 },
    lens_id: 4,
    format_id: 9,
    distance_m: 3,
    room: { length_m: 5, behind_subject_m: 0.5, behind_camera_m: 0.6 },
  }
  const props = { ask, answer: FIELD, package: EQUIPMENT, unit: 'm' as const, fault: no, read }

  it('tells the distance, what binds, and the other framings', () => {
    render(FieldPanel, { ...props, onchange: vi.fn() })
    expect(screen.getByText('The room binds.')).toBeInTheDocument()
    const table = screen.getByRole('table')
    expect(within(table).getByRole('row', { name: /waist/ })).toHaveTextContent('4.00 m✗ the room')
    expect(within(table).getByRole('row', { name: /face/ })).toHaveTextContent('1.20 m')
    expect(screen.getByLabelText('Lens of the field').querySelector('option[value="6"]')).toBeDisabled()
  })

  it('goes from a person to a size and back', async () => {
    const onchange = vi.fn()
    const view = render(FieldPanel, { ...props, onchange })
    await userEvent.selectOptions(screen.getByLabelText('Wanted framing'), 'width')
    expect(onchange).toHaveBeenLastCalledWith({ person: null, width_m: 0.95, height_m: null })
    await view.rerender({ ...props, ask: { ...ask, person: null, width_m: 2 }, onchange })
    await userEvent.selectOptions(screen.getByLabelText('Wanted framing'), 'chest')
    expect(onchange.mock.lastCall?.[0]).toMatchObject({
      width_m: null,
      person: { framing: 'chest', height_m: 1.7 },
    })
  })

  it('asks for what is not known and tells the runners-up', async () => {
    const onchange = vi.fn()
    const view = render(FieldPanel, { ...props, onchange })
    await userEvent.click(screen.getByRole('radio', { name: 'which lens' }))
    expect(onchange).toHaveBeenLastCalledWith({ find: 'lens' })
    await view.rerender({ ...props, ask: { ...ask, find: 'format' }, onchange })
    expect(screen.queryByLabelText('Format of the field')).toBeNull()
    expect(screen.getByText(/Heron 35/)).toHaveTextContent('does not cover')
    await userEvent.click(screen.getByLabelText('in a room'))
    expect(onchange.mock.lastCall?.[0].room).toMatchObject({ length_m: null })
  })

  it('draws the room, the camera beyond its limit, and the field to one scale', () => {
    const { container } = render(RoomDrawing, { answer: FIELD, room: ask.room ?? {}, unit: 'm' })
    const x = (e: Element | null, name: string) => Number(e?.getAttribute(name))
    const [wall, far] = container.querySelectorAll('.room')
    const perMetre = (x(far ?? null, 'x1') - x(wall ?? null, 'x1')) / 5
    const measure = container.querySelector('.measure')
    expect((x(measure, 'x2') - x(measure, 'x1')) / perMetre).toBeCloseTo(4)
    const field = container.querySelector('.field')
    expect((x(field, 'y2') - x(field, 'y1')) / perMetre).toBeCloseTo(1.8)
    expect(container.querySelector('.camera.beyond')).not.toBeNull()
    expect((x(measure, 'x2') - x(container.querySelector('.limit'), 'x1')) / perMetre).toBeCloseTo(3)
  })
})

it('tells what keeps the field in slow motion', async () => {
  const answer: SlowMotion = {
    base: { format_id: 9, name: 'UHD', body: 'Skerry' }, fps: 100, words: ['Some.'],
    rows: [{ format_id: 10, format_ids: [10], names: ['HD'], mode: 'Fast', body: 'Skerry', highest_fps: 120, rate_text: '120', faster: '', needs: [], kept: 1, widest_mm: 20, text: 'Too long.',
             lines: [{ lens: 'Heron 50', lens_id: 4, needed_mm: 25, nearest: { ...NEAR, lens: 'Heron 25', same: true } }, { lens: 'Heron 18', lens_id: 8, needed_mm: 9, nearest: null }] }],
  } // prettier-ignore
  const onchange = vi.fn()
  render(SlowMotionPanel, {
    ask: { base_format_id: 9, fps: 100 },
    answer,
    package: EQUIPMENT,
    fault: no,
    onchange,
  })
  const row = screen.getByRole('row', { name: /HD/ })
  for (const told of ['120 fps', '1 of 2', '20.0 mm', 'Too long.']) expect(row).toHaveTextContent(told)
  await userEvent.click(within(row).getByRole('button'))
  expect(screen.getByText(/25.0 mm needed, Heron 25 ✓/)).toBeInTheDocument()
  expect(screen.getByText(/9.0 mm needed, nothing covers/)).toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('Base format'), 'HD')
  expect(onchange).toHaveBeenLastCalledWith({ base_format_id: 10 })
})

describe('a lens as it is set for coverage', () => {
  const ask = { format_id: 9, lens_id: 5, adapter_ids: null } as CoverageAsk
  const shown = {
    lens_id: 5, name: 'Zoom', focal_mm: 35, stop: 2.8, stops: [2.8, 4], marks: 'T', stands_in: {},
    adapter_ids: [1],
    notes: [{ level: 'warn', code: 'x', text: 'Mind.' }], mounting: { verdict: 'possible', reasons: [], consequences: [] },
  } as CoverageView['lens'] // prettier-ignore

  it('offers range, stops and the adapters that fit', async () => {
    const onchange = vi.fn()
    render(LensAsSet, { ask, package: EQUIPMENT, lens: LENSES[1], shown, onchange })
    await fireEvent.input(screen.getByLabelText('Focal length'), { target: { value: '50' } })
    expect(onchange).toHaveBeenLastCalledWith({ focal_mm: 50 })
    await userEvent.selectOptions(screen.getByLabelText('Adapter'), 'plain')
    expect(onchange).toHaveBeenLastCalledWith({ adapter_ids: [1] })
    await userEvent.selectOptions(screen.getByLabelText('Adapter'), 'directly')
    expect(onchange).toHaveBeenLastCalledWith({ adapter_ids: [] })
    await userEvent.selectOptions(screen.getByLabelText('Lens'), 'Heron 50')
    expect(onchange).toHaveBeenLastCalledWith({ lens_id: 4, focal_mm: null, stop: null, adapter_ids: null })
    expect(screen.getByText('Mind.')).toBeInTheDocument()
  })

  it('can be chosen anew when the one of a link is gone', async () => {
    const onchange = vi.fn()
    render(LensAsSet, {
      ask: { ...ask, lens_id: 99, adapter_ids: [1, 2] },
      package: EQUIPMENT,
      lens: undefined,
      shown: null,
      onchange,
    })
    await userEvent.selectOptions(screen.getByLabelText('Lens'), 'Heron 50')
    expect(onchange.mock.lastCall?.[0]).toMatchObject({ lens_id: 4 })
  })
})

it('sets format and lens from the ladders of the Bench', async () => {
  const row = (format_id: number, effective: number, verdict: string, mounts = true) => ({
    format_id, mounts, verdict, answer: { effective_focal_mm: effective },
  }) // prettier-ignore
  const view = {
    rows: [row(9, 50, 'covers'), row(10, 50, 'covers'), row(11, 75, 'short'), row(12, 75, 'short', false)],
    kit: [
      { lens_id: 4, adapter_ids: [], verdict: 'covers', effective_mm: 50, effective_long_mm: null },
      { lens_id: 5, adapter_ids: [], verdict: 'marginal', effective_mm: 20, effective_long_mm: 80 },
      { lens_id: 6, adapter_ids: [], verdict: 'covers', effective_mm: null, effective_long_mm: null },
    ],
  } as unknown as BenchView
  const places = new Map([9, 10, 11, 12].map((id) => [id, { format: { id, name: `F${id}` } } as FormatPlace]))
  const place = places.get(10)
  if (!place) throw new Error('no place')
  const acts = { onformat: vi.fn(), onlens: vi.fn() }
  const { container } = render(LensLadder, {
    view,
    lens: LENSES[0],
    place,
    places,
    package: EQUIPMENT,
    ...acts,
  } as never)
  const formats = [...container.querySelectorAll('[data-format-mark]')]
  // The two that make the same field stand as one, and the chosen one of them is meant.
  expect(formats.map((f) => [f.getAttribute('data-format-mark'), f.classList.contains('chosen')])).toEqual([
    ['10', true],
    ['11', false],
    ['12', false],
  ])
  expect(formats[2]).toHaveClass('impossible')
  await fireEvent.click(formats[1] as Element)
  expect(acts.onformat).toHaveBeenCalledWith(11)
  const lenses = [...container.querySelectorAll('[data-lens-mark]')]
  expect(lenses).toHaveLength(2)
  expect(Number(lenses[1]?.getAttribute('width'))).toBeGreaterThan(100)
  await fireEvent.click(lenses[1] as Element)
  expect(acts.onlens).toHaveBeenCalledWith(5)
})
