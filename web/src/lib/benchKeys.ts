/** The Bench's keys. */
import {
  nextReference,
  stepFormat,
  stepLens,
  stepStop,
  stepSubject,
  togglePin,
  type Stepped,
} from './benchSteps'
import { BENCH_TABS, type BenchTab } from './benchTabs'
import type { Shortcut } from './shortcuts'

export interface BenchActs {
  /** The Bench as it is when a key is pressed. */
  now: () => Stepped
  derive: () => void
  show: (tab: BenchTab) => void
  keep: () => void
}

export function benchKeys({ now, derive, show, keep }: BenchActs): Shortcut[] {
  const unit = () => now().change({ unit: now().state.unit === 'm' ? 'ft' : 'm' })
  return [
    { keys: 'x', on: ['x'], does: 'Previous lens of the kit', run: () => stepLens(now(), -1) },
    { keys: 'c', on: ['c'], does: 'Next lens of the kit', run: () => stepLens(now(), 1) },
    { keys: 'v', on: ['v'], does: 'Open up by a mark', run: () => stepStop(now(), -1) },
    { keys: 'b', on: ['b'], does: 'Stop down by a mark', run: () => stepStop(now(), 1) },
    { keys: 'w', on: ['w'], does: 'Subject farther', run: () => stepSubject(now(), 1) },
    { keys: 's', on: ['s'], does: 'Subject nearer', run: () => stepSubject(now(), -1) },
    { keys: 'd', on: ['d'], does: 'Type the subject distance', run: () => document.getElementById('subject-distance')?.focus() },
    { keys: 'e', on: ['e'], does: 'Previous recording format of the ladder', run: () => stepFormat(now(), -1) },
    { keys: 'r', on: ['r'], does: 'Next recording format of the ladder', run: () => stepFormat(now(), 1) },
    { keys: 'p', on: ['p'], does: 'Pin the recording format, or take the pin off', run: () => togglePin(now()) },
    { keys: 'h', on: ['h'], does: 'How the chosen row is computed', run: derive },
    ...BENCH_TABS.map(({ value, label }, i) => ({
      keys: String(i + 1),
      on: [String(i + 1)],
      does: `Below the drawings: ${label}`,
      run: () => show(value),
    })),
    { keys: 'k', on: ['k'], does: 'Keep this Bench as a shot', run: keep },
    { keys: 'g', on: ['g'], does: 'Reference: Super 35 or full frame', run: () => nextReference(now()) },
    { keys: 'u', on: ['u'], does: 'Metres or feet', run: unit },
  ] // prettier-ignore
}

/** Keys that a part of the Bench answers to by itself. */
export const KEYS_IN_PARTS = [
  {
    keys: '↑ ↓ PgUp PgDn',
    does: 'In a distance, and on subject, focus or a thing in the plan view: 5 cm or an inch, or ten of them',
  },
  { keys: '↑ ↓ Home End', does: 'In the ladder: choose a row. Enter shows how it is computed, p pins it' },
]
