/** The Bench's state in the address bar: a link opens the same picture. */
import { SHARP_FIGURES } from './generated/choices'
import { readLight, writeLight } from './light'
import { readScene, writeScene } from './scene'
import type { BenchState } from './types'

type Read = (text: string, state: BenchState) => Partial<BenchState> | null
type Write = (state: BenchState) => string | null

const number = (text: string): number | null => {
  const value = Number(text)
  return text.trim() !== '' && Number.isFinite(value) ? value : null
}
const list = (text: string): number[] =>
  text === '' ? [] : text.split('.').map(Number).filter(Number.isFinite)
const shown = (value: number | null): string | null => (value == null ? null : String(value))
const flag = (on: boolean): string => (on ? '1' : '')

/** A plain number under a name of its own. */
function plain<K extends 'format_id' | 'lens_id' | 'subject_m' | 'fps'>(key: K): [Read, Write] {
  return [
    (text) => {
      const value = number(text)
      return value == null ? null : { [key]: value }
    },
    (state) => String(state[key]),
  ]
}

/** A number that may be missing. */
function optional<K extends 'focal_mm' | 'stop' | 'focus_m'>(key: K): [Read, Write] {
  return [(text) => ({ [key]: text === '' ? null : number(text) }), (state) => shown(state[key]) ?? '']
}

const readCoc: Read = (text) => {
  if (text === '') return { coc: null }
  const [rule, ...values] = text.split('_at_')
  if (!rule || !(rule in SHARP_FIGURES)) return null
  const keys = SHARP_FIGURES[rule as keyof typeof SHARP_FIGURES]
  return {
    coc: Object.fromEntries([
      ['rule', rule],
      ...keys.map((k, i) => [k, Number(values[i])]),
    ]) as BenchState['coc'],
  }
}
const writeCoc: Write = ({ coc }) => {
  if (coc === null) return ''
  const rule = coc.rule ?? 'picture_diagonal'
  const values = SHARP_FIGURES[rule].map((key) => (coc as unknown as Record<string, number>)[key])
  return [rule, ...values].join('_at_')
}

const PARTS: Record<string, [Read, Write]> = {
  format: plain('format_id'),
  lens: plain('lens_id'),
  // Two adapters in a row are two numbers.
  adapter: [
    (text) => ({ adapter_id: list(text)[0] ?? null, second_adapter_id: list(text)[1] ?? null }),
    (state) => [state.adapter_id, state.second_adapter_id].filter((id) => id !== null).join('.'),
  ],
  focal: optional('focal_mm'),
  stop: optional('stop'),
  subject: plain('subject_m'),
  focus: optional('focus_m'),
  rate: plain('fps'),
  crops: [(text) => ({ crop_ids: list(text) }), (state) => state.crop_ids.join('.')],
  aspect: [
    (text, { delivery }) => ({ delivery: { ...delivery, aspect: text === '' ? null : number(text) } }),
    (state) => shown(state.delivery.aspect ?? null) ?? '',
  ],
  pixels: [
    (text, { delivery }) => ({ delivery: { ...delivery, long_edge_px: text === '' ? null : number(text) } }),
    (state) => shown(state.delivery.long_edge_px ?? null) ?? '',
  ],
  spare: [
    (text, { delivery }) => ({ delivery: { ...delivery, protect: number(text) ?? 0 } }),
    (state) => String(state.delivery.protect ?? 0),
  ],
  reference: [
    (text, { reference }) => {
      const id = /^window(\d+)$/.exec(text)?.[1]
      // Without one it is the production's.
      if (text === '') return { reference: null }
      const by = reference?.by ?? 'width'
      if (id) return { reference: { by, name: 'scan_mode', own: null, scan_mode_id: Number(id) } }
      const [, width, height, name] = /^own:([\d.]+)x([\d.]+):(.+)$/.exec(text) ?? []
      if (name) {
        const own = { name, width_mm: Number(width), height_mm: Number(height) }
        return { reference: { by, name: 'own', own, scan_mode_id: null } }
      }
      if (text !== 'super35' && text !== 'full_frame') return null
      return { reference: { by, name: text, own: null, scan_mode_id: null } }
    },
    ({ reference }) => {
      if (!reference) return ''
      const { name, own, scan_mode_id } = reference
      if (own) return `own:${own.width_mm}x${own.height_mm}:${own.name}`
      return name === 'scan_mode' ? `window${scan_mode_id}` : String(name)
    },
  ],
  by: [
    (text, { reference }) =>
      reference && (text === 'width' || text === 'height' || text === 'diagonal')
        ? { reference: { ...reference, by: text } }
        : null,
    (state) => state.reference?.by ?? null,
  ],
  sharp: [readCoc, writeCoc],
  // Links from before there was a scene keep the one that is there.
  scene: [
    (text) => {
      const scene = readScene(text)
      return scene && { scene }
    },
    (state) => writeScene(state.scene),
  ],
  light: [
    (text) => {
      const light = readLight(text)
      return light && { light }
    },
    (state) => writeLight(state.light),
  ],
  moves: [(text) => ({ movement_m: number(text) ?? 0 }), (state) => shown(state.movement_m || null) ?? ''],
  unit: [(text) => (text === 'm' || text === 'ft' ? { unit: text } : null), (state) => state.unit],
  pins: [(text) => ({ pinned: list(text).slice(0, 4) }), (state) => state.pinned.join('.')],
  show: [
    (text, { ladder }) => ({ ladder: { ...ladder, scope: text === 'body' ? 'body' : 'all' } }),
    (state) => String(state.ladder.scope),
  ],
  classes: [
    (text, { ladder }) => ({ ladder: { ...ladder, classes: text === '' ? [] : text.split('~') } }),
    (state) => (state.ladder.classes ?? []).join('~'),
  ],
  mounts: [
    (text, { ladder }) => ({ ladder: { ...ladder, mounts: text !== '0' } }),
    (state) => ((state.ladder.mounts ?? true) ? '' : '0'),
  ],
  covers: [
    (text, { ladder }) => ({ ladder: { ...ladder, covers: text === '1' } }),
    (state) => flag(state.ladder.covers ?? false),
  ],
  oversampled: [
    (text, { ladder }) => ({ ladder: { ...ladder, oversampled: text === '1' } }),
    (state) => flag(state.ladder.oversampled ?? false),
  ],
  least: [
    (text, { ladder }) => ({ ladder: { ...ladder, least_fps: text === '' ? null : number(text) } }),
    (state) => shown(state.ladder.least_fps ?? null) ?? '',
  ],
  columns: [
    (text) => ({ columns: text === '' ? null : text.split('.') }),
    (state) => state.columns?.join('.') ?? '',
  ],
  sort: [
    (text) => {
      const down = text.startsWith('-')
      return { sort: text === '' ? null : text.slice(down ? 1 : 0), descending: down }
    },
    (state) => (state.sort ? `${state.descending ? '-' : ''}${state.sort}` : ''),
  ],
}

/** Write a state as a query; what is empty is left out. */
export function toQuery(state: BenchState): string {
  const query = new URLSearchParams()
  for (const [name, [, write]] of Object.entries(PARTS)) {
    const text = write(state)
    if (text) query.set(name, text)
  }
  return query.toString()
}

/**
 * Read a query over a kept state. An address that names a format holds all of a state: what it leaves out is empty. Any other one
 * sets what it names, and leaves the rest as it was.
 */
export function fromQuery(search: string, kept: BenchState): BenchState {
  const query = new URLSearchParams(search)
  const whole = query.has('format')
  let state = kept
  for (const [name, [read]] of Object.entries(PARTS)) {
    if (!whole && !query.has(name)) continue
    const change = read(query.get(name) ?? '', state)
    if (change) state = { ...state, ...change }
  }
  return state
}
