/** The keys of Compare. */
import type { Shortcut } from './shortcuts'
import type { ComparisonDocument } from './types'

const CASES = [
  ['as_set', 'As set'],
  ['same_place', 'Same lens, same place'],
  ['moved', 'Same framing, by moving'],
  ['other_lens', 'Same framing, by another lens'],
] as const

export function compareKeys(
  show: (name: ComparisonDocument['case']) => void,
  matchAll: () => void,
): Shortcut[] {
  const cases = CASES.map(([name, does], i) => ({
    keys: String(i + 1),
    on: [String(i + 1)],
    does,
    run: () => show(name),
  }))
  return [...cases, { keys: 'm', on: ['m'], does: 'Match all to the master', run: matchAll }]
}
