/** Rules that are broken, by the path of the field; what is no fault of input gives none. */
import type { Problem } from './types'

export type Faults = Readonly<Record<string, string>>

export function faultsOf(problem: Problem | null | undefined, prefix = ''): Faults {
  if (problem?.code !== 'invalid_input' && problem?.code !== 'inconsistent') return {}
  return Object.fromEntries(
    problem.faults.map(({ field, rule }) => [
      field.startsWith(prefix) ? field.slice(prefix.length) : field,
      rule,
    ]),
  )
}
