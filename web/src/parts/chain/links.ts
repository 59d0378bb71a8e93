import { withChosen, type Option } from '../../lib/options'

/** The six links, in the order in which the light passes them. */
export const LINKS = ['subject', 'lens', 'adapter', 'readout', 'recording', 'delivery'] as const
export type LinkName = (typeof LINKS)[number]

/** What the six are together. */
export const PATH = 'The six links of the light’s path'

export const TITLES: Record<LinkName, string> = {
  subject: 'Subject',
  lens: 'Lens',
  adapter: 'Adapter',
  readout: 'Readout',
  recording: 'Recording',
  delivery: 'Delivery',
}

/** Screen aspects that are delivered; null is the recording's own. */
const ASPECTS: readonly Option<number | null>[] = [
  { label: 'as recorded', value: null },
  { label: '2.39:1', value: 2.39 },
  { label: '2:1', value: 2 },
  { label: '1.85:1', value: 1.85 },
  { label: '16:9', value: 16 / 9 },
  { label: '3:2', value: 1.5 },
  { label: '4:3', value: 4 / 3 },
  { label: '1:1', value: 1 },
  { label: '4:5', value: 0.8 },
  { label: '9:16', value: 9 / 16 },
]
export const LONG_EDGES = [1280, 1920, 2048, 3840, 4096, 7680]

const near = (a: number | null, b: number | null) =>
  a === b || (a !== null && b !== null && Math.abs(a - b) < 1e-6)

/** The aspects that are delivered, with the one that is set. */
export function aspectOptions(aspect: number | null | undefined): Option<number | null>[] {
  const set = aspect ?? null
  const known = ASPECTS.map((option) => (near(option.value, set) ? { ...option, value: set } : option))
  return withChosen(known, set, aspectLabel(set))
}

export function aspectLabel(aspect: number | null | undefined): string {
  if (aspect == null) return 'as recorded'
  return ASPECTS.find((a) => near(a.value, aspect))?.label ?? `${aspect.toFixed(3)}:1`
}
