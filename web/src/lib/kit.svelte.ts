/** A question about the whole kit: begins as the Bench is set, stands in the address, is asked anew when it changes. */
import type { Outcome } from './client'
import * as client from './client'
import { faultsOf } from './faults'
import { Latest } from './latest'
import { line } from './line.svelte'
import type { BenchState, KitAsk, Package, Problem } from './types'

/** The part that all questions share, as the Bench has it. */
export const asOnBench = (
  bench: BenchState,
): Required<Pick<KitAsk, 'reference' | 'delivery' | 'crop_ids' | 'unit'>> => ({
  unit: bench.unit,
  reference: bench.reference,
  delivery: bench.delivery,
  crop_ids: bench.crop_ids,
})

function fromAddress(): Record<string, unknown> | null {
  try {
    const ask: unknown = JSON.parse(new URLSearchParams(location.search).get('ask') ?? 'null')
    return typeof ask === 'object' && ask !== null && !Array.isArray(ask)
      ? (ask as Record<string, unknown>)
      : null
  } catch {
    return null
  }
}

export class KitLook<A extends object, T> {
  ask = $state.raw<A | null>(null)
  equipment = $state.raw<Package | null>(null)
  bench = $state.raw<BenchState | null>(null)
  answer = $state.raw<T | null>(null)
  problem = $state.raw<Problem | null>(null)
  readonly faults = $derived(faultsOf(this.problem))
  readonly #latest: Latest<A>

  constructor(
    readonly productionId: number,
    /** The first question; null where the production has nothing to ask about. */
    private readonly first: (bench: BenchState, equipment: Package) => A | null,
    question: (ask: A, signal: AbortSignal) => Promise<Outcome<T>>,
    /** Whether the question stands in the address: one of a page only. */
    private readonly inAddress = true,
  ) {
    this.#latest = new Latest(
      () => this.ask as A,
      async (ask, signal) => {
        const { data, problem } = await question(ask, signal)
        if (data) this.answer = data
        this.problem = problem ?? null
      },
    )
    void this.#load()
  }

  async #load() {
    const [kit, bench] = await Promise.all([
      client.readPackage(this.productionId),
      client.readBench(this.productionId),
    ])
    this.problem = kit.problem ?? bench.problem ?? null
    if (this.problem) line.again(() => void this.#load())
    if (!kit.data || !bench.data) return
    this.equipment = kit.data
    this.bench = bench.data.state
    const begin = this.first(bench.data.state, kit.data)
    if (!begin) return
    // The unit is that of the Bench, whatever it was when the address was copied.
    const told = this.inAddress ? { ...fromAddress() } : {}
    delete told['unit']
    this.ask = { ...begin, ...told }
    this.#latest.want()
  }

  change(part: Partial<A>) {
    if (!this.ask) return
    this.ask = { ...this.ask, ...part }
    if (this.inAddress) {
      history.replaceState(history.state, '', `?ask=${encodeURIComponent(JSON.stringify(this.ask))}`)
    }
    this.#latest.want()
  }
}
