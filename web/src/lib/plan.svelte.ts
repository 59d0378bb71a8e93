/** The plan: which kit it was made by, and what does not agree with it any more. */
import * as client from './client'
import type { Packing, PlanKept, PlanState, Problem } from './types'

export class PlanNow {
  view = $state.raw<PlanState | null>(null)
  /** What can be gone back to. */
  before = $state.raw<PlanKept['before']>(null)
  problem = $state.raw<Problem | null>(null)
  busy = $state(false)
  readonly #productionId: number
  #version = 0

  constructor(productionId: number) {
    this.#productionId = productionId
    void this.read()
  }

  async read() {
    const { data, problem } = await client.readPlan(this.#productionId)
    this.#take(data, problem)
  }

  /** Let a kit be the plan, as it was found; no kit any more without one. */
  make(document: Packing, kit: string | null) {
    return this.#write(document, kit, null)
  }

  /** Let the plan be again what it was before this one. */
  async back(document: Packing) {
    if (this.before) await this.#write(document, null, this.before.version)
  }

  async #write(document: Packing, kit: string | null, backTo: number | null) {
    if (this.busy) return
    this.busy = true
    const { data, problem } = await client.writePlan(this.#productionId, this.#version, document, kit, backTo)
    this.busy = false
    this.#take(data, problem)
    if (problem?.code !== 'stale_write') return
    // Somebody else made another plan meanwhile: that one is shown, and why this one was not made.
    await this.read()
    this.problem = problem
  }

  #take(data: PlanKept | undefined, problem: Problem | undefined) {
    this.problem = problem ?? null
    if (!data) return
    this.#version = data.version
    this.view = data.plan
    this.before = data.before
  }
}
