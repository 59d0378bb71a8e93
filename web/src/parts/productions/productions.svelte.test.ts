import { fireEvent, render, screen } from '@testing-library/svelte'
import { describe, expect, it, vi } from 'vitest'
import type { Production } from '../../lib/types'
import NewProduction from './NewProduction.svelte'
import ProductionRow from './ProductionRow.svelte'
import { ago, days, largestSensor } from './windows'

const production: Production = {
  id: 3,
  version: 2,
  name: 'Tide mill',
  synopsis: 'A mill.',
  starts_on: '2026-09-01',
  ends_on: '',
  changed_at: '2026-09-01T10:00:00Z',
  demo: false,
  glance: {
    bodies: [{ body: 'Weir', maker: 'own', sensor_mm: [38.1, 20.1], windows_mm: [[38.1, 20.1], [25.4, 13.4]] }],
    lens_sets: [],
    lenses: 0,
    formats: 4,
    missing: ['a lens'],
  },
} // prettier-ignore
const click = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

describe('words', () => {
  it.each([
    ['2026-09-01', '2026-09-19', '1 Sep 2026 to 19 Sep 2026'],
    ['2026-09-01', '', 'from 1 Sep 2026'],
    ['', '2026-12-31', 'until 31 Dec 2026'],
    ['', '', ''],
  ])('tell the days %s to %s', (starts, ends, told) => expect(days(starts, ends)).toBe(told))

  it.each([
    [30_000, 'just now'],
    [5 * 60_000, '5 min ago'],
    [3 * 3_600_000, '3 h ago'],
    [50 * 3_600_000, 'on 1 Sep 2026'],
  ])('tell how long ago %i ms are', (passed, told) =>
    expect(ago('2026-09-01T10:00:00Z', Date.parse('2026-09-01T10:00:00Z') + passed)).toBe(told),
  )

  it('give all small drawings the scale of the largest sensor, of full frame at least', () => {
    expect(largestSensor([production])).toEqual([38.1, 24])
    expect(largestSensor([])).toEqual([36, 24])
  })
})

describe('a production', () => {
  const acts = () => ({ onfacts: vi.fn(), oncopy: vi.fn(), onaway: vi.fn() })

  it('is drawn to scale, and says what it lacks and where to cure it', () => {
    const { container } = render(ProductionRow, { production, largest: [36, 24], file: '/f', ...acts() })
    const rects = [...container.querySelectorAll('rect')].map((r) => Number(r.getAttribute('width')))
    expect(rects).toEqual([38.1, 38.1, 25.4])
    expect(container).toHaveTextContent('It lacks a lens.')
    expect(screen.getByRole('link', { name: 'Enter it' })).toHaveAttribute('href', '/p/3/package/lenses/new')
    expect(screen.getByRole('link', { name: 'Tide mill' })).toHaveAttribute('href', '/p/3/package')
  })

  it('is renamed in its place, copied under another name, put away', async () => {
    const given = acts()
    render(ProductionRow, { production, largest: [36, 24], file: '/f', ...given })
    await click('Copy Tide mill')
    expect(given.oncopy.mock.calls[0]?.[0]).toMatchObject({ name: 'Tide mill, copy', synopsis: 'A mill.' })
    await click('Put Tide mill away')
    expect(given.onaway).toHaveBeenCalledOnce()
    await click('Name and days of Tide mill')
    await fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'Weir' } })
    await click('Keep')
    expect(given.onfacts).toHaveBeenCalledWith({
      name: 'Weir', synopsis: 'A mill.', starts_on: '2026-09-01', ends_on: '',
    }) // prettier-ignore
  })
})

it('asks for a name before it begins', async () => {
  const onbegin = vi.fn(() => Promise.resolve(true))
  const props = { problem: null, demoHere: false, onbegin, onfile: vi.fn(), ondemo: vi.fn() }
  render(NewProduction, props)
  await click('Begin with your own camera')
  expect(screen.getByText('Give it a name first.')).toBeInTheDocument()
  expect(onbegin).not.toHaveBeenCalled()
  await fireEvent.input(screen.getByLabelText('New production'), { target: { value: 'Weir' } })
  await click('Begin with your own camera')
  expect(onbegin).toHaveBeenCalledWith({ name: 'Weir', synopsis: '', starts_on: '', ends_on: '' })
  await click('Add the demo')
  expect(props.ondemo).toHaveBeenCalledOnce()
})
