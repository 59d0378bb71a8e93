import { fireEvent, render, screen } from '@testing-library/svelte'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Option } from '../../lib/options'
import Choice from './Choice.svelte'
import Segments from './Segments.svelte'
import Toggles from './Toggles.svelte'

const LENSES: Option<number | null>[] = Array.from({ length: 20 }, (_, i) => ({
  value: i,
  label: `Wren ${10 + i}`,
  group: i < 10 ? 'wide' : 'long',
  sign: '✓',
  words: 'covers',
}))
const few = LENSES.slice(0, 3)
const pointer = (coarse: boolean) =>
  vi.stubGlobal('matchMedia', (query: string) => ({ matches: coarse && query.includes('coarse') }))
afterEach(() => vi.unstubAllGlobals())

describe('a choice', () => {
  it('is a list of the browser where it is short, or under a finger', async () => {
    pointer(false)
    const onchange = vi.fn()
    const view = render(Choice<number | null>, {
      label: 'Lens',
      search: true,
      options: few,
      value: 1,
      onchange,
    })
    const list = screen.getByLabelText('Lens')
    expect(list.localName).toBe('select')
    expect(list).toHaveValue('1')
    await userEvent.selectOptions(list, 'Wren 12 ✓')
    expect(onchange).toHaveBeenCalledExactlyOnceWith(2)
    await fireEvent.change(list, { target: { value: '1' } })
    expect(onchange).toHaveBeenCalledOnce()
    view.unmount()
    pointer(true)
    render(Choice<number | null>, { label: 'Lens', search: true, options: LENSES, value: 1, onchange })
    expect(screen.getByLabelText('Lens').localName).toBe('select')
    expect(screen.getAllByRole('group').map((g) => g.getAttribute('label'))).toEqual(['wide', 'long'])
  })
  it('gives what was chosen as it is, none included', async () => {
    pointer(false)
    const onchange = vi.fn()
    render(Choice<number | null>, {
      label: 'Lens',
      options: [{ value: null, label: 'none' }, ...few],
      value: 1,
      onchange,
    })
    await userEvent.selectOptions(screen.getByLabelText('Lens'), 'none')
    expect(onchange).toHaveBeenCalledExactlyOnceWith(null)
  })
  it('is searched by typing where it is long, and says when nothing is found', async () => {
    pointer(false)
    const onchange = vi.fn()
    render(Choice<number | null>, { label: 'Lens', search: true, options: LENSES, value: 1, onchange })
    const field = screen.getByLabelText('Lens')
    expect(field).toHaveValue('Wren 11 ✓')
    await userEvent.click(field)
    await userEvent.type(field, 'long 25')
    expect(screen.getAllByRole('option').map((o) => o.textContent?.trim())).toEqual(['Wren 25✓ covers'])
    await userEvent.keyboard('{Enter}')
    expect(onchange).toHaveBeenCalledExactlyOnceWith(15)
    await userEvent.click(field)
    await userEvent.type(field, 'heron')
    expect(screen.getByText('Nothing here is called “heron”.')).toBeInTheDocument()
    await userEvent.keyboard('{Escape}')
    expect(field).toHaveValue('Wren 11 ✓')
  })
})

describe('one of a few, and any of a few', () => {
  it('are set by their names, with spaces in them as well', async () => {
    const one = vi.fn()
    render(Segments<string>, { label: 'Unit', options: [{ value: 'm', label: 'metres' }, { value: 'ft', label: 'feet' }], value: 'm', onchange: one }) // prettier-ignore
    await userEvent.click(screen.getByText('feet'))
    expect(one).toHaveBeenLastCalledWith('ft')
    const any = vi.fn()
    const classes = ['full frame', 'Super 35', 'Super 16'].map((name) => ({ value: name, label: name }))
    render(Toggles<string>, { label: 'Classes', options: classes, value: ['Super 16'], onchange: any })
    expect(screen.getByRole('button', { name: 'Super 16' })).toHaveAttribute('aria-pressed', 'true')
    await userEvent.click(screen.getByRole('button', { name: 'full frame' }))
    expect(any).toHaveBeenLastCalledWith(['full frame', 'Super 16'])
  })
})
