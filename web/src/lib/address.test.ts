import { describe, expect, it } from 'vitest'
import { fromQuery, toQuery } from './address'
import type { BenchState } from './types'

const STATE: BenchState = {
  format_id: 6,
  lens_id: 19,
  adapter_id: 1,
  second_adapter_id: null,
  focal_mm: null,
  stop: 2.1,
  subject_m: 3.2,
  focus_m: null,
  fps: 25,
  crop_ids: [],
  delivery: { aspect: 2.39, long_edge_px: 3840, protect: 0.05 },
  reference: { name: 'super35', own: null, scan_mode_id: null, by: 'width' },
  coc: { rule: 'picture_diagonal', divisor: 1500 },
  movement_m: 0,
  scene: {
    camera_height_m: 1.55,
    posture: 'standing',
    subject_height_m: 1.72,
    face_caution_m: 0.45,
    frames: [],
    title_safe: false,
    objects: [],
  },
  light: {
    ei: null,
    nd_stops: 0,
    shutter: 'angle',
    shutter_deg: 180,
    shutter_s: 0.02,
    known_by: 'lux',
    lux: 100,
    foot_candles: 10,
    metered: { t_stop: 2.8, ei: 800, shutter_s: 0.02, nd_stops: 0 },
    may_move: ['nd', 'ei', 'light'],
    mains_hz: 50,
    lamp: 'tungsten',
    pulse_hz: 1200,
    pulse_duty: 0.5,
    ripple_percent: null,
  },
  unit: 'm',
  pinned: [2, 20],
  ladder: { scope: 'all', classes: [], mounts: true, covers: false, oversampled: false, least_fps: null },
  columns: null,
  sort: null,
  descending: false,
}
const OTHER: BenchState = {
  ...STATE,
  adapter_id: 3,
  second_adapter_id: 4,
  focal_mm: 35.5,
  focus_m: 4,
  movement_m: 0.4,
  light: {
    ...STATE.light,
    ei: 5000,
    nd_stops: 2.5,
    shutter: 'time',
    known_by: 'metered',
    may_move: [],
    mains_hz: 60,
    lamp: 'pulsed',
    ripple_percent: 12,
  },
  scene: { ...STATE.scene, posture: 'seated', title_safe: true, frames: [1.85] },
  fps: 23.976,
  crop_ids: [3, 4],
  delivery: { aspect: null, long_edge_px: null, protect: 0 },
  reference: { name: 'scan_mode', own: null, scan_mode_id: 7, by: 'diagonal' },
  coc: { rule: 'eye', arcmin: 1, picture_heights: 3 },
  unit: 'ft',
  pinned: [],
  ladder: {
    scope: 'body',
    classes: ['Super 35', '2/3 inch'],
    mounts: false,
    covers: true,
    oversampled: true,
    least_fps: 59.94,
  },
  columns: ['effective', 'near'],
  sort: 'rate',
  descending: true,
}

describe('rules of sharpness', () => {
  it('leave the production its own when the look has none', () => {
    const none = { ...STATE, coc: null }
    expect(toQuery(none)).not.toContain('sharp=')
    expect(fromQuery(`?${toQuery(none)}`, STATE).coc).toBeNull()
  })
})

describe('the address', () => {
  it.each([
    ['the demo', STATE, OTHER],
    ['everything set otherwise', OTHER, STATE],
  ])('carries %s whole, whatever was kept', (_, state, kept) => {
    expect(fromQuery(`?${toQuery(state)}`, kept)).toEqual(state)
  })

  it.each(['half frame', 'the camera: 24 x 18 & more'])("carries a reference of one's own, %s", (name) => {
    const own = { name, width_mm: 23.5, height_mm: 18 }
    const state: BenchState = { ...STATE, reference: { name: 'own', own, scan_mode_id: null, by: 'height' } }
    expect(fromQuery(`?${toQuery(state)}`, STATE)).toEqual(state)
  })

  it('leaves the kept state alone when it holds none', () => {
    expect(fromQuery('', STATE)).toBe(STATE)
    expect(fromQuery('?utm=1', STATE)).toBe(STATE)
    // What somebody types behind the address sets what it names, and nothing else.
    expect(fromQuery('?subject=8&rate=50', OTHER)).toEqual({ ...OTHER, subject_m: 8, fps: 50 })
    expect(fromQuery('?focus=', OTHER)).toEqual({ ...OTHER, focus_m: null })
  })

  it('ignores what it cannot read', () => {
    const read = fromQuery('?format=x&lens=12&unit=miles&sharp=hunch&by=area&reference=moon', STATE)
    expect(read.lens_id).toBe(12)
    expect(read.format_id).toBe(6)
    expect(read.unit).toBe('m')
    expect(read.coc).toEqual(STATE.coc)
    expect(read.reference).toEqual(STATE.reference)
  })
})
