/** The columns of the lenses of a set. */
import { degrees, mm } from '../../lib/format'
import { CLASSES, PROJECTIONS } from '../../lib/generated/choices'
import type { LensDocument, LensSetSheet } from '../../lib/types'
import { figuresByKey, type Column } from '../grid/columns'

type Lens = LensDocument
const plain = (value: string) => ({ value, label: value })

export function lensColumns(sheet: () => LensSetSheet | null): Column<Lens>[] {
  const known = figuresByKey(() => sheet()?.lenses)
  const circle = (lens: Lens) => {
    const range = known(lens)?.circle_mm
    return range ? `${mm(range[0])}–${mm(range[1])}` : ''
  }
  return [
    { key: 'name', title: 'Lens', name: 'Name', kind: 'text', size: 16, first: true },
    { key: 'focal_mm', title: 'mm', name: 'Focal length', kind: 'number', size: 5, first: true, gloss: 'Of a zoom the shortest' },
    { key: 'focal_long_mm', title: 'to mm', name: 'Longest focal length', kind: 'number', size: 4, gloss: 'A second focal length makes it a zoom' },
    { key: 'f_number', title: 'f', name: 'f-number', kind: 'number', size: 4, gloss: 'Fully open, of a zoom at its short end' },
    { key: 'f_number_long', title: 'f long', name: 'f-number at the long end', kind: 'number', size: 4 },
    { key: 't_stop', title: 'T', name: 'T-stop', kind: 'number', size: 4, first: true, gloss: 'Fully open, of a zoom at its short end' },
    { key: 't_stop_long', title: 'T long', name: 'T-stop at the long end', kind: 'number', size: 4 },
    { key: 'image_circle_mm', title: 'Circle', name: 'Image circle', kind: 'number', size: 5, first: true, gloss: 'Diameter, mm; a table along the zoom or the focus is entered below',
      fixed: (lens) => Boolean(lens.circle_by), text: (lens) => lens.circle_by ? circle(lens) : lens.image_circle_mm == null ? '' : String(lens.image_circle_mm) },
    { key: 'squeeze', title: 'Squeeze', name: 'Squeeze', kind: 'number', size: 4 },
    { key: 'close_focus_m', title: 'Close m', name: 'Close focus', kind: 'number', size: 5, gloss: 'From the sensor plane, m' },
    { key: 'mount', title: 'Mount', name: 'Mount', kind: 'text', size: 5 },
    { key: 'designed_for', title: 'Made for', name: 'Class', kind: 'choice', empty: 'not stated', choices: () => [{ value: '', label: 'not stated' }, ...CLASSES.map(plain)],
      put: (lens, value) => ({ ...lens, designed_for: (value === '' || value === 'not stated' ? null : value) as Lens['designed_for'] }) },
    { key: 'projection', title: 'Projection', name: 'Projection', kind: 'choice', choices: () => PROJECTIONS.map(plain) },
    { key: 'angle', title: 'Angle', name: 'Angle of view', kind: 'computed', right: true, gloss: 'Horizontal, on the Super 35 width', text: (lens) => known(lens)?.angle_deg.map((a) => degrees(a)).join(' – ') ?? '–' },
    { key: 'view', title: 'View', name: 'View', kind: 'computed', gloss: 'By the angle on Super 35', text: (lens) => known(lens)?.view_class ?? '' },
    { key: 'covers', title: 'Covers', name: 'Covers', kind: 'computed', first: true, gloss: 'The largest usual window that the circle covers', text: (lens) => known(lens)?.circle_mm ? known(lens)?.covers ?? 'less than Super 16' : '' },
    { key: 'notes', title: 'Check', name: 'Check', kind: 'computed', long: true, text: (lens) => known(lens)?.notes.join(' ') ?? '' },
  ] // prettier-ignore
}
