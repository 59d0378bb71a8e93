import { fireEvent, render, screen, waitFor } from '@testing-library/svelte'
import { beforeEach, expect, it, vi } from 'vitest'
import type { Asked } from '../../lib/types'

const ask = vi.hoisted(() => vi.fn())
vi.mock('../../lib/client', () => ({ ask }))
const { default: AskField } = await import('./AskField.svelte')

const ANSWER: Asked = {
  words: [
    { text: '50', start: 0, understood: 'a focal length', could_be: '', skipped: false },
    { text: 'banana', start: 3, understood: null, could_be: 'could be a format (s35)', skipped: false },
    { text: 'please', start: 10, understood: null, could_be: '', skipped: true },
  ],
  answers: [
    {
      question: 'Like?',
      told: '50 mm is like 72.3 mm.',
      figures: [{ name: 'full frame', value: '72.3 mm' }],
      steps: ['50 × 36.00 / 24.89'],
      bench: { format_id: 4, lens_id: 7, adapter_ids: [3, 5], focal_mm: null, stop: 2.8, subject_m: 3 },
    },
  ],
  wants: [],
  terms: 'no production',
  examples: ['50 s35'],
}
beforeEach(() => ask.mockReset().mockResolvedValue({ data: ANSWER }))
const type = (value: string) => fireEvent.input(screen.getByRole('textbox'), { target: { value } })

it('answers while it is typed, with steps, and selects the word that is pressed', async () => {
  render(AskField, { productionId: null })
  await waitFor(() => expect(screen.getByRole('textbox')).toHaveAttribute('placeholder', '50 s35'))
  await type('50 banana')
  expect(await screen.findByText('50 mm is like 72.3 mm.')).toBeInTheDocument()
  expect(screen.getByText('50 × 36.00 / 24.89')).toBeInTheDocument()
  expect(screen.getByText('could be a format (s35)')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'please skipped' })).toBeInTheDocument()
  expect(screen.getByText('Read by no production.')).toBeInTheDocument()
  await fireEvent.click(screen.getByRole('button', { name: 'banana not understood' }))
  const field = screen.getByRole<HTMLInputElement>('textbox')
  expect([field.selectionStart, field.selectionEnd]).toEqual([3, 9])
  // Without a production there is no Bench.
  expect(screen.queryByRole('link')).toBeNull()
})

it('is set on the Bench of its production by one key', async () => {
  const onleave = vi.fn()
  render(AskField, { productionId: 3, onleave })
  await type('50 s35')
  const link = await screen.findByRole('link')
  link.addEventListener('click', (event) => event.preventDefault())
  expect(link).toHaveAttribute('href', '/p/3/bench?format=4&lens=7&adapter=3.5&stop=2.8&subject=3')
  await fireEvent.submit(screen.getByRole('textbox').closest('form') as HTMLFormElement)
  await waitFor(() => expect(onleave).toHaveBeenCalledOnce())
})

it('says why there is no answer', async () => {
  ask.mockResolvedValue({
    problem: { code: 'no_answer', message: 'The server does not answer.', faults: [] },
  })
  render(AskField, { productionId: null })
  await type('50')
  expect(await screen.findByRole('alert')).toHaveTextContent('The server does not answer.')
})
