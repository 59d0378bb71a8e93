/** How an axis of the sensor is sampled, as one choice: full, binned by 2, one in 3. */
import type { ModeDocument } from '../../lib/types'

type Method = NonNullable<ModeDocument['methods']>[number]

export interface SamplingChoice {
  label: string
  step: number
  method: Method
}

const FULL: SamplingChoice = { label: 'full', step: 1, method: 'full' }

export function samplingChoice(step: number, method: Method): SamplingChoice {
  if (method === 'full') return FULL
  return { label: method === 'binned' ? `binned ${step}` : `1 in ${step}`, step, method }
}

export const SAMPLINGS: SamplingChoice[] = [
  FULL,
  ...[2, 3, 4].map((step) => samplingChoice(step, 'binned')),
  ...[2, 3, 4, 5].map((step) => samplingChoice(step, 'skipped')),
]
