/** Stretches of a text that was read: where they stand, and what a taken meaning makes of the text. */
import type { Span } from './types'

/** What is spoken of, in the order of the legend, with its name. */
export const GROUPS: readonly { group: Span['group']; label: string }[] = [
  { group: 'lens', label: 'lens' },
  { group: 'readout', label: 'readout' },
  { group: 'recording', label: 'recording' },
  { group: 'rate', label: 'rate' },
  { group: 'crop', label: 'crop' },
  { group: 'light', label: 'light' },
  { group: 'unused', label: 'not used' },
]

/** The text with a stretch replaced; its characters are counted as the server counts them, whole signs. */
export function replaced(text: string, span: Pick<Span, 'start' | 'end'>, by: string): string {
  const signs = Array.from(text)
  return [...signs.slice(0, span.start), by, ...signs.slice(span.end)].join('')
}

/** What has to be answered before anything is kept. */
export const asked = (spans: readonly Span[]): Span[] => spans.filter((span) => span.asked)

/** The groups that a text speaks of, for its legend. */
export const groupsIn = (spans: readonly Span[]) =>
  GROUPS.filter(({ group }) => spans.some((span) => span.group === group))
