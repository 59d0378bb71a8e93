import { beforeEach, expect, it, vi } from 'vitest'
import * as client from './client'
import { newTake } from './logEntries'
import { SetPage } from './set.svelte'
import type { LogEntry, SetSeen } from './types'

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

const SHOTS = ['s', 't'].map((shot) => ({
  shot,
  name: shot,
  unit: 'A',
  picture: {},
  on: { lens: '35', stop: 2.8, focus_m: 4 },
}))
async function atWork() {
  const page = new SetPage(7)
  const sent: LogEntry[] = []
  vi.mocked(client.readSet).mockImplementation(async (_, day) => {
    const seen = dayOf(day ?? '1')
    const last = sent.findLast((entry) => !sent.some((other) => other.key === entry.key && other.removed))
    const cameras = last && 'on' in last ? [{ unit: 'A', on: last.on, shot: last.shot }] : []
    return { data: { ...seen, day: { ...seen.day, shots: SHOTS, cameras } } } as never
  })
  vi.mocked(client.readSetSettings).mockResolvedValue({} as never)
  vi.mocked(client.writeLogEntry).mockImplementation(async (_, entry, basedOn) => {
    sent.push(entry)
    return { data: { revision: basedOn + 1, entry } } as never
  })
  await page.open({ day: '1', unit: 'A', shot: 's' })
  return { page, sent }
}

it('keeps what was put on over a reload, and logs it once the hand rests', async () => {
  localStorage.clear()
  const first = await atWork()
  first.page.set({ lens: '50', focus_m: 2.5 })
  // The page goes away without a word, and comes back before the hand has rested.
  const kept = localStorage.getItem('hextan.set.7')
  const again = await atWork()
  expect(kept).toContain('"lens":"50"')
  expect([again.page.on.lens, again.page.on.focus_m]).toEqual(['50', 2.5])
  vi.useFakeTimers()
  again.page.set({ stop: 4 })
  await vi.advanceTimersByTimeAsync(2000)
  vi.useRealTimers()
  await soon()
  expect(
    again.sent.map((entry) => [entry.kind, 'on' in entry && entry.on.lens, 'shot' in entry && entry.shot]),
  ).toEqual([['booking', '50', 's']])
  expect([again.page.on.lens, again.page.on.stop]).toEqual(['50', 4])
  again.page.takeBack()
  await soon()
  expect(again.sent.at(-1)).toMatchObject({ kind: 'booking', removed: true })
  first.page.close()
  again.page.close()
})

it('asks once for a new shot whether the camera is as it was, and carries no focus', async () => {
  localStorage.clear()
  const { page, sent } = await atWork()
  page.set({ lens: '50', focus_m: 2.5 })
  // Going on to the next shot logs what was put on for this one.
  page.choose('t')
  await soon()
  expect(sent).toHaveLength(1)
  expect([page.on.lens, page.on.focus_m]).toEqual(['35', 4])
  expect(page.asItWas?.lens).toBe('50')
  page.stillAsItWas()
  expect([page.on.lens, page.on.focus_m, page.asItWas]).toEqual(['50', 4, null])
  page.logTake()
  await soon()
  expect(sent.at(-1)).toMatchObject({ kind: 'take', shot: 't', on: { lens: '50', focus_m: 4 } })
  page.close()
})

it('books what is put on for the day and shot of its own, whatever day is looked at next', async () => {
  localStorage.clear()
  const { page, sent } = await atWork()
  page.set({ lens: '50' })
  await page.load('2')
  page.choose(null)
  await soon()
  expect(sent.map((entry) => [entry.day, 'shot' in entry && entry.shot])).toEqual([['1', 's']])
  // What was put on elsewhere is not taken back from here.
  expect(page.booked).toBeNull()
  page.close()
})
