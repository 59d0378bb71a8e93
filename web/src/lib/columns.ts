/** The ladder's columns: what each shows, how it sorts, and whether it is shown at first. */
import { justCoversText, limits, marginText, totalText, withUnit } from './figures'
import * as format from './format'
import type { FormatPlace, LadderRow, Unit } from './types'

export interface Column {
  key: string
  title: string
  /** Said on hover: what the figure is. */
  about: string
  shownAtFirst: boolean
  figure: boolean
  sortBy: (row: LadderRow, place: FormatPlace) => number | string | null
  text: (row: LadderRow, place: FormatPlace, unit: Unit) => string
  /** Metres are named in the title, and not in every cell. */
  metres?: true
}

type Text = Column['text']
type Sort = Column['sortBy']

function column(key: string, title: string, about: string, first: boolean, sortBy: Sort, text: Text): Column {
  return { key, title, about, shownAtFirst: first, figure: true, sortBy, text }
}

/** A distance of the answer, in the unit of the page. */
const metres = (pick: (row: LadderRow) => number | null): [Sort, Text] => [
  pick,
  (row, _, unit) => format.distanceWithUnit(pick(row), unit),
]

export const COLUMNS: Column[] = [
  {
    ...column(
      'class',
      'Class',
      'Class of format, by the size of what is recorded',
      true,
      (r) => -(r.answer.recorded_mm.diagonal ?? 0),
      (r) => r.format_class ?? '–',
    ),
    figure: false,
  },
  column(
    'crop',
    'Crop',
    'Against the reference, by the dimension in the header',
    false,
    (r) => r.answer.crop.total,
    (r) => format.factor(r.answer.crop.total),
  ),
  column(
    'effective',
    'Effective',
    'Focal length that frames the same on the reference, mm',
    true,
    (r) => r.answer.effective_focal_mm,
    (r) => `${format.mm(r.answer.effective_focal_mm)} mm`,
  ),
  column(
    'angle',
    'Angle of view',
    'Horizontal × vertical, focused at infinity',
    true,
    (r) => r.answer.angle_deg.horizontal,
    (r) =>
      `${format.degrees(r.answer.angle_deg.horizontal)} × ${format.degrees(r.answer.angle_deg.vertical)}`,
  ),
  column(
    'diagonal',
    'Diagonal angle',
    'Corner to corner, focused at infinity',
    false,
    (r) => r.answer.angle_deg.diagonal,
    (r) => format.degrees(r.answer.angle_deg.diagonal),
  ),
  column(
    'field',
    'Field',
    'Width × height in the plane of focus',
    false,
    (r) => r.answer.field_m.width,
    (r, _, unit) =>
      r.answer.field_m.width == null
        ? format.NONE
        : `${format.distance(r.answer.field_m.width, unit)} × ${format.distance(r.answer.field_m.height, unit)}${unit === 'm' ? ' m' : ''}`,
  ),
  {
    ...column(
      'near',
      'Near',
      'Near limit of depth, from the sensor plane; rounded up',
      true,
      (r) => r.answer.depth.near_m,
      (r, _, unit) => limitText(r, 'near', unit),
    ),
    metres: true,
  },
  {
    ...column(
      'far',
      'Far',
      'Far limit of depth, from the sensor plane; rounded down',
      true,
      (r) => r.answer.depth.far_m ?? Number.MAX_VALUE,
      (r, _, unit) => limitText(r, 'far', unit),
    ),
    metres: true,
  },
  column(
    'depth',
    'In focus',
    'Depth of field, on a scale shared by all rows',
    true,
    (r) => r.answer.depth.total_m ?? Number.MAX_VALUE,
    (r, _, unit) => (r.answer.depth.near_m == null ? format.NONE : totalText(r.answer.depth.total_m, unit)),
  ),
  column(
    'like',
    'Depth like',
    'The stop on the reference that gives the same depth at the same field: the same entrance pupil',
    true,
    (r) => r.answer.equivalent.f_number,
    (r) => depthLike(r),
  ),
  column(
    'hyperfocal',
    'Hyperfocal',
    'Focus here, and all beyond is sharp',
    false,
    ...metres((r) => r.answer.depth.hyperfocal_m),
  ),
  column(
    'blur',
    'Blur at ∞',
    'Blur disc of a point at infinity, per cent of the picture width',
    false,
    (r) => r.answer.background[1]?.blur_fraction_of_width ?? null,
    (r) => {
      const b = r.answer.background[1]?.blur_fraction_of_width
      return b == null ? format.NONE : `${(100 * b).toFixed(2)} %`
    },
  ),
  {
    ...column(
      'circle',
      'Image circle',
      'Does the lens cover what is recorded?',
      true,
      (r) => r.answer.coverage.margin_mm,
      (r) => (r.mounts ? coverageWords(r) : 'does not mount'),
    ),
    figure: false,
  },
  {
    ...column(
      'rate',
      'Highest rate',
      'Highest rate that can be chosen, frames a second; beside it what the readout or another limit allows',
      true,
      (r) => r.rate.usable_fps,
      (r) => r.rate.text,
    ),
    // Words stand beside the figure.
    figure: false,
  },
  column(
    'readout',
    'Readout',
    'Time from the first to the last row, ms',
    false,
    (r) => r.answer.speed.readout_ms,
    (r) => (r.answer.speed.readout_ms == null ? format.NONE : `${r.answer.speed.readout_ms.toFixed(1)} ms`),
  ),
  column(
    'oversampling',
    'Oversampled',
    'Samples across the recording for each recorded pixel',
    true,
    (r) => r.answer.pixels.oversampling,
    (r) => format.ratio(r.answer.pixels.oversampling),
  ),
  column(
    'megapixels',
    'Megapixels',
    'Of the recording, and of what the delivered picture shows of it',
    false,
    (r) => r.answer.pixels.picture_megapixels,
    (r) =>
      r.answer.pixels.recorded_megapixels == null
        ? format.NONE
        : `${r.answer.pixels.recorded_megapixels.toFixed(1)}, ${(r.answer.pixels.picture_megapixels ?? 0).toFixed(1)}`,
  ),
  column(
    'headroom',
    'Headroom',
    'Recorded pixels across the picture for each delivered',
    false,
    (r) => r.answer.pixels.delivery_headroom,
    (r) => format.ratio(r.answer.pixels.delivery_headroom),
  ),
  {
    ...column(
      'codec',
      'Codec',
      'Codec and bit depth',
      false,
      (_, p) => p.format.codec,
      (_, p) => [p.format.codec, p.format.bits && `${p.format.bits} bit`].filter(Boolean).join(' '),
    ),
    figure: false,
  },
]

/** Coverage in words: never by colour alone. */
export function coverageWords(row: LadderRow): string {
  const margin = row.answer.coverage.margin_mm
  if (margin == null) return 'not stated'
  return row.verdict === 'marginal' ? justCoversText(margin) : marginText(margin)
}

/** "f/3.0": the stop on the reference format with the same depth at the same field. */
export function depthLike(row: LadderRow): string {
  const { f_number, t_stop } = row.answer.equivalent
  if (f_number == null) return t_stop == null ? format.NONE : `T${format.aperture(t_stop)}`
  return `f/${format.aperture(f_number)}`
}

/** A depth limit; tiny totals about the mark, with their unit. */
function limitText(row: LadderRow, which: 'near' | 'far', unit: Unit): string {
  const { near_m, far_m } = row.answer.depth
  const mark = row.answer.subject_distance_m
  if (near_m == null || mark == null) return format.NONE
  const shown = limits(near_m, far_m, mark, unit)
  return shown.about ? withUnit(shown[which], shown) : shown[which]
}

const SHORT_WORDS: Record<string, string> = {
  mount: 'does not mount',
  lacking: 'lacks what it needs',
  correction_unknown: 'correction not stated',
  close_focus: 'nearer than close focus',
  rate_too_high: 'rate out of reach',
  rate_just: 'rate by a hair',
  beyond_projection: 'beyond the projection',
  binned: 'softened: binned',
  skipped: 'softened: lines skipped',
  upscaled: 'softened: upscaled',
  delivery_upscaled: 'delivery is larger',
  diffraction: 'diffraction',
  close_up_light: 'close-up light loss',
  t_stop_used: 'depth by T-stop',
  fisheye_axis: 'fisheye',
}

/** The notes of a row as plain words, the gravest first. Coverage has a column of its own. */
export function watchOut(row: LadderRow): { level: string; text: string }[] {
  const grave = { stop: 0, warn: 1, info: 2 }
  return row.answer.notes
    .filter((note) => note.code in SHORT_WORDS)
    .toSorted((a, b) => grave[a.level] - grave[b.level])
    .map((note) => ({ level: note.level, text: SHORT_WORDS[note.code] ?? note.code }))
}

/** The columns that are shown, in their order. */
export function shownColumns(chosen: string[] | null | undefined): Column[] {
  return COLUMNS.filter((c) => (chosen ? chosen.includes(c.key) : c.shownAtFirst))
}
