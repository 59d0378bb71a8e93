/** A question in one line, answered while it is typed. */
import { announcer } from './announcer.svelte'
import * as client from './client'
import { Latest } from './latest'
import { pathTo } from './router.svelte'
import type { Asked, Problem } from './types'

export class Asking {
  line = $state('')
  /** The line that was answered last. */
  answered = $state<string | null>(null)
  asked = $state.raw<Asked | null>(null)
  problem = $state.raw<Problem | null>(null)
  readonly #latest = new Latest(
    () => this.line,
    async (line, signal) => {
      const { data, problem } = await client.ask(line, this.productionId ?? undefined, signal)
      this.problem = problem ?? null
      if (!data) return
      this.asked = data
      this.answered = line
      const [first] = data.answers
      if (first) announcer.say(first.told)
    },
    true,
  )

  constructor(readonly productionId: number | null) {
    // The examples come with the first answer.
    this.#latest.want()
  }

  type(line: string) {
    this.line = line
    this.#latest.want()
  }

  /** Where an answer is set on the Bench. */
  benchOf(answer: Asked['answers'][number]): string | null {
    const { bench } = answer
    if (!bench || this.productionId === null) return null
    const set = {
      format: bench.format_id,
      lens: bench.lens_id,
      adapter: bench.adapter_ids.join('.') || null,
      focal: bench.focal_mm,
      stop: bench.stop,
      subject: bench.subject_m,
    }
    const query = Object.entries(set).flatMap(([name, value]) => (value === null ? [] : [`${name}=${value}`]))
    return `${pathTo(this.productionId, 'bench')}?${query.join('&')}`
  }
}
