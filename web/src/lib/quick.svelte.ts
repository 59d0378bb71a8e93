/** What is typed of new equipment: understood with each letter, kept once it is whole. */
import type { Outcome } from './client'
import { Draft } from './draft.svelte'
import { Latest } from './latest'
import type { Problem } from './types'

export class Quick<A extends object, T> {
  answer = $state.raw<T | null>(null)
  problem = $state.raw<Problem | null>(null)
  keeping = $state(false)
  readonly #draft: Draft<A>
  readonly #latest: Latest<A>

  /** `key` is where the draft is; `understand` asks the server what it means. */
  constructor(key: string, empty: A, understand: (asked: A, signal: AbortSignal) => Promise<Outcome<T>>) {
    this.#draft = new Draft(key, empty)
    this.#latest = new Latest(
      () => this.#draft.value,
      async (asked, signal) => {
        const { data, problem } = await understand(asked, signal)
        this.problem = problem ?? null
        if (data) this.answer = data
      },
    )
    this.#latest.want()
  }

  get asked(): A {
    return this.#draft.value
  }

  set(part: Partial<A>) {
    this.#draft.set({ ...this.asked, ...part })
    this.#latest.want()
  }

  /** Keep it; what was typed is let go only when it is kept. */
  async keep<K>(write: () => Promise<Outcome<K>>): Promise<K | undefined> {
    if (this.keeping) return undefined
    this.keeping = true
    const { data, problem } = await write()
    this.keeping = false
    this.problem = problem ?? null
    if (data) this.#draft.clear()
    return data
  }
}
