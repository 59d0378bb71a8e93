import { fireEvent, render, screen, waitFor } from '@testing-library/svelte'
import { expect, it, vi } from 'vitest'
import type { ShotsTable } from '../../lib/types'
import ShotFiles from './ShotFiles.svelte'

const TABLE = {
  document: { schema: 'hextan.shots', schema_version: 1, shots: [], columns: {}, noted: {} },
  new: ['9A'],
  changed: ['9B'],
  renamed: [],
  moved: [],
  gone: [],
  understood: ['Shot', 'Lens'],
  kept: ['Lens'],
  left_out: [],
  columns: [
    { title: 'Shot', field: 'name' },
    { title: 'Lens', field: 'glass' },
    { title: 'Lens', field: '' },
  ],
  cells: [
    { shot: '9B', column: 'Lens', before: '75', after: '100' },
    { shot: '9B', column: 'Lens', before: '', after: '50' },
  ],
} as unknown as ShotsTable

it('shows columns of one title and cells of one name apart, and reads anew where a column is pointed at', async () => {
  const read = vi.fn().mockResolvedValue({ data: TABLE })
  render(ShotFiles, { addressOf: () => '/x', read, ontake: vi.fn() })
  const file = new File(['Shot;Lens;Lens'], 'list.csv')
  await fireEvent.change(screen.getByLabelText('From a file'), { target: { files: [file] } })
  expect(await screen.findByText('2 cells say something else than before')).toBeInTheDocument()
  expect(screen.getByText(/→ 100/)).toBeInTheDocument()
  const columns = screen.getAllByLabelText('Column Lens')
  expect(columns).toHaveLength(2)
  await fireEvent.change(columns[0] as HTMLElement, { target: { value: 'distance' } })
  await waitFor(() => expect(read).toHaveBeenLastCalledWith('csv', file, false, ['distance=Lens']))
})
