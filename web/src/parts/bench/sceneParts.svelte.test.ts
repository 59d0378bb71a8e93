import { fireEvent, render, screen, within } from '@testing-library/svelte'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { paint } from '../../lib/finderPaint'
import { columnOfBench, comparisonOfBench } from '../../lib/compare.svelte'
import type {
  BenchState,
  CompareColumn,
  CompareView,
  FinderObject,
  FinderView,
  Package,
  Scene,
} from '../../lib/types'
import CompareChain from '../compare/CompareChain.svelte'
import CurvePlot from '../drawings/CurvePlot.svelte'
import ScenePanel from './ScenePanel.svelte'

beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 600 })
})

const rect = (width: number, height: number) => ({ x: -width / 2, y: -height / 2, width, height })
const square = (part: 'body' | 'head' | 'lamp' | 'post' | 'shore', x: number, size: number) => ({
  part,
  points: [
    [x, -size],
    [x + size, -size],
    [x + size, 0],
    [x, 0],
  ],
})
const object = (key: string, part: Partial<FinderObject> = {}): FinderObject => ({
  key,
  kind: 'lamp',
  name: key,
  distance_m: 5,
  aside_m: -0.5,
  parts: [],
  at: [0, 0],
  blur: { width: 0, height: 0 },
  blur_share: 0.01,
  sharp: false,
  size_ratio: 0.6,
  height_share: 0.1,
  in_picture: true,
  ...part,
})
const finder = (objects: FinderObject[], circle: FinderView['circle'] = null): FinderView => ({
  recorded: rect(24, 13.5),
  picture: rect(24, 10),
  framed: rect(24, 10),
  others: [],
  title_safe: null,
  circle,
  squeeze: 1,
  image_mm: 40,
  horizon_blur: { width: 0.1, height: 0.1 },
  projection: 'rectilinear',
  objects,
  perspective: { pupil_to_subject_m: 3, face_ratio: 1.04, caution: null, words: ['x is drawn at 60 %'] },
})

/** A context that only remembers what was asked of it. */
function recorder() {
  const calls: { name: string; given: unknown[]; style: unknown }[] = []
  const kept: Record<string, unknown> = {}
  const context = new Proxy(kept, {
    get: (_, name: string) =>
      name in kept
        ? kept[name]
        : (...given: unknown[]) => {
            calls.push({ name, given, style: kept['fillStyle'] })
            return name === 'createLinearGradient' ? { addColorStop: () => undefined } : undefined
          },
    set: (_, name: string, value: unknown) => {
      kept[name] = value
      return true
    },
  })
  return { calls, context: context as unknown as CanvasRenderingContext2D }
}
const AT = { perMmX: 10, perMmY: 10, originX: 120, originY: 70 }

describe('painting the finder', () => {
  it('paints in the order of the list, from far to near', () => {
    const { calls, context } = recorder()
    const far = object('far', { kind: 'post', parts: [square('post', 0, 1)] })
    const near = object('subject', { kind: 'standing', parts: [square('body', 0, 1), square('head', 0, 1)] })
    paint(context, finder([far, near]), AT)
    const fills = calls.filter((c) => c.name === 'fill').map((c) => c.style)
    expect(fills.slice(0, 3)).toHaveLength(3)
    expect(new Set(fills.slice(0, 3)).size).toBe(3)
    const xs = calls
      .filter((c) => c.name === 'lineTo')
      .slice(0, 4)
      .map((c) => c.given[0])
    expect(xs).toEqual([120, 130, 130, 120])
  })
  it('grows a lamp by its disc, narrower where it is squeezed', () => {
    const { calls, context } = recorder()
    const lamp = object('lamp', { parts: [square('lamp', -0.5, 1)], blur: { width: 1, height: 2 } })
    paint(context, finder([lamp]), AT)
    const [x, y, rx, ry] = calls.find((c) => c.name === 'ellipse')?.given ?? []
    expect([x, y]).toEqual([120, 65])
    // Half a millimetre of its own, half of the disc beside it, a whole one above.
    expect([rx, ry]).toEqual([10, 15])
  })
  it('leaves dark what lies outside the circle, an oval where it is de-squeezed', () => {
    const { calls, context } = recorder()
    paint(context, finder([], { rx: 20, ry: 10 }), AT)
    const circle = calls.find((c) => c.name === 'ellipse')
    expect(circle?.given.slice(0, 4)).toEqual([120, 70, 200, 100])
    expect(calls.filter((c) => c.name === 'fill').map((c) => c.given[0])).toEqual(['evenodd', 'evenodd'])
  })
})

const SCENE: Scene = {
  camera_height_m: 1.6,
  posture: 'standing',
  subject_height_m: 1.7,
  face_caution_m: 0.45,
  frames: [],
  title_safe: false,
  objects: [
    {
      key: 'a',
      kind: 'lamp',
      name: 'bow lamp',
      distance_m: 5,
      aside_m: -0.5,
      height_m: 2,
      size_m: null,
      ground_m: 0,
    },
  ],
}
const bench = (part: Partial<BenchState> = {}) =>
  ({
    scene: SCENE, unit: 'm', subject_m: 3, pinned: [], format_id: 1, lens_id: 2, adapter_id: 4, second_adapter_id: null,
    focal_mm: null, stop: 2.8, focus_m: null, fps: 25, crop_ids: [7], coc: null, reference: { name: 'super35', by: 'width' },
    delivery: { aspect: 2.39 }, light: { shutter: 'angle', shutter_deg: 172.8, ei: 800, nd_stops: 2, known_by: 'lux', lux: 50 },
    ...part,
  }) as unknown as BenchState // prettier-ignore
const read = (text: string) =>
  Promise.resolve(
    Number(text) > 0
      ? { data: { metres: Number(text) } }
      : {
          problem: {
            code: 'invalid_input',
            message: 'no',
            faults: [{ field: 'distance', rule: 'write it like 2.9' }],
          },
        },
  )

describe('the scene in numbers', () => {
  const panel = (onchange = vi.fn()) => {
    render(ScenePanel, { state: bench(), view: finder([object('a')]), read, onchange })
    return onchange
  }
  it('says how soft and how large each thing is', () => {
    panel()
    const row = screen.getByText('1.00 % W').closest('tr') as HTMLElement
    expect(within(row).getByText('60.0 %')).toBeTruthy()
    expect(screen.getByText(/4\.0 % larger than its ears/)).toBeTruthy()
    expect(screen.getByText(/X is drawn at 60 %\./)).toBeTruthy()
  })
  it('adds, changes and takes out', async () => {
    const onchange = panel()
    await fireEvent.click(screen.getByRole('button', { name: 'post' }))
    const added = onchange.mock.lastCall?.[0].scene as Scene
    expect(added.objects.map((o) => o.kind)).toEqual(['lamp', 'post'])
    await fireEvent.change(screen.getByLabelText('Kind of bow lamp'), { target: { value: 'seated' } })
    expect((onchange.mock.lastCall?.[0].scene as Scene).objects[0]?.kind).toBe('seated')
    await fireEvent.click(screen.getByRole('button', { name: 'Take bow lamp out' }))
    expect((onchange.mock.lastCall?.[0].scene as Scene).objects).toEqual([])
    await fireEvent.click(screen.getByRole('button', { name: '9:16' }))
    expect((onchange.mock.lastCall?.[0].scene as Scene).frames).toEqual([9 / 16])
  })
  it('takes left and right with a sign, and says what it does not understand', async () => {
    const onchange = panel()
    const field = screen.getByLabelText('bow lamp, to the right of the axis')
    for (const [typed, metres] of [
      ['-2', -2],
      ['1.5', 1.5],
      ['0', 0],
      ['−3', -3],
    ] as const) {
      await fireEvent.input(field, { target: { value: typed } })
      await fireEvent.blur(field)
      await vi.waitFor(() =>
        expect((onchange.mock.lastCall?.[0].scene as Scene).objects[0]?.aside_m).toBe(metres),
      )
    }
    await fireEvent.input(field, { target: { value: 'left' } })
    await fireEvent.blur(field)
    expect((await screen.findByRole('alert')).textContent).toBe('write it like 2.9')
  })
})

describe('a comparison of the Bench', () => {
  it('takes the chain over, and crops and EI only for its own format', () => {
    const own = columnOfBench(bench())
    expect([own.stop, own.ei, own.nd_stops, own.shutter_deg]).toEqual([2.8, 800, 2, 172.8])
    expect(own.crop_ids).toEqual([7])
    const other = columnOfBench(bench(), 9)
    expect([other.format_id, other.ei, other.crop_ids]).toEqual([9, null, []])
    expect(own.key).not.toBe(other.key)
  })
  it('stands beside its pins, three at most, or beside itself', () => {
    const formats = (pinned: number[]) =>
      comparisonOfBench(bench({ pinned } as Partial<BenchState>), 'x').columns.map((c) => c.format_id)
    expect(formats([5, 1, 6, 7, 8])).toEqual([1, 5, 6, 7])
    expect(formats([])).toEqual([1, 1])
  })
})

describe('a column of a comparison', () => {
  const EQUIPMENT = {
    bodies: [{ id: 1, name: 'Skerry', maker: 'H', mount: 'W54', modes: [{ id: 7, name: 'Full', formats: [{ id: 9, name: 'UHD' }, { id: 10, name: 'HD' }] }] }],
    lens_sets: [{ id: 3, name: 'Heron', maker: 'L', lenses: [
      { id: 4, name: 'Heron 50', mount: 'W54', focal_min_mm: 50, focal_max_mm: 50 },
      { id: 5, name: 'Zoom', mount: 'K50', focal_min_mm: 20, focal_max_mm: 80 } ] }],
    adapters: [{ id: 1, name: 'plain', magnification: 1, lens_mount: 'K50', body_mount: 'W54' }],
  } as unknown as Package // prettier-ignore
  const shown = {
    key: 'b', virtual: false, body: 'Skerry', format: 'UHD', lens: 'Heron 50', focal_mm: 31.57, f_number: 2.5, marks: 'T', stop: 2.8,
    stops: [2, 2.8, 4], subject_m: 3, ei: 800, eis: [400, 800], nds: [0, 2], ways: [{ lens_id: 5, adapter_ids: [1] }],
    coverage: 'covers', dark_share: 0, viewfinder: finder([]), notes: [],
  } as unknown as CompareView['columns'][number] // prettier-ignore
  const column = { ...columnOfBench(bench(), 9), key: 'b', lens_id: 4, adapter_id: null } as CompareColumn
  const chain = (part = {}, onchange = vi.fn()) => {
    render(CompareChain, {
      index: 1, letter: 'B', column, shown, equipment: EQUIPMENT, unit: 'm', faults: {}, asSet: true, alone: false, read,
      onchange, onmatch: vi.fn(), ontake: vi.fn(), ...part,
    } as never) // prettier-ignore
    return onchange
  }
  it('puts a lens on with what the server says it needs', async () => {
    const onchange = chain()
    await fireEvent.change(screen.getByLabelText('Lens of B'), { target: { value: '5' } })
    expect(onchange).toHaveBeenLastCalledWith({
      lens_id: 5,
      focal_mm: null,
      adapter_id: 1,
      second_adapter_id: null,
    })
    await fireEvent.change(screen.getByLabelText('Format of B'), { target: { value: '10' } })
    expect(onchange).toHaveBeenLastCalledWith({ format_id: 10, crop_ids: [], ei: null })
    await fireEvent.change(screen.getByLabelText('ND of B'), { target: { value: '0' } })
    expect(onchange).toHaveBeenLastCalledWith({ nd_stops: 0 })
  })
  it('shows what a case gives it instead of what it is set to', () => {
    chain({ asSet: false })
    expect(screen.getByText('31.57 mm')).toBeTruthy()
    expect(screen.queryByLabelText('Lens of B')).toBeNull()
    expect(screen.getByText(/T2\.8 at 3\.00 m/)).toBeTruthy()
  })
  it('keeps what was trimmed by eye, and says what is refused', async () => {
    const onchange = chain({ faults: { 'columns[1].trim_stops': 'must be at most 20' } })
    expect(screen.getByRole('alert').textContent).toBe('must be at most 20')
    await fireEvent.input(screen.getByLabelText('Note on the trim of B'), { target: { value: 'skin' } })
    expect(onchange).toHaveBeenLastCalledWith({ trim_note: 'skin' }, 'note')
  })
})

describe('curves', () => {
  it('fill the depth of the chosen format alone, and let infinity leave the drawing', () => {
    const curve = (id: number, chosen: boolean) => ({
      id, name: `format ${id}`, chosen, low: [[1, 0.9], [2, 1.7]] as [number, number][],
      high: [[1, 1.2], [2, null]] as [number, number | null][],
    }) // prettier-ignore
    const { container } = render(CurvePlot, {
      title: 'In focus', plot: { curves: [curve(1, true), curve(2, false)], x: [1, 2], y: [0.5, 5] }, xLabel: 'm', yLabel: 'm',
      xTicks: [{ at: 1, text: '1' }], yTicks: [{ at: 1, text: '1' }],
    }) // prettier-ignore
    expect(container.querySelectorAll('.band')).toHaveLength(1)
    const high = container.querySelector('g.chosen path:last-of-type')?.getAttribute('d') ?? ''
    expect(high.endsWith(',-50')).toBe(true)
    expect(screen.getByRole('img', { name: 'In focus: format 1, format 2' })).toBeTruthy()
  })
})
