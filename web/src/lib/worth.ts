/** What a look is worth: the shot that is asked about, in as few cells as it has. */
import { BLANK } from './shotList'
import { money } from './packing'
import type { Shot, WorthAsk, WorthRow } from './types'

/** The cells that the page shows by themselves, each with what could stand there. */
export const CELLS = [
  { name: 'framing', title: 'Framing', like: 'waist, 1.9 m wide, like 50' },
  { name: 'distance', title: 'Distance', like: '3 m, 2-4 m' },
  { name: 'room', title: 'Room', like: '3.2 m' },
  { name: 'look', title: 'Look', like: '2x, spherical' },
  { name: 'stop', title: 'Stop', like: 'T2.8' },
] as const satisfies readonly { name: keyof Shot; title: string; like: string }[]

/** What changes nothing about which choices there are. */
const ASIDE = ['pin', 'notes', 'extra', 'origins']
type Asked = WorthAsk['shot']

/** A shot without what it leaves empty, its pin and its number in the list: it stands in the address. */
export function bare(shot: Shot): Asked {
  const said = Object.entries(shot).filter(
    ([name, value]) =>
      !ASIDE.includes(name) && JSON.stringify(value) !== JSON.stringify(BLANK[name as keyof Shot]),
  )
  return { name: shot.name, ...Object.fromEntries(said) } as Asked
}

/** A question of nobody's list. */
export const ownShot = (cells: Partial<Shot> = {}): Asked => ({ name: 'own', ...cells }) as Asked

/** Whether a shot of the list is asked about as it stands there. */
export const asInList = (asked: Asked, shot: Shot): boolean =>
  JSON.stringify(sorted(asked)) === JSON.stringify(sorted(bare(shot)))

const sorted = (row: object) => Object.entries(row).sort(([a], [b]) => (a < b ? -1 : 1))

/** What has to be paid for a choice, in words, and how that looks. */
export const HAVE = {
  own: { words: 'owned', look: 'ok' },
  planned: { words: 'in the plan', look: 'ok' },
  hire: { words: 'hire', look: '' },
  buy: { words: 'buy', look: '' },
  unknown: { words: 'no price', look: 'soft' },
} as const

/** The lens of a choice; a zoom with its setting. */
export const lensWords = ({ choice }: WorthRow): string =>
  choice.is_zoom ? `${choice.lens_told} at ${choice.focal_mm.toFixed(0)}` : choice.lens_told

/** A thing of a choice, with what has to be paid for it. */
export const thingWords = (thing: WorthRow['things'][number], currency: string): string =>
  [
    `${thing.name}: ${HAVE[thing.have].words}${thing.cost ? ` ${money(thing.cost, currency)}` : ''}`,
    ...(thing.pays_after === null ? [] : [`buying pays from day ${thing.pays_after}`]),
  ].join(', ')

export const BY = [
  { value: 'blur', label: 'blur' },
  { value: 'field', label: 'field' },
  { value: 'weight', label: 'weight' },
  { value: 'price', label: 'price' },
] as const
