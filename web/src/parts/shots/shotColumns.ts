/** The columns of the list of shots: what each needs, and what is answered. */
import { aperture, distanceWithUnit, mm } from '../../lib/format'
import { VERDICTS } from '../../lib/shotList'
import type { Shot, ShotAnswer, Unit } from '../../lib/types'
import type { Column } from '../grid/columns'

/** Needs that may be wishes, as the document names them. */
export const NEEDS = [
  {
    key: 'framing',
    title: 'Framing',
    size: 15,
    gloss: 'waist, 1.9 m wide, as 35 on Super 35 at 3 m, like 50',
  },
  { key: 'distance', title: 'Distance', size: 8, gloss: '3 m, 2-4 m, up to 5 m; free where it is empty' },
  { key: 'speed', title: 'Speed', size: 7, gloss: '100, 4x slow, 25-100 for a ramp' },
  { key: 'stop', title: 'Stop', size: 8, gloss: 'T2.8, T2-T4, up to T4' },
  { key: 'light', title: 'Light', size: 10, gloss: '200 lux, day, night, EI 400-1600' },
  { key: 'hold', title: 'Sharp', size: 9, gloss: '±30 cm, 2.5-4 m, deep' },
  {
    key: 'background',
    title: 'Background',
    size: 9,
    gloss: 'How wide a point of light is drawn: 3 % at 8 m',
  },
  { key: 'picture', title: 'Picture', size: 14, gloss: 'raw, 12 bit, no binning, re-frame 20 %, stabiliser' },
  {
    key: 'deliveries',
    title: 'Delivered',
    size: 12,
    gloss: 'Frames of Settings by their names, or 3840x2160',
  },
  { key: 'room', title: 'Room', size: 7, gloss: 'From the subject to the wall behind the camera' },
  { key: 'nearest', title: 'Not nearer', size: 7, gloss: 'For the sake of the perspective' },
  { key: 'look', title: 'Look', size: 8, gloss: 'spherical, 2x' },
  { key: 'rig', title: 'Rig', size: 12, gloss: 'tripod, hand, gimbal 4.5 kg, no lens change' },
  { key: 'body', title: 'Body', size: 9, gloss: 'One body alone' },
] as const
export type Need = (typeof NEEDS)[number]['key']

const text = (key: keyof Shot & string, title: string, size: number, more: Partial<Column<Shot>> = {}): Column<Shot> => ({
  key, title, name: title, kind: 'text', size, ...more,
}) // prettier-ignore

const ABOUT: Column<Shot>[] = [
  { key: 'name', title: 'Shot', name: 'Number', kind: 'text', size: 5, first: true },
  text('what', 'What', 16, { first: true }),
]
const PLACE: Column<Shot>[] = [
  text('scene', 'Scene', 14),
  text('day', 'Day', 3),
  text('unit', 'Unit', 3),
  text('height', 'Height', 6, { gloss: 'How tall whoever is framed is; 1.7 m where nobody says' }),
]
const SAFETY: Column<Shot>[] = [
  text('lamps', 'Lamps', 8, { gloss: '50 Hz for the mains, pulsed 400 Hz' }),
  text('keep_out', 'Keep-out', 7, { gloss: 'The distance that whoever is responsible for safety has set' }),
  text('keep_out_by', 'Set by', 14),
  text('notes', 'Notes', 24),
]

/** What stands in a cell: a wish says so. */
const said = (shot: Shot, key: Need) => `${shot[key]}${shot[key] && shot.wishes[key] ? ' (wish)' : ''}`

export function shotColumns(
  answers: ReadonlyMap<string, ShotAnswer>,
  unit: Unit,
  all: boolean,
): Column<Shot>[] {
  const of = (shot: Shot) => answers.get(shot.key)
  const best = (shot: Shot) => of(shot)?.best
  const needs = NEEDS.filter((need) => all || ['framing', 'distance', 'speed'].includes(need.key)).map(
    (need): Column<Shot> => ({
      ...text(need.key, need.title, need.size, { gloss: need.gloss, first: need.key === 'framing' }),
      text: (shot) => said(shot, need.key),
    }),
  )
  const told: Column<Shot>[] = [
    { key: 'answer.verdict', title: 'Verdict', name: 'Verdict', kind: 'computed', first: true, text: (s) => verdictWords(of(s)), bad: (s) => of(s)?.verdict === 'cannot' },
    { key: 'answer.lens', title: 'Lens', name: 'Lens', kind: 'computed', first: true, text: (s) => lensWords(best(s)) },
    { key: 'answer.stop', title: 'Stop', name: 'Stop set', kind: 'computed', right: true, text: (s) => stopWords(best(s)) },
    { key: 'answer.like', title: 'Like', name: 'Frames like', kind: 'computed', right: true, first: true, gloss: 'What it frames like on Super 35, by width', text: (s) => mm(best(s)?.effective_mm) },
    { key: 'answer.from', title: 'From', name: 'Distance used', kind: 'computed', right: true, text: (s) => distanceWithUnit(best(s)?.distance_m, unit) },
    { key: 'answer.format', title: 'Format', name: 'Format', kind: 'computed', text: (s) => (best(s) ? `${best(s)?.format}, ${best(s)?.body}` : '') },
    { key: 'answer.binds', title: 'Binds', name: 'What binds', kind: 'computed', text: (s) => of(s)?.binds ?? '' },
  ] // prettier-ignore
  return all ? [...ABOUT, ...PLACE, ...needs, ...SAFETY, ...told.slice(0, 2)] : [...ABOUT, ...needs, ...told]
}

export function lensWords(choice: ShotAnswer['best'] | undefined): string {
  if (!choice) return ''
  return choice.is_zoom ? `${choice.lens} at ${Math.round(choice.focal_mm)}` : choice.lens
}

export const stopWords = (choice: ShotAnswer['best'] | undefined) =>
  choice?.stop == null ? '' : `${choice.marks}${aperture(choice.stop)}`

export function verdictWords(answer: ShotAnswer | undefined): string {
  if (!answer) return ''
  const { sign, words } = VERDICTS[answer.verdict]
  return `${sign} ${words}`
}
