/** The rules for the circle of confusion that the header offers. */
import { SHARP } from '../../lib/generated/choices'
import { withChosen, wordOptions, type Option } from '../../lib/options'
import type { BenchState } from '../../lib/types'

type Coc = NonNullable<BenchState['coc']>

const COC_CHOICES: readonly { label: string; coc: Coc }[] = SHARP

const key = (coc: Coc) => JSON.stringify(Object.entries(coc).toSorted(([a], [b]) => a.localeCompare(b)))

/** The label of a rule; a rule that is not offered is described by its name. */
export function cocChoice(coc: Coc): string {
  return COC_CHOICES.find((choice) => key(choice.coc) === key(coc))?.label ?? `${coc.rule}, own figures`
}

/** The production's rule (null), the rules that are offered, and the one that is set. */
export function cocOptions(coc: Coc | null): Option<string | null>[] {
  const offered = [
    { value: null, label: "the production's rule" },
    ...wordOptions(COC_CHOICES.map((c) => c.label)),
  ]
  return coc === null ? offered : withChosen<string | null>(offered, cocChoice(coc), cocChoice(coc))
}

/** The rule behind what was chosen; null is the production's. */
export const cocOf = (label: string | null): Coc | null =>
  COC_CHOICES.find((choice) => choice.label === label)?.coc ?? null
