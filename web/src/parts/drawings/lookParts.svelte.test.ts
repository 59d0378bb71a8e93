import { fireEvent, render, screen, within } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { createRawSnippet } from 'svelte'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { comparedText, differenceText, setupWords } from '../../lib/compared'
import { readLight, writeLight } from '../../lib/light'
import { BENCH_TABS, noteTab, tabOf } from '../../lib/benchTabs'
import { snapAside } from '../../lib/format'
import { typedNumbers } from '../../lib/paths'
import { logTicks } from '../../lib/ticks'
import type { ComparedRow, FinderObject, FinderView, FlickerView, Light, Why } from '../../lib/types'
import TabPages from '../controls/TabPages.svelte'
import FinderDrawing from './FinderDrawing.svelte'
import LedgerDrawing from './LedgerDrawing.svelte'
import MatchOptions from '../compare/MatchOptions.svelte'
import NumberField from '../fields/NumberField.svelte'
import PlanObjects from '../bench/PlanObjects.svelte'
import RulesPanel from '../compare/RulesPanel.svelte'
import WaveDrawing from './WaveDrawing.svelte'
import WhyPanel from '../compare/WhyPanel.svelte'

// jsdom lays nothing out: the drawings get a size to draw to.
beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 600 })
})

const thing = (key: string, part: Partial<FinderObject> = {}): FinderObject => ({
  key,
  kind: 'lamp',
  name: `lamp ${key}`,
  distance_m: 4,
  aside_m: 0.5,
  parts: [],
  at: [1, -2],
  blur: null,
  blur_share: 0.012,
  sharp: false,
  size_ratio: 0.5,
  height_share: 0.1,
  in_picture: true,
  ...part,
})
const rect = (width: number, height: number) => ({ x: -width / 2, y: -height / 2, width, height })
const finder = (part: Partial<FinderView> = {}): FinderView => ({
  recorded: rect(24, 13.5),
  picture: rect(24, 10),
  framed: rect(22.8, 9.5),
  others: [{ ...rect(18, 13.5), aspect: 4 / 3 }],
  title_safe: rect(21.6, 9),
  circle: null,
  squeeze: 1,
  image_mm: 40,
  horizon_blur: null,
  projection: 'rectilinear',
  objects: [thing('a'), thing('b', { in_picture: false })],
  perspective: { pupil_to_subject_m: 3, face_ratio: 1.04, caution: null, words: [] },
  ...part,
})

describe('the finder', () => {
  it('draws its frames to one scale and labels other deliveries', () => {
    const { container } = render(FinderDrawing, { view: finder(), name: 'S35' })
    const size = (name: string) => Number(container.querySelector(`rect.${name}`)?.getAttribute('width'))
    expect(size('picture')).toBeCloseTo(size('recorded'), 5)
    expect(size('other') / size('recorded')).toBeCloseTo(18 / 24, 5)
    expect(size('safe') / size('picture')).toBeCloseTo(0.9, 5)
    expect(screen.getByText('4:3')).toBeTruthy()
    expect(container.querySelectorAll('[data-object]')).toHaveLength(1)
  })
  it('offers the squeezed image only where there is one', async () => {
    const onsqueezed = vi.fn()
    const { rerender } = render(FinderDrawing, { view: finder(), name: '', onsqueezed })
    expect(screen.queryByRole('button')).toBeNull()
    await rerender({ view: finder({ squeeze: 2 }), onsqueezed })
    await fireEvent.click(screen.getByRole('button', { name: 'Squeezed' }))
    expect(onsqueezed).toHaveBeenCalledWith(true)
  })
})

describe('things in the plan', () => {
  const place = (onplace = vi.fn()) => {
    const view = render(PlanObjects, {
      objects: [thing('subject'), thing('a'), thing('far', { distance_m: 900 })],
      unit: 'm',
      x: (m: number) => 40 + m * 100,
      y: (m: number) => 150 + m * 100,
      px: 100,
      width: 700,
      height: 300,
      onplace,
      ondrag: vi.fn(),
    })
    return { onplace, ...view }
  }
  it('leaves the subject out and says what lies beyond', () => {
    const { container } = place()
    expect(screen.getAllByRole('slider')).toHaveLength(1)
    expect(container.querySelector('.beyond')?.textContent).toContain('1 beyond')
    expect(screen.getByText('lamp a 1.2 %')).toBeTruthy()
  })
  it('moves by the keyboard, along the axis and beside it', async () => {
    const { onplace } = place()
    const slider = screen.getByRole('slider')
    await fireEvent.keyDown(slider, { key: 'ArrowRight' })
    expect(onplace).toHaveBeenLastCalledWith('a', 4.05, 0.5, 'step a')
    await fireEvent.keyDown(slider, { key: 'ArrowUp' })
    expect(onplace).toHaveBeenLastCalledWith('a', 4, 0.45, 'step a')
    await fireEvent.keyDown(slider, { key: 'PageDown' })
    expect(onplace).toHaveBeenLastCalledWith('a', 3.5, 0.5, 'step a')
    await fireEvent.keyDown(slider, { key: 'x' })
    expect(onplace).toHaveBeenCalledTimes(3)
  })
})

describe('numbers that are typed', () => {
  it('takes decimals with a comma, fractions and nothing', async () => {
    const onchange = vi.fn()
    render(NumberField, { label: 'Time', value: 1, optional: true, onchange })
    const field = screen.getByLabelText('Time')
    for (const [text, value] of [
      ['0,5', 0.5],
      ['1/50', 0.02],
      ['−2', -2],
      ['', null],
    ] as const) {
      await fireEvent.change(field, { target: { value: text } })
      expect(onchange).toHaveBeenLastCalledWith(value)
    }
  })
  it('says what is no number, and what the server refuses', async () => {
    const onchange = vi.fn()
    const { rerender } = render(NumberField, { label: 'Time', value: 1, onchange })
    for (const text of ['soon', '', '1/2/3', '1/0']) {
      await fireEvent.change(screen.getByLabelText('Time'), { target: { value: text } })
      expect(screen.getByRole('alert').textContent).toBe('a number, like 180, 0.5 or 1/50')
    }
    await fireEvent.change(screen.getByLabelText('Time'), { target: { value: '1,234' } })
    expect(screen.getByRole('alert').textContent).toMatch('may mean 1234 or 1.234')
    expect(onchange).not.toHaveBeenCalled()
    await fireEvent.change(screen.getByLabelText('Time'), { target: { value: '7' } })
    await rerender({ fault: 'must be below 5' })
    expect(screen.getByRole('alert').textContent).toBe('must be below 5')
  })
  it('reads lists of numbers', () => {
    expect(typedNumbers('200, 400; 800 1600')).toEqual([200, 400, 800, 1600])
    expect(typedNumbers('2.5 many')).toEqual([2.5, 'many'])
    expect(typedNumbers('  ')).toEqual([])
  })
  it('sets things down on whole steps beside the axis', () => {
    expect(snapAside(-0.37, 'm')).toBe(-0.35)
    expect(snapAside(-0.35, 'm', -1)).toBe(-0.4)
    expect(snapAside(0.3, 'ft')).toBeCloseTo(0.3048, 6)
  })
})

describe('the light in the address', () => {
  const light: Light = {
    ei: null,
    nd_stops: 2.5,
    shutter: 'time',
    shutter_deg: 180,
    shutter_s: 0.02,
    known_by: 'foot_candles',
    lux: 100,
    foot_candles: 12,
    metered: { t_stop: 2.8, ei: 800, shutter_s: 0.02, nd_stops: 0 },
    may_move: ['light', 'nd'],
    mains_hz: 60,
    lamp: 'pulsed',
    pulse_hz: 1200,
    pulse_duty: 0.4,
    ripple_percent: null,
  }
  it('comes back as it was written, in the order of what may move', () => {
    expect(readLight(writeLight(light))).toEqual(light)
    const other: Light = { ...light, ei: 5000, may_move: [], known_by: 'metered', ripple_percent: 8 }
    expect(readLight(writeLight(other))).toEqual(other)
  })
  it('is none where the text is none', () => {
    for (const text of [
      '',
      '1~2',
      writeLight(light).replace('pulsed', 'candle'),
      writeLight(light).replace('100', 'x'),
    ])
      expect(readLight(text)).toBeNull()
  })
})

describe('tabs below the drawings', () => {
  it('are read from the address and written into it', async () => {
    expect([tabOf('#depth'), tabOf('#nothing'), tabOf('')]).toEqual(['depth', 'formats', 'formats'])
    noteTab('scene')
    expect(location.hash).toBe('#scene')
    noteTab('formats')
    expect(location.hash).toBe('')
    const onchange = vi.fn()
    const children = createRawSnippet(() => ({ render: () => '<p>below</p>' }))
    render(TabPages, { label: 'Tabs', tabs: BENCH_TABS, value: 'formats', onchange, children })
    expect(screen.getByRole('tabpanel')).toHaveTextContent('below')
    await userEvent.click(screen.getByRole('tab', { name: 'Depth' }))
    expect(onchange).toHaveBeenLastCalledWith('depth')
  })
})

describe('the ledger', () => {
  it('begins each bar where the one before it ended', () => {
    const control = createRawSnippet(() => ({ render: () => '<i></i>' }))
    const row = (key: 'light' | 'ei' | 'nd', stops: number) => ({ key, name: key, setting: '', stops })
    const ledger = [row('light', 5), row('ei', 3), row('nd', -6)]
    const { container } = render(LedgerDrawing, {
      ledger,
      off: 2,
      offText: '2 stops too bright',
      balanced: false,
      control,
    })
    const bars = [...container.querySelectorAll('rect')].map((r) => [
      Number(r.getAttribute('x')),
      Number(r.getAttribute('x')) + Number(r.getAttribute('width')),
    ]) as [number, number][]
    expect(bars).toHaveLength(3)
    expect(bars[1]?.[0]).toBeCloseTo(bars[0]?.[1] ?? 0, 5)
    expect(bars[2]?.[1]).toBeCloseTo(bars[1]?.[1] ?? 0, 5)
    // Six stops down from eight is two above zero.
    const perStop = ((bars[0]?.[1] ?? 0) - (bars[0]?.[0] ?? 0)) / 5
    expect((bars[2]?.[0] ?? 0) - (bars[0]?.[0] ?? 0)).toBeCloseTo(2 * perStop, 5)
    expect(screen.getByRole('status').textContent).toBe('2 stops too bright')
  })
})

describe('the waveform', () => {
  it('draws an opening for the first and the last row of each frame', () => {
    const opening = (frame: number, row: 'first' | 'last', from_ms: number) => ({
      frame,
      row,
      from_ms,
      to_ms: from_ms + 20,
      exposure: 1,
    })
    const wave: FlickerView['wave'] = {
      span_ms: 120,
      frame_ms: 40,
      highest: 1.5,
      points: [
        [0, 1.5],
        [60, 0.5],
        [120, 1.5],
      ],
      openings: [
        opening(0, 'first', 0),
        opening(0, 'last', 15),
        opening(1, 'first', 40),
        opening(1, 'last', 55),
      ],
    }
    render(WaveDrawing, { wave, lamp: 'lamp' })
    const drawn = screen.getAllByTestId('opening')
    expect(drawn).toHaveLength(4)
    const x = (i: number) => Number(drawn[i]?.getAttribute('x'))
    expect((x(1) - x(0)) / (x(2) - x(0))).toBeCloseTo(15 / 40, 5)
  })
})

it.each([
  ['columns[1].stop', 'set-up B, stop'],
  ['columns[0].format_id', 'set-up A, format'],
  ['columns[3]', 'set-up D'],
  ['lux', 'lux'],
])('says where a fault of a comparison lies: %s', (path, words) => expect(setupWords(path)).toBe(words))

describe('figures of a comparison', () => {
  const row = (
    unit: ComparedRow['unit'],
    values: (number | null)[],
    infinite = values.map(() => false),
  ): ComparedRow => ({
    key: 'x',
    label: 'x',
    unit,
    values,
    infinite,
    texts: values.map(() => null),
    differs: values.map(() => false),
  })
  it.each([
    ['m', 2.5, '2.50 m'],
    ['mm', 33.24, '33.2 mm'],
    ['um', 28.63, '28.6 µm'],
    ['deg', 41.04, '41.0°'],
    ['percent', 0.861, '0.86 %'],
    ['percent', 49.61, '49.6 %'],
    ['stops', -1.25, '−1.3 stops'],
    ['stops', 0.01, '+0.01 stops'],
    ['stops', 0.001, '0.0 stops'],
    ['ratio', 1.0384, '1.038×'],
    ['px', 3839.6, '3840'],
    ['fps', 68.62, '68.6 fps'],
  ] as const)('writes %s', (unit, value, text) => {
    expect(comparedText(row(unit, [value]), 0, 'm')).toBe(text)
  })
  it('writes infinity, what is unknown, and how far a value is from the first', () => {
    expect(comparedText(row('m', [null], [true]), 0, 'm')).toBe('∞')
    expect(comparedText(row('m', [null]), 0, 'm')).toBe('–')
    expect(differenceText(row('m', [2, 1.5]), 1, 0)).toBe('−25.0 %')
    expect([differenceText(row('m', [2, 1.5]), 0, 0), differenceText(row('stops', [1, 2]), 1, 0)]).toEqual([
      '',
      '',
    ])
    // Another than the first can be what they are held against.
    expect([0, 1].map((i) => differenceText(row('m', [2, 1.5]), i, 1))).toEqual(['+33.3 %', ''])
  })
})

describe('why and under which rule', () => {
  const share = (
    part: Why['depth'][number]['part'],
    before: number,
    after: number,
    factor: number | null,
  ) => ({ part, before, after, factor })
  it('shows the parts with what they were and are', () => {
    const why: Why = {
      in_dioptres: false,
      depth_factor: 1.5,
      depth: [
        share('focal_mm', 50, 33.5, 2.3),
        share('distance_mm', 3000, 3000, 1),
        share('coc_mm', 0.029, 0.019, 0.65),
      ],
      blur_factor: 0.7,
      blur: [share('f_number', 2.8, 2.8, 1), share('width_mm', 36, 24, null)],
    }
    render(WhyPanel, {
      why,
      summary: { matches: ['field'], differs: ['depth'] },
      name: 'B',
      master: 'A',
      unit: 'm',
    })
    expect(screen.getByText('50.0 mm → 33.5 mm')).toBeTruthy()
    expect(screen.getByText('29.0 µm → 19.0 µm')).toBeTruthy()
    expect(screen.getAllByText('the same')).toHaveLength(2)
    expect(screen.getByText(/Matches: field/)).toBeTruthy()
  })
  it('answers in words, not by colour alone', () => {
    const cell = (ratio: number, answer: 'less' | 'same' | 'more') => ({ ratio, answer })
    const rules = {
      bigger: 'big',
      smaller: 'small',
      same_size: false,
      cases: ['place', 'moved', 'lens'],
      rows: [{ rule: 'fixed', cells: [cell(1, 'same'), cell(0.44, 'less'), null] }],
    }
    render(RulesPanel, { rules, master: 'A' })
    const row = screen.getByRole('row', { name: /fixed/ })
    expect(within(row).getByText(/the same/)).toBeTruthy()
    expect(within(row).getByText(/less/).textContent).toContain('×0.44')
  })
})

describe('a match', () => {
  it('shows the exact answer, what is left, and hands the column over', async () => {
    const ontake = vi.fn()
    const option = {
      lens: 'Wren 32',
      via: 'directly',
      focal_mm: 32,
      marks: 'T',
      stop: 2.1,
      exact_stop: 1.92,
      width_percent: -1.42,
      depth_stops: 0.3,
      exposure_stops: 0,
      ei: 640,
      nd_stops: 1,
      nd_parts: ['ND 0.3'],
      notes: ['Support the lens'],
      covers: 'covers' as const,
      good: false,
      text: '1.4 % tighter.',
      column: { format_id: 1, lens_id: 2 },
    }
    const match = {
      exact: { focal_mm: 33.6, f_number: 1.72, stop: 1.92, ei: 376 },
      options: [option],
      advice: ['Step back.'],
      tried: 9,
    }
    render(MatchOptions, {
      name: 'B',
      master: 'A',
      within: 10,
      fault: undefined,
      match: match as never,
      ontake,
      onwithin: vi.fn(),
      onclose: vi.fn(),
    })
    expect(screen.getByText('33.6 mm, f/1.72, EI 376')).toBeTruthy()
    expect(screen.getByText('−1.4 %')).toBeTruthy()
    expect(screen.getByText('EI 640, ND 0.3')).toBeTruthy()
    expect(screen.getByText('Step back.')).toBeTruthy()
    expect(screen.getByText('Support the lens')).toBeTruthy()
    await fireEvent.click(screen.getByRole('button', { name: 'Use this' }))
    expect(ontake).toHaveBeenCalledWith(option)
  })
})

describe('ticks', () => {
  it('are round figures within the bounds, never too many', () => {
    for (const [low, high] of [
      [0.45, 20],
      [2, 3],
      [1.02, 640],
      [0.1, 9000],
    ] as const) {
      const ticks = logTicks(low, high)
      expect(ticks.length).toBeGreaterThan(0)
      expect(ticks.length).toBeLessThanOrEqual(7)
      expect(ticks.every((t) => t >= low * 0.99 && t <= high * 1.01)).toBe(true)
    }
  })
})
