/** The six links, in the order in which the light passes them. */
export const LINKS = ['subject', 'lens', 'adapter', 'readout', 'recording', 'delivery'] as const
export type LinkName = (typeof LINKS)[number]

export const TITLES: Record<LinkName, string> = {
  subject: 'Subject',
  lens: 'Lens',
  adapter: 'Adapter',
  readout: 'Readout',
  recording: 'Recording',
  delivery: 'Delivery',
}

/** Screen aspects that are delivered; null is the recording's own. */
export const ASPECTS: { label: string; aspect: number | null }[] = [
  { label: 'as recorded', aspect: null },
  { label: '2.39:1', aspect: 2.39 },
  { label: '2:1', aspect: 2 },
  { label: '1.85:1', aspect: 1.85 },
  { label: '16:9', aspect: 16 / 9 },
  { label: '3:2', aspect: 1.5 },
  { label: '4:3', aspect: 4 / 3 },
  { label: '1:1', aspect: 1 },
  { label: '4:5', aspect: 0.8 },
  { label: '9:16', aspect: 9 / 16 },
]
export const LONG_EDGES = [1280, 1920, 2048, 3840, 4096, 7680]

export function aspectLabel(aspect: number | null | undefined): string {
  if (aspect == null) return 'as recorded'
  return (
    ASPECTS.find((a) => a.aspect !== null && Math.abs(a.aspect - aspect) < 1e-6)?.label ??
    `${aspect.toFixed(3)}:1`
  )
}
