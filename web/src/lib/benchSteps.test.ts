import { expect, it, vi } from 'vitest'
import {
  nextReference,
  stepFormat,
  stepLens,
  stepStop,
  stepSubject,
  togglePin,
  type Stepped,
} from './benchSteps'
import type { Reference } from './reference'
import type { BenchState, BenchView, Lens } from './types'

const HOUSE: Reference = { name: 'super35', by: 'width', own: null, scan_mode_id: null }

function bench(state: Partial<BenchState> = {}, view: object | null = {}) {
  const whole = { lens_id: 2, format_id: 1, pinned: [], subject_m: 3, unit: 'm', reference: { name: 'super35', by: 'width' }, ...state }
  const rows = [1, 2, 3].map((id) => ({ format_id: id, shown: id !== 2 }))
  return {
    state: whole as unknown as BenchState,
    house: HOUSE,
    view: view && ({ lens: { stop: 2.8, stops: [2, 2.8, 4] }, rows, ...view } as unknown as BenchView),
    lenses: [1, 2, 3].map((id) => ({ id }) as Lens),
    change: vi.fn(),
  } satisfies Stepped
} // prettier-ignore

it.each<[string, (b: Stepped) => void, object]>([
  ['the next lens, with its own focal length', (b) => stepLens(b, 1), { lens_id: 3, focal_mm: null }],
  ['the lens before', (b) => stepLens(b, -1), { lens_id: 1, focal_mm: null }],
  ['the next mark', (b) => stepStop(b, 1), { stop: 4 }],
  ['the next format that is shown', (b) => stepFormat(b, 1), { format_id: 3 }],
  ['5 cm nearer', (b) => stepSubject(b, -1), { subject_m: 2.95 }],
  ['a pin', togglePin, { pinned: [1] }],
  [
    'the other reference',
    nextReference,
    { reference: { name: 'full_frame', by: 'width', own: null, scan_mode_id: null } },
  ],
])('takes %s', (_, step, part) => {
  const here = bench()
  step(here)
  expect(here.change.mock.lastCall?.[0]).toEqual(part)
})

it('stays at the ends, and does nothing before there is an answer', () => {
  const last = bench({ lens_id: 3 })
  stepLens(last, 1)
  expect(last.change.mock.lastCall?.[0]).toEqual({ lens_id: 3, focal_mm: null })
  const waiting = bench({}, null)
  stepStop(waiting, 1)
  stepFormat(waiting, 1)
  expect(waiting.change).not.toHaveBeenCalled()
})

it('keeps four pins, the newest ones, and takes one off again', () => {
  const full = bench({ pinned: [5, 6, 7, 8] })
  togglePin(full)
  expect(full.change).toHaveBeenLastCalledWith({ pinned: [6, 7, 8, 1] })
  const pinned = bench({ pinned: [1, 5] })
  togglePin(pinned)
  expect(pinned.change).toHaveBeenLastCalledWith({ pinned: [5] })
})
