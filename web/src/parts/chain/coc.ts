/** The rules for the circle of confusion that the header offers. */
import { SHARP } from '../../lib/generated/choices'
import type { BenchState } from '../../lib/types'

type Coc = NonNullable<BenchState['coc']>

export const COC_CHOICES: readonly { label: string; coc: Coc }[] = SHARP

const key = (coc: Coc) => JSON.stringify(Object.entries(coc).toSorted(([a], [b]) => a.localeCompare(b)))

/** The label of a rule; a rule that is not offered is described by its name. */
export function cocChoice(coc: Coc): string {
  return COC_CHOICES.find((choice) => key(choice.coc) === key(coc))?.label ?? `${coc.rule}, own figures`
}
