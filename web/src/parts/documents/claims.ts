/** Small helpers for the entry of claims. */
import type { BodyDocument, BodySheet, ClaimVerdict } from '../../lib/types'
export const CLAIM_ASPECTS: { label: string; aspect: [number, number] }[] = [
  { label: '16:9', aspect: [16, 9] },
  { label: '17:9', aspect: [17, 9] },
  { label: '3:2', aspect: [3, 2] },
  { label: '4:3', aspect: [4, 3] },
  { label: '239:100', aspect: [239, 100] },
]

/** What a factor can be said to be measured against. */
export const CLAIM_BASES = [
  { value: 'super35', label: 'Super 35' },
  { value: 'full_frame', label: 'full frame' },
  { value: 'sensor', label: 'its own full sensor' },
] as const

/** To how many decimals a figure was typed: that is how exactly it is claimed. */
export function decimalsOf(value: unknown): number {
  const digits = String(value).split('.')[1]?.length ?? 0
  return Math.min(digits, 6)
}

/** What every list of claims is given. */
export interface ClaimProps {
  document: BodyDocument
  checked: BodySheet['claims'] | undefined
  fault: (path: string) => string | undefined
  onset: (path: string, value: unknown) => void
}

/** What the lists of claims are, and what their buttons say. */
export const CLAIM_LISTS = {
  crops: { field: 'crops', heading: 'Crop factors that are claimed', add: 'Add a crop factor' },
  tapes: { field: 'tapes', heading: 'Measured with a tape', add: 'Add a measurement' },
  speeds: { field: 'speeds', heading: 'Rates that are stated', add: 'Add a stated rate' },
  pixels: { field: 'pixels', heading: 'Pixel counts', add: 'Add a pixel count' },
} as const

/** How a claim is judged: its look, and its words. */
export const CLAIM_VERDICTS: Record<ClaimVerdict, { look: 'ok' | 'warn' | 'bad'; words: string }> = {
  holds: { look: 'ok', words: '✓ holds' },
  near: { look: 'warn', words: '≈ nearly' },
  basis: { look: 'warn', words: '≈ by another basis only' },
  elsewhere: { look: 'bad', words: '✗ another body' },
  fails: { look: 'bad', words: '✗ does not hold' },
  coarse: { look: 'warn', words: '? too coarse' },
  unknown: { look: 'warn', words: '? not known' },
}

/** What a field of a claim is given. */
export const claimCell =
  (fault: (path: string) => string | undefined, onset: (path: string, value: unknown) => void) =>
  (path: string, label: string) => ({
    label,
    fault: fault(`claims.${path}`),
    oninput: (value: unknown) => onset(`claims.${path}`, value),
  })

/** The answer to a claim, by its key. */
export const answerTo = <T extends { key: string }>(
  list: readonly T[] | undefined,
  key: string | undefined,
) => list?.find((claim) => claim.key === key)

export const withoutAt = <T>(list: readonly T[], at: number) => list.filter((_, i) => i !== at)
