/** The columns of a body's scan modes and recording formats. */
import { highestRate, megabytes, ratio } from '../../lib/format'
import { SAMPLES } from '../../lib/generated/choices'
import type { BodySheet, FormatDocument, ModeDocument } from '../../lib/types'
import { figuresByKey, type Choice, type Column } from '../grid/columns'
import { SAMPLINGS, samplingChoice } from './sampling'

type Mode = ModeDocument
type Format = FormatDocument
const NONE = '–'
const plain = (value: string): Choice => ({ value, label: value })
const across = (width: number | undefined, height: number | undefined) =>
  width === undefined || height === undefined ? NONE : `${width.toFixed(2)} × ${height.toFixed(2)}`

/** How an axis is sampled, step and method as one choice. */
function sampling(axis: 0 | 1): Pick<Column<Mode>, 'choices' | 'text' | 'put'> {
  const now = (mode: Mode) => samplingChoice(mode.sampling?.[axis] ?? 1, mode.methods?.[axis] ?? 'full')
  return {
    text: (mode) => now(mode).label,
    choices: (mode) => {
      const known = SAMPLINGS.map((s) => plain(s.label))
      return known.some((c) => c.value === now(mode).label) ? known : [...known, plain(now(mode).label)]
    },
    put: (mode, label) => {
      const choice = SAMPLINGS.find((s) => s.label === label)
      const set = <T>(list: readonly T[], value: T) => list.map((old, i) => (i === axis ? value : old))
      return {
        ...mode,
        sampling: set<number>(mode.sampling ?? [1, 1], choice?.step ?? (label as number)),
        methods: set(mode.methods ?? ['full', 'full'], choice?.method ?? 'full'),
      } as Mode
    },
  }
}

export function modeColumns(sheet: () => BodySheet | null): Column<Mode>[] {
  const known = figuresByKey(() => sheet()?.modes)
  const window = (axis: 0 | 1) => (mode: Mode) => `${mode.window_mm ? 'window_mm' : 'window'}[${axis}]`
  return [
    { key: 'name', title: 'Scan mode', name: 'Name', kind: 'text', size: 14, first: true },
    { key: 'window[0]', title: 'Width', name: 'Window width', kind: 'number', at: window(0), first: true },
    { key: 'window[1]', title: 'Height', name: 'Window height', kind: 'number', at: window(1), first: true },
    {
      key: 'unit',
      title: 'in',
      name: 'Unit of the window',
      kind: 'choice',
      text: (mode) => (mode.window_mm ? 'mm' : 'sites'),
      choices: () => [
        { value: 'px', label: 'sites' },
        { value: 'mm', label: 'mm' },
      ],
      put: (mode, unit) => {
        const here = known(mode)
        if (!here) return mode
        const size = [here.rect.width, here.rect.height].map((n) => Number(n.toFixed(3)))
        return { ...mode, window: unit === 'mm' ? null : here.photosites, window_mm: unit === 'mm' ? size : null }
      },
    },
    { key: 'offset[0]', title: 'Offset right', name: 'Offset across', kind: 'number', gloss: 'From the sensor’s centre to the right, in photosites' },
    { key: 'offset[1]', title: 'Down', name: 'Offset down', kind: 'number', gloss: 'From the sensor’s centre downwards, in photosites' },
    { key: 'sampling[0]', title: 'Sampled across', name: 'Sampling across', kind: 'choice', gloss: 'Which columns are read', ...sampling(0) },
    { key: 'sampling[1]', title: 'Down', name: 'Sampling down', kind: 'choice', gloss: 'Which rows are read', ...sampling(1) },
    { key: 'row_time_us', title: 'Row µs', name: 'Row time', kind: 'number', gloss: 'Time to read one row, µs' },
    { key: 'overhead_us', title: 'Overhead µs', name: 'Overhead', kind: 'number', gloss: 'Time that a scan takes besides its rows, µs' },
    { key: 'max_fps', title: 'Stated fps', name: 'Stated limit', kind: 'number', gloss: 'The maker’s limit on the scan rate', empty: 'none' },
    { key: 'mm', title: 'mm', name: 'Size on the sensor', kind: 'computed', right: true, text: (mode) => across(known(mode)?.rect.width, known(mode)?.rect.height) },
    { key: 'readout', title: 'Readout', name: 'Readout', kind: 'computed', right: true, gloss: 'From the first row to the last', text: (mode) => known(mode)?.readout_ms == null ? NONE : `${known(mode)?.readout_ms?.toFixed(1)} ms` },
    { key: 'scan_fps', title: 'Scan fps', name: 'Scan rate', kind: 'computed', right: true, first: true, gloss: 'Scans a second that the readout allows', text: (mode) => highestRate(known(mode)?.scan_fps) },
  ] // prettier-ignore
}

export function formatColumns(sheet: () => BodySheet | null): Column<Format>[] {
  const known = figuresByKey(() => sheet()?.formats)
  return [
    { key: 'name', title: 'Recording format', name: 'Name', kind: 'text', size: 16, first: true },
    { key: 'raster[0]', title: 'Raster', name: 'Raster width', kind: 'number', gloss: 'Recorded pixels across', first: true },
    { key: 'raster[1]', title: 'lines', name: 'Raster height', kind: 'number', gloss: 'Recorded lines', first: true },
    { key: 'map', title: 'Mapping', name: 'Mapping', kind: 'choice', gloss: 'The window scaled to the raster, or photosite for pixel from its centre', choices: () => [{ value: 'scale', label: 'scaled' }, { value: 'crop', label: 'cropped' }] },
    { key: 'codec', title: 'Codec', name: 'Codec', kind: 'text', size: 11 },
    { key: 'bits', title: 'Bits', name: 'Bits', kind: 'number', size: 3, empty: '–' },
    { key: 'samples', title: 'Samples', name: 'Samples', kind: 'choice', empty: 'not stated', choices: () => [{ value: '', label: 'not stated' }, ...SAMPLES.map(plain)] },
    { key: 'compression', title: 'Compr.', name: 'Compression', kind: 'number', size: 4, gloss: 'As a ratio: 6 is 6:1' },
    { key: 'megabits', title: 'Mb/s', name: 'Bit rate', kind: 'number', size: 5, gloss: 'Stated bit rate, Mb/s' },
    { key: 'megabits_at_fps', title: 'at fps', name: 'Rate of the bit rate', kind: 'number', size: 4, gloss: 'Frame rate at which the bit rate is stated and with which it grows; empty: the same at every rate' },
    { key: 'raw', title: 'Raw', name: 'Raw', kind: 'check', gloss: 'Raw carries raw samples, and nothing else does',
      put: (f, raw) => ({ ...f, raw, samples: raw === true ? 'raw' : f.samples === 'raw' ? null : f.samples }) as Format },
    { key: 'interlaced', title: 'Int.', name: 'Interlaced', kind: 'check' },
    { key: 'needs', title: 'Needs', name: 'Needs', kind: 'text', size: 14, gloss: 'Accessories and licences without which it does not record, with commas between them; Settings say which are carried', text: (f) => (f.needs ?? []).join(', '), put: (f, text) => ({ ...f, needs: String(text).split(/\s*[,;]\s*/).filter(Boolean) }) as Format },
    { key: 'from_firmware', title: 'Since', name: 'Firmware since', kind: 'text', size: 5, gloss: 'The firmware since which there is it: 4.1', put: (f, text) => ({ ...f, from_firmware: String(text).trim() || null }) as Format },
    { key: 'rates', title: 'Rates', name: 'Rates', kind: 'rates', size: 17, gloss: 'Frame rates that can be chosen: 23.976, 25, 1-60' },
    { key: 'highest_fps', title: 'Codec fps', name: 'Codec limit', kind: 'number', size: 5, gloss: 'The codec’s own limit', empty: 'none' },
    { key: 'mm', title: 'mm', name: 'Recorded size', kind: 'computed', right: true, gloss: 'What is recorded, on the sensor', text: (f) => across(known(f)?.width_mm, known(f)?.height_mm) },
    { key: 'oversampling', title: 'Samples/px', name: 'Samples for each pixel', kind: 'computed', right: true, gloss: 'Samples for each recorded pixel, across', text: (f) => ratio(known(f)?.oversampling[0]) },
    { key: 'rate', title: 'Highest rate', name: 'Highest rate', kind: 'computed', right: true, first: true, gloss: 'Highest rate that can be chosen; in brackets what else limits it', text: (f) => known(f)?.rate_text ?? NONE },
    { key: 'bound', title: 'bound by', name: 'Bound by', kind: 'computed', text: (f) => known(f)?.limited_by ?? '' },
    { key: 'mb_s', title: 'MB/s', name: 'Data rate', kind: 'computed', right: true, gloss: 'Data rate at the highest usable rate', text: (f) => megabytes(known(f)?.mb_s) },
    { key: 'notes', title: 'Check', name: 'Check', kind: 'computed', long: true, text: (f) => known(f)?.notes.join(' ') ?? '' },
  ] // prettier-ignore
}
