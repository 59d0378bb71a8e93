import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { BodyEditor } from './body.svelte'
import * as client from './client'
import type { BodyDocument, BodySheet, Problem } from './types'

vi.mock('./client', () => ({ bodySheet: vi.fn(), writeBody: vi.fn(), readBody: vi.fn() }))

const sheetOf = vi.mocked(client.bodySheet)
const write = vi.mocked(client.writeBody)
const read = vi.mocked(client.readBody)

const DOCUMENT = {
  key: 'b',
  name: 'Skerry 60',
  firmware: '1',
  pitch_um: 6,
  photosites: [6000, 4000],
  modes: [{ key: 'm', name: 'Full', window: [6000, 3375], row_time_us: 6, formats: [] }],
  crops: [],
  claims: {},
} as unknown as BodyDocument
const SHEET = { modes: [], formats: [] } as unknown as BodySheet
const refusal = (code: string, ...faults: [string, string][]): { problem: Problem } => ({
  problem: { code, message: 'no', faults: faults.map(([field, rule]) => ({ field, rule })) },
})

let version = 1
function edit(onkept = vi.fn()) {
  return new BodyEditor(3, { id: 7, version, document: DOCUMENT }, onkept)
}

beforeEach(() => {
  vi.useFakeTimers()
  sessionStorage.clear()
  version = 1
  sheetOf.mockReset().mockResolvedValue({ data: SHEET })
  write.mockReset().mockImplementation(async (_, id, given, document) => {
    version = given + 1
    return { data: { id, version, document } }
  })
})
afterEach(() => vi.useRealTimers())
const later = (ms = 800) => vi.advanceTimersByTimeAsync(ms)

describe('a body that is edited', () => {
  it('is checked at once and kept a moment later, from the version before', async () => {
    const kept = vi.fn()
    const body = edit(kept)
    body.set('modes[0].row_time_us', 5.5)
    expect(body.kept).toBe(false)
    await later(100)
    expect(sheetOf).toHaveBeenLastCalledWith(3, body.document, expect.anything())
    expect(write).not.toHaveBeenCalled()
    await later()
    expect(write).toHaveBeenCalledExactlyOnceWith(3, 7, 1, body.document)
    expect(body.document.modes[0]?.row_time_us).toBe(5.5)
    expect([body.kept, body.version, kept.mock.calls.length]).toEqual([true, 2, 1])
    body.set('firmware', '2')
    await later()
    expect(write).toHaveBeenLastCalledWith(3, 7, 2, body.document)
  })

  it('lets windows as wide as the sensor follow it, in one step of undo, and leaves the others', () => {
    const body = edit()
    for (const width of [7, 70, 7000]) body.set('photosites[0]', width)
    expect([body.document.photosites, body.document.modes[0]?.window]).toEqual([
      [7000, 4000],
      [7000, 3375],
    ])
    body.set('modes[0].window[0]', 5000)
    body.set('photosites[0]', 8000)
    expect(body.document.modes[0]?.window).toEqual([5000, 3375])
    for (let i = 0; i < 3; i++) body.undo()
    expect([body.document.photosites[0], body.document.modes[0]?.window]).toEqual([6000, [6000, 3375]])
  })

  it('does not write what says the same', async () => {
    const body = edit()
    body.set('firmware', '1')
    await later()
    expect(write).not.toHaveBeenCalled()
    expect(body.steps).toEqual({ back: 0, forth: 0 })
  })

  it('is not kept while a figure is refused, and is kept when it is corrected', async () => {
    sheetOf.mockResolvedValue(refusal('invalid_input', ['pitch_um', 'must be a number']))
    const body = edit()
    body.set('pitch_um', 'wide')
    await later()
    expect(body.fault('pitch_um')).toBe('must be a number')
    expect(write).not.toHaveBeenCalled()
    // The answer may come after the moment at which it would have been kept.
    sheetOf.mockImplementation(async () => {
      await new Promise((done) => setTimeout(done, 1500))
      return { data: SHEET }
    })
    body.set('pitch_um', 5.9)
    await later(5000)
    expect(body.faults).toEqual({})
    expect(write).toHaveBeenCalledOnce()
    expect(body.kept).toBe(true)
  })

  it('keeps saying what does not go together while another figure is malformed', async () => {
    const body = edit()
    sheetOf.mockResolvedValue(refusal('inconsistent', ['modes[0].window[0]', 'reaches beyond the sensor']))
    body.set('modes[0].window[0]', 9000)
    await later(100)
    sheetOf.mockResolvedValue(refusal('invalid_input', ['modes[0].row_time_us', 'must be a number']))
    body.set('modes[0].row_time_us', 'fast')
    await later(100)
    expect(Object.keys(body.faults).toSorted()).toEqual(['modes[0].row_time_us', 'modes[0].window[0]'])
    // It no longer stands for a figure that was changed since.
    body.set('modes[0].window[0]', 5000)
    await later(100)
    expect(Object.keys(body.faults)).toEqual(['modes[0].row_time_us'])
    sheetOf.mockResolvedValue({ data: SHEET })
    body.set('modes[0].row_time_us', 6)
    await later(100)
    expect(body.faults).toEqual({})
  })

  it('survives a reload while it is not kept', async () => {
    sheetOf.mockResolvedValue(refusal('invalid_input', ['pitch_um', 'must be a number']))
    edit().set('pitch_um', 'wide')
    await later()
    const again = edit()
    expect(again.document.pitch_um).toBe('wide')
    expect(again.kept).toBe(false)
    // Another window has kept a newer one: what was typed here is not lost.
    version = 2
    expect(edit().document.pitch_um).toBe('wide')
  })

  it('leaves no draft behind when it is kept', async () => {
    const body = edit()
    body.set('firmware', '2')
    await later()
    expect(sessionStorage.length).toBe(0)
  })

  it('undoes a row at once, and what is typed into one field as one step', async () => {
    const body = edit()
    for (const text of ['2', '2.', '2.1']) body.set('firmware', text)
    expect(body.steps.back).toBe(1)
    body.change({ ...body.document, modes: [] })
    body.change({ ...body.document, crops: [] })
    expect(body.steps.back).toBe(3)
    body.undo()
    body.undo()
    expect(body.document.modes).toHaveLength(1)
    body.undo()
    expect(body.document).toBe(DOCUMENT)
    body.redo()
    expect(body.document.firmware).toBe('2.1')
    expect(body.steps).toEqual({ back: 1, forth: 2 })
  })

  const stale = (document: BodyDocument) =>
    ({ ...refusal('stale_write').problem, stored: { version: 5, document } }) as unknown as Problem

  it('asks about the place that another window changed as well, and keeps all else of both', async () => {
    const theirs = { ...DOCUMENT, firmware: '9', pitch_um: 5 }
    const body = edit()
    write.mockResolvedValueOnce({ problem: stale(theirs) })
    body.change({ ...body.document, firmware: '2', name: 'Skerry 61' })
    await later()
    expect(body.conflict?.version).toBe(5)
    expect(body.differences).toEqual([{ where: 'firmware', mine: '2', theirs: '9' }])
    expect(body.document.firmware).toBe('2')
    body.set('firmware', '3')
    await later()
    expect(write).toHaveBeenCalledOnce()
    body.resolve('mine')
    await later()
    const both = { firmware: '3', name: 'Skerry 61', pitch_um: 5 }
    expect(write).toHaveBeenLastCalledWith(3, 7, 5, expect.objectContaining(both))
    expect([body.kept, body.differences]).toEqual([true, null])
    body.undo()
    expect(body.document).toMatchObject({ firmware: '9', name: 'Skerry 61', pitch_um: 5 })
  })

  it('takes the other one at that place and can still undo it', async () => {
    const body = edit()
    write.mockResolvedValueOnce({ problem: stale({ ...DOCUMENT, firmware: '9' }) })
    body.change({ ...body.document, firmware: '2', name: 'Skerry 61' })
    await later()
    body.resolve('theirs')
    expect(body.document).toMatchObject({ firmware: '9', name: 'Skerry 61' })
    body.undo()
    expect(body.document).toMatchObject({ firmware: '2', name: 'Skerry 61' })
  })

  it('puts together what both changed at different places, and asks nothing', async () => {
    const body = edit()
    write.mockResolvedValueOnce({ problem: stale({ ...DOCUMENT, pitch_um: 5 }) })
    body.set('firmware', '2')
    await later()
    expect(body.differences).toBeNull()
    await later()
    expect(write).toHaveBeenLastCalledWith(3, 7, 5, { ...DOCUMENT, firmware: '2', pitch_um: 5 })
    expect(body.kept).toBe(true)
    // Undo takes back what was done here, and not what came from elsewhere.
    body.undo()
    expect(body.document).toMatchObject({ firmware: '1', pitch_um: 5 })
  })

  it('hears at once what another window keeps', async () => {
    vi.useRealTimers()
    const body = new BodyEditor(3, { id: 70, version, document: DOCUMENT }, vi.fn())
    body.set('firmware', '2')
    await body.settle()
    read.mockResolvedValue({
      data: { id: 70, version: 3, document: { ...DOCUMENT, firmware: '2', pitch_um: 5 } } as never,
    })
    const other = new BroadcastChannel('hextan.kept')
    other.postMessage({ document: 'hextan.body.3.8', version: 3 })
    other.postMessage({ document: 'hextan.body.3.70', version: 2 })
    other.postMessage({ document: 'hextan.body.3.70', version: 3 })
    await vi.waitFor(() => expect(body.document.pitch_um).toBe(5))
    expect(read).toHaveBeenCalledOnce()
    expect([body.version, body.kept]).toEqual([3, true])
    body.undo()
    expect(body.document).toMatchObject({ firmware: '1', pitch_um: 5 })
    body.close()
    other.close()
  })

  it('puts a draft together with what was kept while the page was away', async () => {
    write.mockResolvedValue({ problem: refusal('no_answer').problem })
    edit().set('firmware', '2')
    await later()
    version = 4
    const body = new BodyEditor(3, { id: 7, version, document: { ...DOCUMENT, pitch_um: 5 } }, vi.fn())
    expect(body.document).toMatchObject({ firmware: '2', pitch_um: 5 })
    expect([body.version, body.kept]).toEqual([4, false])
  })

  it('tells at the field what is refused on keeping', async () => {
    write.mockResolvedValueOnce(refusal('inconsistent', ['document.modes[0].name', 'this name is taken']))
    const body = edit()
    body.set('firmware', '2')
    await later()
    expect(body.fault('modes[0].name')).toBe('this name is taken')
    expect(body.kept).toBe(false)
  })

  it('tells what is no fault of the input, and loses nothing', async () => {
    const away = refusal('no_answer').problem
    write.mockResolvedValueOnce({ problem: away })
    const body = edit()
    body.set('firmware', '2')
    await later()
    expect(body.problem).toEqual(away)
    expect(sessionStorage.length).toBe(1)
    expect(await body.settle()).toBe(true)
    expect(body.version).toBe(2)
  })

  it('keeps what still waits when it is closed, and nothing twice', async () => {
    const body = edit()
    body.set('firmware', '2')
    body.close()
    await later(10)
    expect(write).toHaveBeenCalledOnce()
    await later()
    expect(write).toHaveBeenCalledOnce()
  })

  it('writes one after the other, each from the version that the one before made', async () => {
    write.mockImplementation(async (_, id, given, document) => {
      await new Promise((done) => setTimeout(done, 2000))
      return { data: { id, version: given + 1, document } }
    })
    const body = edit()
    body.set('firmware', '2')
    await later(1000)
    body.set('firmware', '3')
    await later(6000)
    expect(write.mock.calls.map(([, , given, document]) => [given, document.firmware])).toEqual([
      [1, '2'],
      [2, '3'],
    ])
    expect([body.kept, body.version]).toEqual([true, 3])
  })

  it('shows what the server made of it by another way as kept', async () => {
    const body = edit()
    body.replace({ version: 4, document: { ...DOCUMENT, firmware: '7' } })
    await later()
    expect([body.kept, body.version, body.document.firmware]).toEqual([true, 4, '7'])
    expect(write).not.toHaveBeenCalled()
    body.undo()
    expect(body.document.firmware).toBe('1')
  })
})
