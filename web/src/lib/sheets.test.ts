import { describe, expect, it } from 'vitest'
import { SHEET_KINDS } from './generated/choices'
import { asksFor, askedOf, copyOf, newBundle, newSheet, partsOf, STARTERS, titleOf } from './sheets'
import type { SheetTable } from './types'

const column = (title: string, group = '', words = false): SheetTable['columns'][number] => ({
  title,
  unit: 'm',
  group,
  group_more: '',
  words,
})
const cell = (text: string) => ({ text, value: null, tone: '' as const })

describe('sheets', () => {
  it('begin as their kind is best printed, and with what it asks for', () => {
    for (const { kind, wide } of SHEET_KINDS) expect(newSheet(kind).wide).toBe(wide)
    expect(asksFor(newSheet('depth'), 'stops')).toBe(true)
    expect(asksFor(newSheet('claims'), 'stops')).toBe(false)
    expect(titleOf(newSheet('look'))).toBe('Look sheet')
    expect(titleOf(newSheet('look', { name: 'At the pier' }))).toBe('At the pier')
  })

  it('come in bundles whose names are free', () => {
    for (const { name, sheets } of STARTERS) {
      const first = newBundle([], name, sheets())
      const second = newBundle([first], name, sheets())
      expect(second.name).not.toBe(first.name)
      expect(new Set([...first.sheets, ...second.sheets].map((sheet) => sheet.key)).size).toBe(
        2 * first.sheets.length,
      )
    }
  })

  it('are the same question however they were printed', () => {
    const plan = newSheet('depth')
    const made = { ...plan, made: { at: '2026-11-27T10:00:00Z', fingerprint: '0123456789ab' } }
    expect(askedOf(made)).toBe(askedOf(plan))
    expect(askedOf({ ...plan, large: true })).not.toBe(askedOf(plan))
    expect(copyOf(made).made).toBeNull()
    expect(copyOf(made).key).not.toBe(made.key)
  })

  it('break a table across with its first columns in each part, and no group torn', () => {
    const columns = [
      column('Lens', '', true),
      ...['a', 'b', 'c'].flatMap((g) => [column('near', g), column('far', g)]),
    ]
    const rows = [{ section: '', cells: columns.map((_, j) => cell(j ? '12.345' : 'Merrow 50')) }]
    const parts = partsOf({ columns, rows, fixed: 1 }, 30)
    expect(parts).toEqual([
      [0, 1, 2],
      [0, 3, 4],
      [0, 5, 6],
    ])
    expect(partsOf({ columns, rows, fixed: 1 }, 300)).toEqual([[0, 1, 2, 3, 4, 5, 6]])
    expect(partsOf({ columns: columns.slice(0, 1), rows, fixed: 1 }, 300)).toEqual([[0]])
  })
})
