import { beforeEach, expect, it, vi } from 'vitest'
import * as client from './client'
import { newTake } from './logEntries'
import { SetPage } from './set.svelte'
import type { SetSeen } from './types'

vi.mock('./client')
vi.mock('./reconnect', () => ({ there: async () => true, whenBack: () => () => {} }))

const dayOf = (day: string, takes: unknown[] = []): SetSeen =>
  ({
    day: {
      day,
      days: [],
      shots: [],
      takes,
      cameras: [],
      bodies: [],
      adapters: [],
      picture: { aspect: null, long_edge_px: null },
    },
    checks: [],
  }) as never

/** Answers that come when the test says so, in the order of the questions. */
function questions() {
  const asked: { day: string | undefined; answer: (seen: SetSeen) => void }[] = []
  vi.mocked(client.readSet).mockImplementation(
    (_, day) => new Promise((done) => asked.push({ day, answer: (data) => done({ data }) })) as never,
  )
  return asked
}
const soon = () => new Promise((done) => setTimeout(done, 0))

beforeEach(() => {
  vi.mocked(client.holdAgainstPlan).mockResolvedValue({ data: undefined } as never)
})

it('passes over a day that is answered after a later question', async () => {
  const page = new SetPage(1)
  const asked = questions()
  const first = page.load('1')
  const second = page.load('2')
  asked[1]?.answer(dayOf('2'))
  await second
  asked[0]?.answer(dayOf('1'))
  await first
  expect(page.seen?.day.day).toBe('2')
  page.close()
})

it('asks for the day that was picked, and not for the one before, when an entry arrives meanwhile', async () => {
  const page = new SetPage(1)
  const asked = questions()
  const first = page.load('1')
  asked[0]?.answer(dayOf('1'))
  await first
  const picked = page.load('2')
  void page.load()
  expect(asked.map((each) => each.day)).toEqual(['1', '2', '2'])
  asked[1]?.answer(dayOf('2'))
  await soon()
  // Whoever waits for the day waits for the newest answer.
  expect(page.seen?.day.day).toBe('1')
  asked[2]?.answer(dayOf('2'))
  await picked
  expect(page.seen?.day.day).toBe('2')
  page.close()
})

it('shows a take that was undone as gone, whatever was read before', async () => {
  const page = new SetPage(1)
  const asked = questions()
  const entry = newTake({ by: '', unit: 'A', day: '1' }, { shot: 's', name: '12B' } as never, 4, {} as never)
  vi.mocked(client.writeLogEntry).mockImplementation(
    async (_, written, basedOn) => ({ data: { revision: basedOn + 1, entry: written } }) as never,
  )
  void page.load('1')
  asked[0]?.answer(dayOf('1'))
  await soon()
  await page.outbox.put(entry, 0)
  await soon()
  expect(page.takes.map((take) => take.entry.take)).toEqual([4])
  const take = page.takes[0]
  if (take) page.correct(take, { removed: true })
  await soon()
  expect(page.takes).toEqual([])
  // What was read while the take was there is answered late.
  asked[1]?.answer(dayOf('1', [{ entry, revision: 1, clock: '', before: [], double: '' }]))
  await soon()
  expect(page.takes).toEqual([])
  page.close()
})
