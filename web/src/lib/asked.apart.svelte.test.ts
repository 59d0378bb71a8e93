import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Asking } from './asking.svelte'
import * as client from './client'
import { ClipReader } from './clips.svelte'
import { KitSearch } from './packing.svelte'
import { Printing, SheetPreview, SheetStates } from './sheets.svelte'
import { ShotsEditor, ShownShots } from './shots.svelte'
import type { Asked, Packing, PrintSeen, SearchSeen, SheetPlan, SheetSeen, Shot, ShotList } from './types'

vi.mock('./client', () => ({
  ask: vi.fn(), beginPrint: vi.fn(), beginSearch: vi.fn(), listClips: vi.fn(), readClipHead: vi.fn(), seePrint: vi.fn(),
  seeSavedSheet: vi.fn(), seeSearch: vi.fn(), stopPrint: vi.fn(), stopSearch: vi.fn(), viewSheet: vi.fn(), listShots: vi.fn(),
  writeShots: vi.fn(),
})) // prettier-ignore
const server = vi.mocked(client)
const refusal = (code: string, message = 'no') => ({ problem: { code, message, faults: [] } })
const later = (ms = 5000) => vi.advanceTimersByTimeAsync(ms)

beforeEach(() => {
  vi.useFakeTimers()
  vi.resetAllMocks()
  sessionStorage.clear()
})
afterEach(() => vi.useRealTimers())

describe('a search for a kit', () => {
  const packing = {} as Packing
  const state = (name: string, kit: string | null = null) =>
    ({ name: 'k', state: name, kit, sides: null }) as unknown as SearchSeen

  it('is looked at until it is done; what was found before stays in sight meanwhile', async () => {
    const search = new KitSearch(3)
    server.beginSearch.mockResolvedValue({ data: state('running', 'first') })
    server.seeSearch.mockResolvedValueOnce({ data: state('running') })
    server.seeSearch.mockResolvedValueOnce({ data: state('done', 'best') })
    search.ask(packing, ['k'])
    await later(0)
    expect([search.seen?.kit, search.stale]).toEqual(['first', false])
    await later(1000)
    expect(search.seen?.kit).toBe('first')
    await later()
    expect([search.seen?.kit, search.seen?.state]).toEqual(['best', 'done'])
    expect(server.seeSearch).toHaveBeenCalledTimes(2)
  })

  it('drops an answer to what is no longer asked', async () => {
    const search = new KitSearch(3)
    let answer: (found: unknown) => void = () => {}
    server.beginSearch.mockReturnValueOnce(new Promise((done) => (answer = done)) as never)
    search.ask(packing, ['k'])
    await later(0)
    server.beginSearch.mockResolvedValueOnce({ data: state('done', 'second') })
    search.ask(packing, ['k'])
    await later(0)
    answer({ data: state('done', 'late') })
    await later()
    expect(search.seen?.kit).toBe('second')
  })

  it('is begun again on a server that knows nothing of it, and never after it was closed', async () => {
    const search = new KitSearch(3)
    server.beginSearch.mockResolvedValue({ data: state('running') })
    server.seeSearch.mockResolvedValue(refusal('not_found'))
    search.ask(packing, ['k'])
    await later(2000)
    const begun = server.beginSearch.mock.calls.length
    expect(begun).toBeGreaterThan(1)
    search.close()
    await later()
    expect(server.beginSearch.mock.calls.length).toBe(begun)
  })
})

describe('sheets', () => {
  const plan = (key: string, made?: string) =>
    ({
      key,
      name: key,
      kind: 'depth',
      made: made ? { at: '', fingerprint: made } : null,
    }) as unknown as SheetPlan
  const seen = (fingerprint: string, more: object = {}) => ({
    data: {
      fingerprint,
      page_count: 2,
      working: false,
      sheet: { why_empty: '' },
      ...more,
    } as unknown as SheetSeen,
  })

  it('tell what is current, what changed, what was never printed, and what is empty', async () => {
    const states = new SheetStates(3)
    const plans = [plan('same', 'a'), plan('other', 'b'), plan('new'), plan('empty')]
    server.viewSheet.mockImplementation((_, { key }) =>
      Promise.resolve(seen('a', key === 'empty' ? { sheet: { why_empty: 'no shots' } } : {})),
    )
    expect(states.of(plan('same', 'a')).words).toBe('…')
    states.want(plans)
    await later()
    expect(plans.map((each) => states.of(each).words)).toEqual([
      '✓ current',
      '≠ plan changed',
      'not printed',
      'nothing to print',
    ])
    expect(states.pages(plan('same', 'a'))).toBe(2)
  })

  it('are shown as they were saved where there is no line', async () => {
    const noted = vi.fn()
    const preview = new SheetPreview(3, noted)
    server.viewSheet.mockResolvedValue(refusal('no_answer'))
    server.seeSavedSheet.mockResolvedValue(seen('saved'))
    preview.ask(plan('a'))
    await later()
    expect([preview.seen?.fingerprint, preview.problem, preview.busy]).toEqual(['saved', null, false])
    expect(noted).toHaveBeenCalledTimes(1)
    // Neither is there: why is told.
    server.seeSavedSheet.mockResolvedValue(refusal('no_answer'))
    preview.retry()
    await later()
    expect(preview.problem?.code).toBe('no_answer')
  })

  it('turn back to the first page where the one that was open is gone', async () => {
    const preview = new SheetPreview(3, () => {})
    server.viewSheet.mockResolvedValue(seen('a'))
    preview.ask(plan('a'))
    await later()
    preview.turn(8)
    await later()
    expect(preview.first).toBe(0)
    expect(server.viewSheet).toHaveBeenLastCalledWith(3, plan('a'), 0, 4)
  })

  it('are printed: looked at until there is a file, and told once', async () => {
    const done = vi.fn()
    const printing = new Printing(3, done)
    const state = (name: string) => ({ data: { name: 'print-1', state: name } as unknown as PrintSeen })
    server.beginPrint.mockResolvedValue(state('waiting'))
    server.seePrint.mockResolvedValueOnce(state('running')).mockResolvedValueOnce(state('done'))
    void printing.print('Cart', [plan('a')])
    await later(10)
    expect(printing.busy).toBe(true)
    await later()
    expect([printing.busy, done.mock.calls.length]).toEqual([false, 1])
    server.beginPrint.mockResolvedValue(refusal('busy'))
    await printing.print('Cart', [])
    expect([printing.problem?.code, done.mock.calls.length]).toEqual(['busy', 1])
  })
})

describe('the part of the list of shots that is shown', () => {
  const shots = ['a', 'b', 'c'].map((key) => ({
    key,
    name: key.toUpperCase(),
    unit: 'A',
    place: '',
    scene: '',
    day: key === 'b' ? '2' : '1',
  }))
  const list = { shots } as unknown as ShotList

  function shown(day: string) {
    server.listShots.mockResolvedValue({ data: { answers: [] } as never })
    const editor = new ShotsEditor(3, { version: 1, document: list })
    const filter = { day, unit: '', scene: '', verdict: '' }
    return { editor, part: new ShownShots(editor, () => filter as never) }
  }

  it('finds its way into the list: a cell, and all that is shown', () => {
    const { editor, part } = shown('1')
    expect(part.rows.map((shot) => shot.key)).toEqual(['a', 'c'])
    part.set('shots[1].name', 'C2')
    expect(editor.document.shots.map((shot) => shot.name)).toEqual(['A', 'B', 'C2'])
    part.set('shots', [part.rows[1]] as Shot[])
    expect(editor.document.shots.map((shot) => shot.key)).toEqual(['c', 'b'])
    editor.undo()
    expect(editor.document.shots).toHaveLength(3)
    // A row that is not shown is not found under its place.
    part.set('shots[7].name', 'X')
    expect(editor.document.shots.map((shot) => shot.name)).toEqual(['A', 'B', 'C2'])
  })
})

describe('the answers of a list of shots', () => {
  const list = (...keys: string[]) => ({ shots: keys.map((key) => ({ key })) }) as unknown as ShotList
  const told = (key: string, tag: string) => ({ key, tag, faults: [] })

  it('come once: those that are there are named, and stay where no other comes', async () => {
    server.listShots.mockResolvedValueOnce({ data: { answers: [told('a', 'a1'), told('b', 'b1')] } as never })
    const editor = new ShotsEditor(3, { version: 1, document: list('a', 'b') })
    await vi.waitFor(() => expect(editor.answers.get('b')?.tag).toBe('b1'))
    server.listShots.mockResolvedValueOnce({ data: { answers: [told('b', 'b2')] } as never })
    editor.change(list('b', 'a'))
    await vi.waitFor(() => expect(editor.answers.get('b')?.tag).toBe('b2'))
    expect(server.listShots.mock.lastCall?.[2]).toEqual({ a: 'a1', b: 'b1' })
    // In the order of the shots, and none of a shot that is gone.
    expect(editor.sheet?.answers.map((answer) => answer.tag)).toEqual(['b2', 'a1'])
    server.listShots.mockResolvedValueOnce({ data: { answers: [] } as never })
    editor.change(list('a'))
    await vi.waitFor(() => expect([...editor.answers.keys()]).toEqual(['a']))
  })
})

describe('clips that are dropped', () => {
  const file = (name: string, size: number) => ({ name, size, slice: () => new Blob() }) as unknown as File
  const to = { unit: 'A', day: '1', by: 'Ines' }

  it('are read by their first and last bytes, the others are counted, and faults are told', async () => {
    const reader = new ClipReader(3)
    server.readClipHead.mockImplementation((_, { name }) =>
      Promise.resolve(
        name === 'bad.mov'
          ? refusal('invalid_input', 'bad.mov: no clip')
          : { data: { facts: [{ name }] as never } },
      ),
    )
    server.listClips.mockResolvedValue({ data: { added: 1, there: 1 } })
    const listed = await reader.read(
      [file('a.MOV', 10), file('b.jpg', 9e6), file('bad.mov', 1), file('notes.txt', 1)],
      to,
    )
    expect(listed).toBe(true)
    expect([reader.done, reader.all, reader.busy, reader.told]).toEqual([
      3,
      3,
      false,
      '1 listed, 1 were there.',
    ])
    expect(reader.problems).toEqual(['1 file is no clip, still or table.'])
    const heads = server.readClipHead.mock.calls.map(([, query]) => [query.name, query.size, query.head])
    expect(heads).toEqual([['a.MOV', 10, 10], ['b.jpg', 9e6, 3e6], ['bad.mov', 1, 1]]) // prettier-ignore
    // One that cannot be read is listed with the reason.
    const facts = server.listClips.mock.calls[0]?.[1].facts
    expect(facts).toHaveLength(3)
    expect(facts?.at(-1)).toMatchObject({
      name: 'bad.mov',
      bytes: 1,
      unread: 'bad.mov: no clip',
      raster: null,
    })
  })

  it('are not listed where nothing could be read', async () => {
    const reader = new ClipReader(3)
    server.readClipHead.mockResolvedValue(refusal('no_answer', 'One moment'))
    expect(await reader.read([file('a.mov', 1)], to)).toBe(false)
    expect([reader.told, reader.problems]).toEqual(['Nothing could be listed.', ['One moment']])
    expect(server.listClips).not.toHaveBeenCalled()
  })
})

describe('a question in one line', () => {
  const asked = {
    answers: [
      {
        told: '39.3 mm',
        bench: { format_id: 9, lens_id: 4, adapter_ids: [], focal_mm: null, stop: 2.8, subject_m: 3 },
      },
    ],
  }

  it('is answered for the newest line, and leads to the Bench of the production', async () => {
    server.ask.mockResolvedValue({ data: asked as unknown as Asked })
    const asking = new Asking(7)
    asking.type('50 s3')
    asking.type('50 s35')
    await later()
    expect([asking.answered, server.ask.mock.calls.at(-1)?.slice(0, 2)]).toEqual(['50 s35', ['50 s35', 7]])
    const [answer] = asking.asked?.answers ?? []
    expect(answer && asking.benchOf(answer)).toBe('/p/7/bench?format=9&lens=4&stop=2.8&subject=3')
    expect(answer && new Asking(null).benchOf(answer)).toBeNull()
  })

  it('keeps the last answer while the server is away, and says so', async () => {
    server.ask.mockResolvedValueOnce({ data: asked as unknown as Asked })
    const asking = new Asking(null)
    await later()
    server.ask.mockResolvedValue(refusal('no_answer'))
    asking.type('85 ff')
    await later()
    expect([asking.asked?.answers.length, asking.problem?.code, asking.answered]).toEqual([
      1,
      'no_answer',
      '',
    ])
  })
})
