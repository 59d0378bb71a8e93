import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import * as client from './client'
import { SettingsEditor } from './settings.svelte'
import type { PackageSettings } from './types'

vi.mock('./client', () => ({ readSettings: vi.fn(), writeSettings: vi.fn() }))
const read = vi.mocked(client.readSettings)
const write = vi.mocked(client.writeSettings)
const SETTINGS = { base_fps: '25', shutter_deg: 180, cards: [] } as unknown as PackageSettings

beforeEach(() => {
  vi.useFakeTimers()
  read.mockReset().mockResolvedValue({ data: { version: 4, settings: SETTINGS } })
  write
    .mockReset()
    .mockImplementation(async (_, version, settings) => ({ data: { version: version + 1, settings } }))
})
afterEach(() => vi.useRealTimers())
const later = () => vi.advanceTimersByTimeAsync(700)

it('reads settings and keeps what is changed once for what is typed in a row', async () => {
  const editor = new SettingsEditor(3)
  editor.set('base_fps', '24')
  await later()
  expect(editor.settings).toEqual(SETTINGS)
  for (const text of ['2', '24']) editor.set('base_fps', text)
  await later()
  expect(write).toHaveBeenCalledExactlyOnceWith(3, 4, { ...SETTINGS, base_fps: '24' })
  editor.set('shutter_deg', 90)
  await later()
  expect(write).toHaveBeenLastCalledWith(3, 5, { ...SETTINGS, base_fps: '24', shutter_deg: 90 })
  expect(editor.kept).toBe(3)
})

it('tells faults at the field and keeps what was typed', async () => {
  const editor = new SettingsEditor(3)
  await later()
  const faults = [{ field: 'settings.base_fps', rule: 'write rates like 23.976' }]
  write.mockResolvedValueOnce({ problem: { code: 'invalid_input', message: '', faults } })
  editor.set('base_fps', 'soon')
  await later()
  expect(editor.fault('base_fps')).toBe('write rates like 23.976')
  expect(editor.settings?.base_fps).toBe('soon')
  expect(editor.problem).toBeNull()
  editor.set('base_fps', '30')
  await later()
  expect(editor.fault('base_fps')).toBeUndefined()
  expect(write).toHaveBeenLastCalledWith(3, 4, { ...SETTINGS, base_fps: '30' })
})

it('puts settings together with those of another window, and asks where both changed one', async () => {
  const editor = new SettingsEditor(3)
  await later()
  const stale = (settings: Partial<PackageSettings>) => ({
    problem: { code: 'stale_write', message: '', faults: [], stored: { version: 9, settings: { ...SETTINGS, ...settings } } },
  }) // prettier-ignore
  write.mockResolvedValueOnce(stale({ shutter_deg: 90 }))
  editor.set('base_fps', '50')
  await later()
  await later()
  expect(write).toHaveBeenLastCalledWith(3, 9, { ...SETTINGS, base_fps: '50', shutter_deg: 90 })
  write.mockResolvedValueOnce(stale({ base_fps: '48', shutter_deg: 90 }))
  editor.set('base_fps', '60')
  await later()
  expect(editor.differences).toEqual([{ where: 'base fps', mine: '60', theirs: '48' }])
  editor.resolve('theirs')
  await later()
  expect(editor.settings?.base_fps).toBe('48')
})

it('can be undone', async () => {
  const editor = new SettingsEditor(3)
  await later()
  editor.set('base_fps', '50')
  await later()
  expect(editor.undo?.steps).toEqual({ back: 1, forth: 0 })
  editor.undo?.undo()
  await later()
  expect(editor.settings?.base_fps).toBe('25')
  expect(write).toHaveBeenLastCalledWith(3, 5, SETTINGS)
  editor.undo?.redo()
  expect(editor.settings?.base_fps).toBe('50')
})

it('tells when the server is away', async () => {
  read.mockResolvedValueOnce({ problem: { code: 'no_answer', message: 'away', faults: [] } })
  const editor = new SettingsEditor(3)
  await later()
  expect(editor.problem?.message).toBe('away')
  editor.set('base_fps', '50')
  await later()
  expect(write).not.toHaveBeenCalled()
})
