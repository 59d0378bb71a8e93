/** Whether the server has all that was typed: one answer for the page, wherever it was typed. */
import { line } from './line.svelte'

/** A document, or a set-up, as it is edited. */
export interface Keeper {
  /** Whether the server has what is shown. */
  readonly kept: boolean
  /** Whether something of it has to be corrected first. */
  readonly refused?: boolean
}

export type Saving = 'saved' | 'saving' | 'waits' | 'refused'

export const SAVING_WORDS: Record<Saving, string> = {
  saved: 'saved',
  saving: 'saving…',
  waits: 'not saved: waits for the server',
  refused: 'not saved until it is corrected',
}

class Keepers {
  #all = $state.raw<readonly Keeper[]>([])

  /** What is open, until it is closed and the server has it. */
  add(keeper: Keeper): () => void {
    this.#all = [...this.#all, keeper]
    return () => (this.#all = this.#all.filter((each) => each !== keeper))
  }

  /** Null where nothing can be typed. */
  readonly state = $derived.by<Saving | null>(() => {
    if (!this.#all.length) return null
    const open = this.#all.filter((each) => !each.kept)
    if (!open.length) return 'saved'
    if (open.every((each) => each.refused)) return 'refused'
    return line.away ? 'waits' : 'saving'
  })
}

export const keepers = new Keepers()

// What only this window has is not closed without a question.
globalThis.addEventListener?.('beforeunload', (event) => {
  if (keepers.state === 'waits') event.preventDefault()
})
