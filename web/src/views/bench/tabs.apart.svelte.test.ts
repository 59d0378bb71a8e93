import { fireEvent, render, screen, within } from '@testing-library/svelte'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import * as client from '../../lib/client'
import type { BenchState, DepthView, ExposureView, FlickerView, Light } from '../../lib/types'
import DepthTab from './DepthTab.svelte'
import FlickerTab from './FlickerTab.svelte'
import LightTab from './LightTab.svelte'

vi.mock('../../lib/client', () => ({
  viewDepth: vi.fn(),
  viewExposure: vi.fn(),
  viewFlicker: vi.fn(),
  readDistance: vi.fn(),
  readSettings: vi.fn(),
  writeSettings: vi.fn(),
  depthTable: vi.fn(),
}))
beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 600 })
})
beforeEach(() => vi.clearAllMocks())

const LIGHT = {
  ei: 800, nd_stops: 0, shutter: 'angle', shutter_deg: 180, shutter_s: 0.02, known_by: 'lux', lux: 500, foot_candles: 10,
  metered: { t_stop: 2.8, ei: 800, shutter_s: 0.02, nd_stops: 0 }, may_move: ['nd'], mains_hz: 50, lamp: 'magnetic',
  pulse_hz: 1200, pulse_duty: 0.5, ripple_percent: null,
} as Light // prettier-ignore
const BENCH = {
  subject_m: 3, focus_m: null, unit: 'm', stop: 2.8, fps: 25, movement_m: 0.4, coc: null, light: LIGHT,
} as unknown as BenchState // prettier-ignore

describe('depth', () => {
  const answer = (part = {}) => ({
    focus_m: 3.2, exact: 7.9, mark: 8, near_m: 2.4, far_m: 4.3, holds_open: false, too_close: false, text: 'T8 holds.', next: null, ...part,
  }) // prettier-ignore
  const VIEW = {
    rule: { coc_mm: 0.02, assumes: '', own: true, text: 'Sharp is what stays under 0.0200 mm.' },
    aperture: { f_number: 2.5, from_t: false, working: 2.5, lost_stops: 0, airy_mm: 0, diffraction: false, text: 'By f/2.5.' },
    hold: answer(),
    movement: { kept: answer({ text: 'Kept at T5.6.', mark: 5.6, focus_m: 3 }), best: answer({ text: 'Best.', mark: null, next: 'Step back.' }) },
    softness: { ...answer({ text: 'Too soft.', mark: null }), percent: 1 },
    most: { focus_m: 41.25, near_m: 20.6, text: 'Most.' },
    curves: [],
    table: { marks: 'T', stops: [2.8, 4], hyperfocal_m: [41.2, 28.9], rows: [{ distance_m: 1, cells: [{ near_m: 0.98, far_m: 1.02 }, { near_m: 0.97, far_m: null }] }] },
  } as unknown as DepthView // prettier-ignore
  const open = async (state = BENCH, onchange = vi.fn()) => {
    vi.mocked(client.viewDepth).mockResolvedValue({ data: VIEW })
    render(DepthTab, { productionId: 2, state, names: new Map(), onchange })
    await screen.findByText('T8 holds.')
    return onchange
  }
  it('asks around the subject, and sets what is answered', async () => {
    const onchange = await open()
    const asked = vi.mocked(client.viewDepth).mock.lastCall?.[1]
    expect([asked?.hold_near_m, asked?.hold_far_m, asked?.softness_percent]).toEqual([2.4, 4.2, 2])
    await fireEvent.click(screen.getByRole('button', { name: 'Set T8' }))
    expect(onchange).toHaveBeenLastCalledWith({ stop: 8, focus_m: 3.2 })
    // Focus on the subject needs no focus of its own.
    await fireEvent.click(screen.getByRole('button', { name: 'Set T5.6' }))
    expect(onchange).toHaveBeenLastCalledWith({ stop: 5.6, focus_m: null })
    expect(screen.getByText('Step back.')).toBeTruthy()
    await fireEvent.click(screen.getByRole('button', { name: 'Focus there' }))
    expect(onchange).toHaveBeenLastCalledWith({ focus_m: 41.25 })
  })
  it('writes the table with infinity as it is', async () => {
    await open()
    expect(screen.getByText('0.97 – ∞ m')).toBeTruthy()
    expect(screen.getByText('0.980 – 1.020 m')).toBeTruthy()
  })
  it("makes a look's rule the production's", async () => {
    const settings = { base_fps: '25', coc: { rule: 'picture_diagonal', divisor: 1500 } }
    vi.mocked(client.readSettings).mockResolvedValue({ data: { version: 3, settings } } as never)
    vi.mocked(client.writeSettings).mockResolvedValue({ data: { version: 4, settings } } as never)
    const onchange = await open({ ...BENCH, coc: { rule: 'fixed', mm: 0.02 } } as BenchState)
    await fireEvent.click(screen.getByRole('button', { name: "Make it the production's rule" }))
    await vi.waitFor(() => expect(onchange).toHaveBeenLastCalledWith({ coc: null }))
    expect(client.writeSettings).toHaveBeenCalledWith(2, 3, { ...settings, coc: { rule: 'fixed', mm: 0.02 } })
  })
})

describe('exposure', () => {
  const row = (key: string, name: string, stops: number) => ({ key, name, setting: 'as it is', stops })
  const VIEW = {
    ledger: [row('light', 'Light', 7.6), row('ei', 'Sensitivity', 3), row('stop', 'Stop', -3), row('shutter', 'Shutter', -5.6), row('nd', 'ND', 0), row('close_up', 'Close-up', -0.1)],
    off_stops: 2, off_text: '2 stops too bright', balanced: false, t_stop: 2.8, marks: 'T', ei: 800, time_s: 0.02, angle_deg: 180, lux: 500,
    foot_candles: 46.45, eis: [{ ei: 400, native: false }, { ei: 800, native: true }], nds: [{ stops: 0, parts: [] }, { stops: 2, parts: ['ND 0.6'] }],
    balance: { balanced: true, changed: true, off_stops: 0, off_text: '', text: 'Balanced by ND 0.6.', nd_parts: ['ND 0.6'], light: { ...LIGHT, nd_stops: 2 }, stop: 2.8, next: null },
    light_for_stops: [{ stop: 2.8, lux: 125, foot_candles: 11.6 }], stop_for_light: 5.6,
    rates: [{ fps: 25, stops: 0, possible: true }, { fps: 200, stops: 3, possible: false }], angles: [{ angle_deg: 180, stops: 0, time_s: 0.02 }], notes: ['A note.'],
  } as unknown as ExposureView // prettier-ignore
  const open = async (light: Partial<Light> = {}, onchange = vi.fn()) => {
    vi.mocked(client.viewExposure).mockResolvedValue({ data: VIEW })
    const state = { ...BENCH, light: { ...LIGHT, ...light } }
    const view = render(LightTab, {
      productionId: 2,
      state,
      view: { lens: { stops: [2.8, 4] } } as never,
      onchange,
    })
    return { onchange, ...view }
  }
  it('sets what balances it', async () => {
    const { onchange } = await open()
    await fireEvent.click(await screen.findByRole('button', { name: 'Set it so' }))
    expect(onchange).toHaveBeenLastCalledWith({ light: { ...LIGHT, nd_stops: 2 }, stop: 2.8 })
    expect(screen.getByText('A note.')).toBeTruthy()
    expect(
      within(screen.getByText('200 fps').closest('tr') as HTMLElement).getByText('not here'),
    ).toBeTruthy()
  })
  it('lets things move in the order in which they were named', async () => {
    const { onchange } = await open()
    const light = await screen.findByRole('button', { name: 'Light may move' })
    expect(light.textContent).toBe('held')
    expect(screen.getByRole('button', { name: 'ND may move' }).textContent).toBe('moves, 1.')
    await fireEvent.click(light)
    expect(onchange.mock.lastCall?.[0].light.may_move).toEqual(['nd', 'light'])
    await fireEvent.click(screen.getByRole('button', { name: 'ND may move' }))
    expect(onchange.mock.lastCall?.[0].light.may_move).toEqual([])
  })
  it('turns lux into foot-candles as the server has them', async () => {
    const { onchange } = await open()
    const how = await screen.findByLabelText('How the light is known')
    await fireEvent.change(how, { target: { value: 'foot_candles' } })
    const { known_by, foot_candles, lux } = onchange.mock.lastCall?.[0].light as Light
    expect([known_by, foot_candles, lux]).toEqual(['foot_candles', 46.5, 500])
    await fireEvent.change(screen.getByLabelText('Shutter by'), { target: { value: 'time' } })
    expect((onchange.mock.lastCall?.[0].light as Light).shutter_s).toBe(0.02)
  })
  it('says at the field what is refused', async () => {
    const { rerender } = await open()
    await screen.findByText('2 stops too bright')
    const fault = { field: 'state.light.shutter_deg', rule: 'must be at most 360' }
    const problem = { code: 'invalid_input', message: 'no', faults: [fault] }
    vi.mocked(client.viewExposure).mockResolvedValue({ problem } as never)
    await rerender({ state: { ...BENCH, light: { ...LIGHT, shutter_deg: 400 } } })
    expect((await screen.findByRole('alert')).textContent).toBe('must be at most 360')
    expect(screen.getByLabelText('Shutter angle, degrees').getAttribute('aria-invalid')).toBe('true')
    // What was answered before stays on the screen.
    expect(screen.getByText('2 stops too bright')).toBeTruthy()
  })
})

describe('flicker', () => {
  const lamp = (kind: string, verdict: string) => ({
    kind,
    name: kind,
    hz: 100,
    ripple_percent: 75,
    duty: null,
    verdict,
    frame_stops: 0.2,
    band_stops: null,
    bands: null,
    beat_hz: 4,
    text: 'Frames differ.',
  })
  const shutter = (time_s: number, angle_deg: number, text: string) => ({ time_s, angle_deg, text })
  const VIEW = {
    fps: 24, time_s: 1 / 48, angle_deg: 180, readout_ms: null, lamps: [lamp('magnetic', 'shows'), lamp('tungsten', 'none')], hz: 100,
    safe: [shutter(0.01, 86.4, '1/100 s'), shutter(0.02, 172.8, '1/50 s')], safe_count: 2, nearest: { ...shutter(0.02, 172.8, '1/50 s'), off_stops: -0.06 },
    rates: [{ exact: '100/3', fps: 33.3333 }], no_safe: null, caution: 'Strobing light can harm.',
    wave: { span_ms: 100, frame_ms: 41.7, highest: 1.75, points: [[0, 1], [100, 1]], openings: [] },
  } as unknown as FlickerView // prettier-ignore
  it('judges in words, and sets the safe shutter that is chosen', async () => {
    vi.mocked(client.viewFlicker).mockResolvedValue({ data: VIEW })
    const onchange = vi.fn()
    render(FlickerTab, { productionId: 2, state: BENCH, onchange })
    expect(await screen.findByText('✗ shows')).toBeTruthy()
    expect(screen.getByText('✓ nothing to see')).toBeTruthy()
    expect(screen.getByText(/readout not known/)).toBeTruthy()
    expect(screen.getByText('33.333')).toBeTruthy()
    expect(screen.getByText('Strobing light can harm.')).toBeTruthy()
    await fireEvent.click(screen.getByRole('button', { name: /86\.4° 1\/100 s/ }))
    expect((onchange.mock.lastCall?.[0].light as Light).shutter_deg).toBe(86.4)
    await fireEvent.click(screen.getByRole('button', { name: 'Set it' }))
    expect((onchange.mock.lastCall?.[0].light as Light).shutter_deg).toBe(172.8)
    await fireEvent.click(screen.getByText('60 Hz'))
    expect((onchange.mock.lastCall?.[0].light as Light).mains_hz).toBe(60)
  })
})
