import { expect, it } from 'vitest'
import { announced, type Announced } from './announced'

function bench(state: object, notes: string[] = [], row: object = {}): Announced {
  const answer = {
    subject_distance_m: 3.2,
    effective_focal_mm: 39.3,
    depth: { near_m: 2.97, far_m: 3.46, total_m: 0.49 },
    ...row,
  }
  return {
    state: { lens_id: 1, format_id: 5, stop: 2.1, subject_m: 3.2, focus_m: null, unit: 'm', fps: 25, ...state },
    view: {
      lens: { marks: 'T', notes: notes.map((text) => ({ text })) },
      rows: [{ format_id: 5, answer }],
    },
    lens: { name: 'Wren 40' },
    place: { format: { name: 'S35 → UHD' } },
  } as unknown as Announced // prettier-ignore
}

it('tells what was set, the effective focal length, near and far', () =>
  expect(announced(bench({ stop: 2.8 }), bench({}))).toMatch(
    /^T2\.1, frames like 39\.3 mm, in focus 2\.97 m to 3\.4\d m\.$/,
  ))

it('tells a warning once, when it comes', () => {
  const before = bench({ lens_id: 2 }, ['Test this.'])
  expect(announced(before, bench({}, ['Test this.', 'Dark corners.']))).toMatch(
    /^Wren 40, .*\. Dark corners\.$/,
  )
})

it('is silent at the beginning, and about what is only looked at', () => {
  expect(announced(null, bench({}))).toBe('')
  expect(announced(bench({ pinned: [1] }), bench({ pinned: [] }))).toBe('')
})
