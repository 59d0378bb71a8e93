/** What the format finder is asked, and how it stands in the address bar. */
import type { FinderAsk } from './types'

/** The requirements that are a number to be reached. */
export type NumberWish = 'oversampling' | 'bits' | 'angle_deg' | 'reframe_percent' | 'levelling_deg'
export type PlainWish = 'full_read' | 'raw' | 'covers'
export type WishName = NumberWish | PlainWish | 'rate' | 'delivery' | 'card_minutes'

/** The requirements that are a number, with what they begin at. */
export const NUMBERS: { name: NumberWish; label: string; unit: string; first: number }[] = [
  { name: 'oversampling', label: 'At least', unit: 'samples for each pixel', first: 1 },
  { name: 'bits', label: 'At least', unit: 'bits', first: 10 },
  { name: 'angle_deg', label: 'Angle of view at least', unit: '°', first: 40 },
  { name: 'reframe_percent', label: 'At least', unit: '% to re-frame', first: 10 },
  { name: 'levelling_deg', label: 'At least', unit: '° of levelling', first: 2 },
]
/** Those that are met or not. */
export const PLAIN: { name: PlainWish; label: string }[] = [
  { name: 'full_read', label: 'Every photosite read' },
  { name: 'raw', label: 'Raw' },
  { name: 'covers', label: 'The lens covers' },
]

export function toAddress(ask: FinderAsk): string {
  const given = Object.fromEntries(Object.entries(ask).filter(([, wish]) => wish != null))
  return new URLSearchParams({ ask: JSON.stringify(given) }).toString()
}

export function fromAddress(search: string): FinderAsk | null {
  try {
    const ask: unknown = JSON.parse(new URLSearchParams(search).get('ask') ?? 'null')
    if (typeof ask !== 'object' || ask === null || Array.isArray(ask)) return null
    // What a link leaves out is as the server takes it: a must, of weight one.
    const whole = Object.entries(ask as Record<string, unknown>).map(([name, wish]) => [
      name,
      name === 'lens' || typeof wish !== 'object' || wish === null
        ? wish
        : { must: true, weight: 1, ...wish },
    ])
    return Object.fromEntries(whole) as FinderAsk
  } catch {
    return null
  }
}
