import { render, screen } from '@testing-library/svelte'
import { sized } from '../../lib/testing/sized'
import userEvent from '@testing-library/user-event'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { newFormat, newMode } from '../../lib/rows'
import type {
  BodyDocument,
  BodySheet,
  FileKind,
  FinderAnswer,
  FinderAsk,
  Package,
  SpeedTable,
} from '../../lib/types'
import CatalogueChanges from './CatalogueChanges.svelte'
import DocumentFiles from './DocumentFiles.svelte'
import EquipmentShelf from './EquipmentShelf.svelte'
import { bodyItem } from './shelf'
import ClaimsPanel from './ClaimsPanel.svelte'
import CropPanel from './CropPanel.svelte'
import FinderRequirements from '../finder/FinderRequirements.svelte'
import FinderResults from '../finder/FinderResults.svelte'
import OriginStrip from './OriginStrip.svelte'
import RowTools from '../grid/RowTools.svelte'
import SensorDrawing from '../drawings/SensorDrawing.svelte'
import SpeedPlot from '../drawings/SpeedPlot.svelte'
import TapeDrawing from '../drawings/TapeDrawing.svelte'

beforeAll(() => sized(600, 300))

const click = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }))
const choose = (label: string, value: string) => userEvent.selectOptions(screen.getByLabelText(label), value)
const MODE = { ...newMode([6000, 4000], []), key: 'm', name: 'Full' }
const FORMAT = { ...newFormat([]), key: 'f', name: 'UHD' }
const SHEET = {
  sensor: { width_mm: 36, height_mm: 24, diagonal_mm: 43.3, megapixels: 24, format_class: 'full frame' },
  modes: [
    { key: 'm', name: 'Full', photosites: [6000, 4000], rect: { x: -18, y: -12, width: 36, height: 24 }, diagonal_mm: 43.3,
      needed_circle_mm: 43.3, aspect: 1.5, samples: [6000, 4000], crop_by_width: { 'Super 35': 0.691 }, scan_fps: 42.7,
      readout_ms: 23 },
  ],
  formats: [
    { key: 'f', width_mm: 36, height_mm: 20.25, rect: { x: -18, y: -10.125, width: 36, height: 20.25 },
      format_class: 'full frame', crop_of_window: 1, oversampling: [1.5625, 1.5625], possible_fps: 42.7,
      limited_by: 'readout', rate_text: '25 (readout 42.7)', mb_s: 93.75, rates_text: '24, 25', notes: ['Check this.'] },
  ],
  claims: { crops: [], tapes: [], speed: null, pixels: [] },
} as unknown as BodySheet // prettier-ignore
const DOCUMENT = {
  key: 'b', name: 'Skerry', photosites: [6000, 4000], modes: [{ ...MODE, formats: [FORMAT] }], crops: [], origins: {},
  claims: { crops: [], tapes: [], speeds: [], pixels: [] },
} as unknown as BodyDocument // prettier-ignore
it('draws the sensor in millimetres and names the chosen window', () => {
  const onchoose = vi.fn()
  const { container } = render(SensorDrawing, { sheet: SHEET, mode: 'm', format: 'f', onchoose })
  const sensor = container.querySelector('[data-testid=sensor]')
  expect([sensor?.getAttribute('width'), sensor?.getAttribute('height')]).toEqual(['36', '24'])
  expect(container.querySelector('[data-testid=recorded-part]')).toHaveAttribute('height', '20.25')
  expect(screen.getByText('36.0 mm')).toBeInTheDocument()
  expect(container).toHaveTextContent('×0.691 of Super 35')
})

it('offers for rows only what can be done with them', async () => {
  const acts = { onadd: vi.fn(), onduplicate: vi.fn(), onmove: vi.fn(), ondelete: vi.fn() }
  render(RowTools, { what: 'scan mode', chosen: true, up: false, down: true, ...acts })
  expect(screen.getByRole('button', { name: 'Move the scan mode up' })).toBeDisabled()
  await click('Move the scan mode down')
  await click('Add')
  await click('Duplicate')
  await click('Delete')
  expect(acts.onmove).toHaveBeenCalledWith(1)
  for (const act of [acts.onadd, acts.onduplicate, acts.ondelete]) expect(act).toHaveBeenCalledOnce()
})

it('gives a figure an origin of its own, beginning with the one of the body', async () => {
  const onset = vi.fn()
  const whole = { kind: 'claimed', source: 'data sheet', date: '2026-03-02', firmware: '2.0' } as const
  const view = render(OriginStrip, {
    label: 'Row time',
    own: null,
    single: true,
    whole,
    fault: () => undefined,
    onset,
  })
  expect(screen.getByText('as for the whole body')).toBeInTheDocument()
  await choose('Kind of origin', 'measured')
  expect(onset).toHaveBeenLastCalledWith({ ...whole, kind: 'measured' })
  await view.rerender({ own: { ...whole, kind: 'measured' } })
  await click('As for the whole body')
  expect(onset).toHaveBeenLastCalledWith(null)
})

it('edits in-camera crops by lines', async () => {
  const onset = vi.fn()
  const props = { fault: () => undefined, origin: () => undefined, onset, onfigure: vi.fn() }
  const view = render(CropPanel, { document: DOCUMENT, ...props })
  await click('Add a crop')
  const [path, crops] = onset.mock.lastCall ?? []
  expect(path).toBe('crops')
  await view.rerender({ document: { ...DOCUMENT, crops } })
  await click('Add a line')
  expect(onset).toHaveBeenLastCalledWith('crops[0].rules', [{ mode: 'm', aspect: null, factor: 1.1 }])
  const ruled = [{ ...crops[0], rules: onset.mock.lastCall?.[1] }]
  await view.rerender({ document: { ...DOCUMENT, crops: ruled } })
  await choose('Aspect of the raster', '16:9')
  expect(onset).toHaveBeenLastCalledWith('crops[0].rules[0].aspect', [16, 9])
  await choose('Lenses with which New crop acts', 'short_circle')
  expect(onset).toHaveBeenLastCalledWith('crops[0].lens', 'short_circle')
  await click('Delete this line')
  expect(onset).toHaveBeenLastCalledWith('crops[0].rules', [])
  await click('Delete New crop')
  expect(onset).toHaveBeenLastCalledWith('crops', [])
})

describe('claims', () => {
  const claims = {
    crops: [{ key: 'c', mode: 'm', factor: 1.5, decimals: 1, aspect: null, note: '' }],
    tapes: [],
    speeds: [{ key: 's', rows: 4000, fps: 30, note: '' }],
    pixels: [],
  }
  const checked = {
    crops: [{ key: 'c', verdict: 'holds', text: '1.5 is Full whole.', readings: [] }],
    tapes: [],
    speed: { verdict: 'fails', text: 'One is off.', row_time_us: 6, overhead_us: 1,
             rows: [{ key: 's', fitted_fps: 28, residual: 0.071, off: true }] },
    pixels: [],
  } as unknown as BodySheet['claims'] // prettier-ignore
  const panel = (onset = vi.fn()) => {
    render(ClaimsPanel, {
      document: { ...DOCUMENT, claims } as unknown as BodyDocument,
      checked,
      fault: () => undefined,
      onset,
    })
    return onset
  }

  it('says each verdict in words beside the claim', () => {
    panel()
    expect(screen.getByText('✓ holds')).toBeInTheDocument()
    expect(screen.getByText('1.5 is Full whole.')).toBeInTheDocument()
    expect(screen.getByText('One is off.')).toBeInTheDocument()
    expect(screen.getByText(/line 28.0, \+7.1 % ✗/)).toBeInTheDocument()
  })

  it('takes a factor to as many decimals as it is typed', async () => {
    const onset = panel()
    const field = screen.getByLabelText('Claimed factor')
    await userEvent.clear(field)
    await userEvent.type(field, '1.46')
    expect(onset).toHaveBeenLastCalledWith(
      'claims.crops[0]',
      expect.objectContaining({ factor: 1.46, decimals: 2 }),
    )
  })

  it.each([
    ['Add a crop factor', 'claims.crops', 2],
    ['Add a measurement', 'claims.tapes', 1],
    ['Add a stated rate', 'claims.speeds', 2],
    ['Add a pixel count', 'claims.pixels', 1],
  ])('%s', async (name, path, count) => {
    const onset = panel()
    await click(name)
    expect(onset.mock.lastCall?.[0]).toBe(path)
    expect(onset.mock.lastCall?.[1]).toHaveLength(count)
  })
})

it('draws what the tape says beside what is computed, to scale', () => {
  const claimed = [
    { name: '1.5 by width', width_mm: 24 },
    { name: '9 by width', width_mm: 4 },
  ]
  const { container } = render(TapeDrawing, { implied: 25, error: 0.5, computed: 24.5, claimed })
  const band = container.querySelector('[data-testid=tape-band]')
  const [left, wide] = ['x', 'width'].map((name) => Number(band?.getAttribute(name)))
  const [, x] = /M([\d.]+)/.exec(container.querySelector('.computed')?.getAttribute('d') ?? '') ?? []
  // Computed at 24.5 is the left end of 25 ± 0.5.
  expect(Number(x)).toBeCloseTo(left ?? 0, 6)
  expect(wide).toBeGreaterThan(50)
  // A claim that is far off would flatten the rest.
  expect(container.querySelectorAll('.claim')).toHaveLength(1)
})

it('shows changes of the catalogue side by side, and settles one or all', async () => {
  const onsettle = vi.fn()
  const change = { where: 'S35', kind: 'changed' as const, touched: true }
  const changes = [
    { ...change, path: 'modes/m/row_time_us', field: 'row_time_us', taken: 6, catalogue: 5, here: 7 },
    { ...change, path: 'modes/m/formats/n', field: '', kind: 'added' as const, taken: null, here: null, touched: false,
      catalogue: { name: 'S35 → HD' } },
  ] // prettier-ignore
  const view = render(CatalogueChanges, { changes, linked: true, onsettle })
  expect(screen.getByText('row time µs')).toBeInTheDocument()
  expect(screen.getByText('(changed here too)')).toBeInTheDocument()
  expect(screen.getByText('S35 → HD')).toBeInTheDocument()
  await userEvent.click(screen.getAllByRole('button', { name: 'Leave' })[0] as HTMLElement)
  expect(onsettle).toHaveBeenLastCalledWith([], ['modes/m/row_time_us'])
  await click('Take all 2')
  expect(onsettle).toHaveBeenLastCalledWith(['modes/m/row_time_us', 'modes/m/formats/n'], [])
  await view.rerender({ changes: [] })
  expect(screen.getByText(/The catalogue says the same/)).toBeInTheDocument()
  await view.rerender({ linked: false })
  expect(screen.getByText('This body was not taken from the catalogue.')).toBeInTheDocument()
})

it('lists the bodies, the shelf, and those that were taken out', async () => {
  const body = { id: 1, version: 1, maker: 'Halewick', name: 'Skerry', mount: 'W54', firmware: '', photosites: [6000, 4000],
                 width_mm: 36, height_mm: 24, format_class: 'full frame' as const, modes: 1, formats: 2, offered_fps: 120, changes: 3,
                 catalogue_body_id: 9 } // prettier-ignore
  const acts = {
    oncatalogue: vi.fn(),
    oncopy: vi.fn(),
    onput: vi.fn(),
    onremove: vi.fn(),
    onrestore: vi.fn(),
    onfile: vi.fn(),
  }
  const gone = { ...body, id: 2, name: 'Punt' }
  const faults = Array.from({ length: 20 }, (_, i) => ({ field: `row ${i}`, rule: 'is wrong' }))
  const item = bodyItem(body)
  expect([item.figure, item.told]).toEqual(['36.0 × 24.0 mm', '1 mode, 2 formats'])
  // In the catalogue it is sought by its class, its mount and its rates.
  expect(item.sought).toBe('36.0 × 24.0 mm, full frame, W54, to 120 fps')
  render(EquipmentShelf, { what: 'body', title: 'Bodies', accept: '.json', items: [item], removed: [bodyItem(gone)], shelf: [item], isShelf: false, chosen: 1, notes: ['Mind this.'],
    problem: { code: 'invalid_input', message: '', faults }, hrefOf: (id: number) => `/b/${id}`, newPath: '/b/new', ...acts }) // prettier-ignore
  expect(screen.getAllByRole('link').map((a) => a.getAttribute('href'))).toEqual(['/b/1', '/b/new'])
  expect(screen.getByText('3 changes in the catalogue')).toBeInTheDocument()
  expect(screen.getByText('And 8 more.')).toBeInTheDocument()
  expect(screen.getByText('Mind this.')).toBeInTheDocument()
  await click('Copy')
  expect(acts.oncopy).toHaveBeenCalledWith(1)
  await click('Remove')
  expect(acts.onremove).toHaveBeenCalledWith(item)
  await click('Bring Punt back')
  expect(acts.onrestore).toHaveBeenCalledWith(bodyItem(gone))
  await choose('Take a body from the catalogue', '1')
  expect(acts.oncatalogue).toHaveBeenCalledWith(1)
  await userEvent.upload(
    screen.getByLabelText('From a file'),
    new File(['{}'], 'body.json', { type: 'application/json' }),
  )
  expect(acts.onfile.mock.lastCall?.[0].name).toBe('body.json')
})

it('tells every wrong cell of a table', async () => {
  const onrows = vi.fn()
  const faults = [{ field: 'row 2, column bits', rule: 'must be a whole number', value: '8.5' }]
  const kind = { of: 'body' as const, told: '', media_type: '', adds: false }
  const kinds = [
    { ...kind, kind: 'w', title: 'Whole', suffix: 'json', merges: false, template: false, frames: false },
    { ...kind, kind: 'c', title: 'Canvases', suffix: 'fdl', merges: false, template: false, frames: true },
    { ...kind, kind: 't', title: 'Rows', suffix: 'csv', merges: true, template: true, frames: false },
  ]
  const addressOf = (k: FileKind, template: boolean) => (k.frames ? null : template ? '/t' : `/${k.kind}`)
  render(DocumentFiles, { kinds, addressOf, heading: 'In', told: '', wholes: '', notes: [], onrows,
    problem: { code: 'invalid_input', message: '', faults } }) // prettier-ignore
  expect(screen.getByRole('alert')).toHaveTextContent('row 2, column bits must be a whole number ("8.5")')
  expect(screen.queryByRole('link', { name: /Canvases/ })).toBeNull()
  await userEvent.upload(
    screen.getByLabelText('Choose a CSV file'),
    new File(['mode'], 'f.csv', { type: 'text/csv' }),
  )
  expect(onrows.mock.lastCall?.[0]).toBe('t')
  expect(onrows.mock.lastCall?.[1].name).toBe('f.csv')
})

describe('the format finder', () => {
  const equipment = {
    bodies: [], adapters: [{ id: 4, name: 'plain' }],
    lens_sets: [{ id: 1, maker: 'Lantern', name: 'Wren', lenses: [{ id: 9, name: 'Wren 40' }] }],
  } as unknown as Package // prettier-ignore
  const asked = (ask: FinderAsk, fault: (path: string) => string | undefined = () => undefined) => {
    const onchange = vi.fn()
    render(FinderRequirements, {
      ask,
      package: equipment,
      cards: [{ key: 'c', name: 'Slab', capacity: 512, unit: 'GB' }],
      fault,
      onchange,
    })
    return onchange
  }

  it('asks for a lens where coverage is asked for, and for a delivery where pixels are left over', async () => {
    const onchange = asked({})
    await userEvent.click(screen.getByLabelText('The lens covers'))
    expect(onchange.mock.lastCall?.[0]).toMatchObject({ covers: { must: true }, lens: { lens_id: 9 } })
    await userEvent.click(screen.getByLabelText(/of levelling/))
    expect(onchange.mock.lastCall?.[0]).toMatchObject({
      levelling_deg: { least: 2 },
      delivery: { raster: [3840, 2160] },
    })
  })

  it('makes a must a wish with a weight', async () => {
    const onchange = asked({ raw: { must: false, weight: 1 } })
    await choose('Weight', '3')
    expect(onchange).toHaveBeenLastCalledWith({ raw: { must: false, weight: 3 } })
    await userEvent.click(screen.getByText('must'))
    expect(onchange).toHaveBeenLastCalledWith({ raw: { must: true, weight: 1 } })
    await userEvent.click(screen.getByLabelText('Raw'))
    expect(onchange).toHaveBeenLastCalledWith({ raw: null })
  })

  it('tells faults where they are', async () => {
    asked({ rate: { must: true, weight: 1, fps: 'soon', interlaced: false } }, (path) =>
      path === 'rate.fps' ? 'write rates like 25' : undefined,
    )
    screen.getByLabelText('Frame rate', { selector: '[aria-invalid=true]' }).focus()
    expect(await screen.findByRole('alert')).toHaveTextContent('write rates like 25')
  })

  const row = { format_id: 1, format: 'UHD', mode: 'Full', body: 'Skerry', possible_fps: 60, limited_by: 'readout' as const, from_catalogue: false, rate_text: '50 (readout 60)',
    oversampling: 1.5, picture_width_mm: 36, mb_s: 100 } // prettier-ignore
  const reason = {
    name: 'raw',
    wanted: 'raw',
    has: 'processed',
    met: false,
    must: false,
    share: 0,
    weight: 2,
  }
  const answer: FinderAnswer = {
    empty: null,
    ranked: [{ ...row, rank: 1, score: 0.5, tie: 'less data', reasons: [reason] }],
    rejected: Array.from({ length: 70 }, (_, i) => ({ ...row, format_id: 2 + i, format: `No ${i}`, reasons: [],
      fails: ['50 fps: 30 at most'], changes: i ? ['30 fps instead of 50', 'a larger card'] : [] })),
  } // prettier-ignore

  it('says why a format stands where it stands, and where it can be seen', () => {
    const { container } = render(FinderResults, { answer, hrefOf: (id: number) => `/bench?format=${id}` })
    expect(screen.getByRole('link', { name: 'UHD' })).toHaveAttribute('href', '/bench?format=1')
    expect(container).toHaveTextContent('processed, wanted raw: 0 % ×2')
    expect(container).toHaveTextContent('same score as the one above, which has less data')
    expect(container).toHaveTextContent('It would do with 30 fps instead of 50, or a larger card.')
    expect(container).toHaveTextContent('No single change of this body brings it in.')
  })

  it('shows a long list of rejected formats when it is wanted', async () => {
    const { container } = render(FinderResults, { answer, hrefOf: () => '' })
    expect(container.querySelectorAll('.rejected li')).toHaveLength(60)
    await click('Show all 70')
    expect(container.querySelectorAll('.rejected li')).toHaveLength(70)
  })

  it('explains an empty answer', () => {
    render(FinderResults, {
      answer: { ranked: [], rejected: [], empty: 'No format meets every must.' },
      hrefOf: () => '',
    })
    expect(screen.getByRole('alert')).toHaveTextContent('No format meets every must.')
    expect(screen.getByRole('status')).toHaveTextContent('0 of 0')
  })
})

it('draws a point for each mode whose rate is known, and lights it up', async () => {
  const mode = { body_id: 1, mode_id: 1, name: 'Full', body: 'Skerry', width_mm: 36, height_mm: 20,
    progressive: { possible_fps: 40, limited_by: 'readout', text: '30 (readout 40)' } } // prettier-ignore
  const table = {
    base_fps: 25, wanted_fps: 100, movements: [], curves: [{ body_id: 1, name: 'Skerry', points: [[10, 80], [20, 40]] }],
    modes: [mode, { ...mode, mode_id: 2, name: 'Fast', height_mm: 10, progressive: { possible_fps: 60, limited_by: 'codec', text: '60' } },
      { ...mode, mode_id: 3, name: 'Unknown', progressive: null }],
  } as unknown as SpeedTable // prettier-ignore
  const onlight = vi.fn()
  const { container } = render(SpeedPlot, { table, lit: null, onlight })
  const points = [...container.querySelectorAll('[data-mode]')]
  expect(points.map((p) => p.getAttribute('data-mode'))).toEqual(['1', '2'])
  expect(points.map((p) => p.classList.contains('bound'))).toEqual([false, true])
  const place = (p: Element | undefined) =>
    /translate\(([\d.]+) ([\d.]+)\)/
      .exec(p?.getAttribute('transform') ?? '')
      ?.slice(1)
      .map(Number) ?? []
  const [[x1 = 0, y1 = 0], [x2 = 0, y2 = 0]] = [place(points[0]), place(points[1])] as [number[], number[]]
  expect(x2).toBeLessThan(x1)
  expect(y2).toBeLessThan(y1)
  await userEvent.hover(points[0] as Element)
  expect(onlight).toHaveBeenCalledWith(1)
  expect(container).toHaveTextContent('wanted 100 fps')
})
