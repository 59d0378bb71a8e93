/** A question that follows what it is asked about: the newest answer, and why there is none. */
import type { Outcome } from './client'
import { faultsOf } from './faults'
import { Latest } from './latest'
import type { Problem } from './types'

export class Look<Q, A> {
  answer = $state.raw<A | null>(null)
  problem = $state.raw<Problem | null>(null)
  readonly faults = $derived(faultsOf(this.problem, 'state.'))
  readonly #latest: Latest<Q>

  constructor(question: () => Q, ask: (question: Q, signal: AbortSignal) => Promise<Outcome<A>>) {
    this.#latest = new Latest(question, async (asked, signal) => {
      const { data, problem } = await ask(asked, signal)
      if (data) this.answer = data
      this.problem = problem ?? null
    })
  }

  want() {
    this.#latest.want()
  }
}

/** A look that asks whenever what it asks about changes; the question itself is made at the moment of asking. */
export function follow<Q, A>(...look: ConstructorParameters<typeof Look<Q, A>>): Look<Q, A> {
  const following = new Look(...look)
  $effect(() => {
    look[0]()
    following.want()
  })
  return following
}
