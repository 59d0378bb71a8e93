import { describe, expect, it } from 'vitest'
import { blockOf, blockText, pasted, readText, textOf, withCell, writtenOf, type Column } from './columns'

interface Lamp {
  key?: string
  name: string
  size: number[]
  rates: string[]
  on: boolean
  kind: string
  tags: string[]
  watts: number | null
}
const LAMP: Lamp = { key: 'a', name: 'Key', size: [4, 3], rates: ['24000/1001', '30..60'], on: true, kind: 'w', tags: [], watts: null } // prettier-ignore
const CHOICES = [
  { value: 'w', label: 'warm' },
  { value: 'c', label: 'cold' },
]
const COLUMNS: Column<Lamp>[] = [
  { key: 'name', title: 'Lamp', name: 'Name', kind: 'text' },
  { key: 'size[1]', title: 'High', name: 'Height', kind: 'number' },
  { key: 'rates', title: 'Rates', name: 'Rates', kind: 'rates' },
  { key: 'on', title: 'On', name: 'On', kind: 'check' },
  { key: 'kind', title: 'Kind', name: 'Kind', kind: 'choice', choices: () => CHOICES },
  { key: 'tags', title: 'Tags', name: 'Tags', kind: 'choices', choices: () => CHOICES },
  { key: 'area', title: 'Area', name: 'Area', kind: 'computed', text: (l) => String(Number(l.size[0]) * Number(l.size[1])) },
  { key: 'watts', title: 'W', name: 'Watts', kind: 'number', fixed: (l) => l.kind === 'c' },
] // prettier-ignore
const column = (key: string) => COLUMNS.find((c) => c.key === key) as Column<Lamp>
const make = (rows: readonly Lamp[]): Lamp => ({ ...LAMP, key: `new${rows.length}`, name: 'New' })

describe('a cell', () => {
  it.each([
    ['name', 'Key'],
    ['size[1]', '3'],
    ['rates', '23.976, 30–60'],
    ['on', 'yes'],
    ['kind', 'warm'],
    ['tags', ''],
    ['area', '12'],
    ['watts', ''],
  ])('shows %s as %s', (key, text) => expect(textOf(column(key), LAMP)).toBe(text))

  it.each<[string, string, unknown]>([
    ['name', ' Fill ', 'Fill'],
    ['size[1]', '2,5', 2.5],
    ['size[1]', 'wide', 'wide'],
    ['size[1]', '', null],
    ['rates', '24, 25', ['24', '25']],
    ['on', 'No', false],
    ['on', 'perhaps', 'perhaps'],
    ['kind', 'COLD', 'c'],
    ['kind', 'green', 'green'],
    ['tags', 'cold; w', ['c', 'w']],
  ])('of %s reads “%s”', (key, text, value) => expect(readText(column(key), LAMP, text)).toEqual(value))

  it('is written where it is kept, or with what goes with it', () => {
    expect(withCell(column('size[1]'), LAMP, 9).size).toEqual([4, 9])
    const paired = { ...column('on'), put: (l: Lamp, on: unknown) => ({ ...l, on: on === true, watts: 5 }) }
    expect(withCell(paired, LAMP, false)).toMatchObject({ on: false, watts: 5 })
    expect(writtenOf({ ...column('watts'), text: () => 'shown' }, { ...LAMP, watts: 7 })).toBe('7')
  })
})

describe('a block', () => {
  it('goes out and comes back as it was, with tabs and quotes in it', () => {
    const rows = [{ ...LAMP, name: 'The "key"\tlamp' }, LAMP]
    const text = blockText(rows, COLUMNS)
    expect(blockOf(text)[0]?.[0]).toBe('The "key"\tlamp')
    // Rates go as they are printed, and are read so.
    expect(pasted([LAMP], COLUMNS, { row: 0, column: 0 }, blockOf(text), make)[0]).toEqual({
      ...rows[0],
      rates: ['23.976', '30–60'],
    })
    expect(blockOf('1\t2\r\n3\t4\r\n')).toEqual([['1', '2'], ['3', '4']]) // prettier-ignore
  })

  it('passes over what cannot be entered, and adds the rows that are missing', () => {
    const block = [['cold', 'warm', '99', '5'], ['warm', '', '', '7'], ['warm', '', '', '8']] // prettier-ignore
    const rows = pasted([LAMP, LAMP], COLUMNS, { row: 1, column: 4 }, block, make)
    expect(rows).toHaveLength(4)
    expect(rows[0]).toBe(LAMP)
    // The first is cold now: its watts are not entered.
    expect(rows[1]).toMatchObject({ kind: 'c', tags: ['w'], watts: null })
    expect(rows.slice(2).map((l) => [l.key, l.watts])).toEqual([
      ['new2', 7],
      ['new3', 8],
    ])
  })
})
