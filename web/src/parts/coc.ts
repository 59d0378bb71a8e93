/** The rules for the circle of confusion that the header offers. */
import type { BenchState } from '../lib/types'

type Coc = NonNullable<BenchState['coc']>

export const COC_CHOICES: { label: string; coc: Coc }[] = [
  { label: 'diagonal / 1500', coc: { rule: 'picture_diagonal', divisor: 1500 } },
  { label: 'diagonal / 1730', coc: { rule: 'picture_diagonal', divisor: 1730 } },
  { label: '0.025 mm', coc: { rule: 'fixed', mm: 0.025 } },
  { label: '0.0254 mm (0.001 in)', coc: { rule: 'fixed', mm: 0.0254 } },
  { label: '0.013 mm', coc: { rule: 'fixed', mm: 0.013 } },
  { label: '0.0127 mm (0.0005 in)', coc: { rule: 'fixed', mm: 0.0127 } },
  { label: '2 photosites', coc: { rule: 'photosite', factor: 2 } },
  { label: '1 delivered pixel', coc: { rule: 'pixel', factor: 1 } },
  { label: 'the eye, 3 picture heights', coc: { rule: 'eye', arcmin: 1, picture_heights: 3 } },
]

const key = (coc: Coc) => JSON.stringify(Object.entries(coc).toSorted(([a], [b]) => a.localeCompare(b)))

/** The label of a rule; a rule that is not offered is described by its name. */
export function cocChoice(coc: Coc): string {
  return COC_CHOICES.find((choice) => key(choice.coc) === key(coc))?.label ?? `${coc.rule}, own figures`
}
