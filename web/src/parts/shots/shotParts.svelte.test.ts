import { cleanup, render, screen } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { createRawSnippet } from 'svelte'
import { afterEach, expect, it, vi } from 'vitest'
import { byKey, newShot, NO_FILTER } from '../../lib/shotList'
import type { ListedAnswer, Shot, ShotAnswer, ShotChoice } from '../../lib/types'
import { textOf } from '../grid/columns'
import DayRuns from './DayRuns.svelte'
import { shotColumns } from './shotColumns'
import ListUses from './ListUses.svelte'
import ShotDetail from './ShotDetail.svelte'
import ShotFilters from './ShotFilters.svelte'

afterEach(cleanup)

const choice: ShotChoice = {
  format_id: 1, format: 'S16 → HD', mode: 'S16', body: 'Ebb 64', lens_id: 1, lens: 'Reach 19–92', lens_set: 'Reach', lens_told: 'Reach 19–92', adapter_ids: [2],
  adapters: ['plain'], focal_mm: 29.4, is_zoom: true, effective_mm: 57, distance_m: 2.9, focus_m: null, stop: 4, marks: 'T', fps: 100,
  shutter_deg: 180, ei: 400, nd_stops: 0, nd_parts: [], over_stops: 0, crop_ids: [], field_width_m: 1.2, field_height_m: 0.5, percent: 8,
} // prettier-ignore
const answer: ShotAnswer = {
  key: 'a', verdict: 'nearly', plan: { state: 'otherwise', told: 'The plan has nothing for it.', planned: '', not_carried: [] }, provided: ['Wren 40 covers: no image circle is stated'], off_main: 'Off the main format, UHD of Full, Skerry: 200 fps progressive: 60 fps at most (with 40).', faults: [], best: choice, binds: 'chest: 8 % wider', reasons: [
    { name: 'framing', wanted: 'chest', has: '8 % wider', met: false, must: true }],
  runner_up: null, runner_up_lacks: '', changes: [], warnings: [{ code: 'keep_out', text: 'Keep-out of 2.50 m' }],
  pinned: null, noted: { verdict: 'nearly', told: '', asked: '' },
} // prettier-ignore
const listed: ListedAnswer = { ...answer, tag: 'a1' }
const shot: Shot = {
  ...newShot([], undefined),
  key: 'a',
  name: '15C',
  what: 'rower',
  framing: 'chest',
  speed: '4x slow',
  wishes: { speed: 2 },
}

it('cells say what is needed and what is answered', () => {
  const columns = shotColumns(() => byKey([listed]), true, 'm', 'full frame', false)
  const said = Object.fromEntries(columns.map((column) => [column.title, textOf(column, shot)]))
  expect(said).toMatchObject({
    Speed: '4x slow (wish)', Lens: 'Reach 19–92 at 29', Stop: 'T4', Like: '57.0', From: '2.90 m', Format: 'S16 → HD, Ebb 64', Verdict: '≈ nearly',
  }) // prettier-ignore
  expect(
    shotColumns(() => byKey([listed]), true, 'm', 'full frame', true).map((column) => column.title),
  ).toContain('Keep-out')
})

it('the detail turns a must into a wish, keeps the choice and asks the catalogue', async () => {
  const onwish = vi.fn()
  const onpin = vi.fn()
  const onrent = vi.fn()
  const ways = createRawSnippet(() => ({ render: () => '<button>Open on the Bench</button>' }))
  const onapply = vi.fn()
  const edit = {
    kind: 'distance',
    field: 'distance',
    from: '3 m',
    to: '2.78 m',
    body: '',
    lens: '',
    lens_set: '',
  } as const
  const filter = { ...edit, kind: 'filter', field: '', to: 'ND 0.6' } as const
  const changes = [
    { edits: [edit], text: '0.22 m nearer', cost: 1.4, body: '', format: '', lens: '' },
    { edits: [filter], text: 'an ND 0.6 more', cost: 1.2, body: '', format: '', lens: '' },
  ]
  render(ShotDetail, {
    shot,
    against: 'full frame',
    answer: listed,
    whole: answer,
    view: undefined,
    unit: 'm',
    changes,
    onapply,
    rented: null,
    onwish,
    onpin,
    onrent,
    ways,
  })
  expect(screen.getByText('0.22 m nearer')).toBeTruthy()
  // What is a cell of the shot is taken by a press; a filter has to be packed.
  await userEvent.click(screen.getByRole('button', { name: 'Apply' }))
  expect(onapply).toHaveBeenLastCalledWith({ distance: '2.78 m' })
  expect(screen.getByText('Keep-out of 2.50 m')).toBeTruthy()
  expect(screen.getByText('Wren 40 covers: no image circle is stated')).toBeTruthy()
  expect(screen.getByText(/200 fps progressive: 60 fps at most/)).toBeTruthy()
  expect(screen.getByText(/on\s+full frame/)).toBeTruthy()
  await userEvent.click(screen.getByRole('checkbox', { name: /Framing/ }))
  expect(onwish).toHaveBeenLastCalledWith('framing', 1)
  await userEvent.selectOptions(screen.getByLabelText('Weight of Speed'), '3')
  expect(onwish).toHaveBeenLastCalledWith('speed', 3)
  await userEvent.click(screen.getByRole('checkbox', { name: /Speed/ }))
  expect(onwish).toHaveBeenLastCalledWith('speed', null)
  await userEvent.click(screen.getByRole('button', { name: 'Keep this choice' }))
  expect(onpin).toHaveBeenCalledWith(choice)
  await userEvent.click(screen.getByRole('button', { name: /rented/ }))
  expect(onrent).toHaveBeenCalledOnce()
})

it('a day tells its changes and its lenses in order', () => {
  render(DayRuns, {
    days: [{ day: '2', unit: 'A', shots: 3, lens_changes: 1, format_changes: 0, body_changes: 0,
      runs: [{ name: '50', shots: 2 }, { name: '35', shots: 1 }] }],
  }) // prettier-ignore
  expect(screen.getByText(/1 lens change · 0 format changes/)).toBeTruthy()
  expect(screen.getAllByRole('listitem').map((item) => item.textContent?.trim())).toEqual(['50 ×2', '35'])
})

it('tells what the list uses, the most used first, and how many more there are', () => {
  const uses = (n: number) => Array.from({ length: n }, (_, i) => ({ name: `Lens ${i}`, shots: n - i }))
  const sheet = {
    answers: [],
    does: 0,
    depends: 0,
    nearly: 0,
    cannot: 0,
    open: 0,
    days: [],
    changed: [],
    against: 'Super 35',
    on_main: { stay: 3, of: 4 },
    in_plan: null,
  }
  render(ListUses, { sheet: { ...sheet, lenses: uses(16), formats: uses(1), bodies: [] } })
  expect(screen.getByText('and 2 more')).toBeTruthy()
  expect(screen.getByText('3 of 4')).toBeTruthy()
  expect(screen.getAllByText('Lens 0')[0]?.textContent).toContain('×16')
})

it('filters stand as segments, and as a list where a name has spaces', async () => {
  const onchange = vi.fn()
  const shots = [
    { ...shot, day: '10', scene: 'Quay, night' },
    { ...shot, key: 'b', day: '2', scene: 'Cabin' },
  ]
  render(ShotFilters, { shots, sheet: null, filter: NO_FILTER, onchange })
  const days = screen.getByRole('radiogroup', { name: 'Day' })
  expect(days.textContent?.replace(/\s+/g, ' ').trim()).toBe('All days 2 10')
  await userEvent.selectOptions(screen.getByLabelText('Scene'), 'Quay, night')
  expect(onchange).toHaveBeenLastCalledWith({ ...NO_FILTER, scene: 'Quay, night' })
  // One camera alone needs no filter.
  expect(screen.queryByLabelText('Camera')).toBeNull()
})
