/**
 * One question at a time. While one is under way only the newest waits, so that a drag, or fast typing,
 * neither starves nor lags: a question that was asked always ends, however slow the line is.
 */
import { late } from './late.svelte'
import { line } from './line.svelte'

/** Whoever has not answered by then is away. */
const PATIENCE_MS = 30_000
/** After so long the figures that are shown are said not to belong to what is set. */
export const LATE_MS = 150

export class Latest<Q> {
  #busy = false
  /** Since when something newer than what is under way waits to be asked. */
  #again: number | null = null
  #timer: ReturnType<typeof setTimeout> | undefined
  #late = false

  /**
   * `question` is made at the moment of asking; `ask` sends it and takes the answer. Where it is `aside`, no figure of the
   * view hangs on it.
   */
  constructor(
    private readonly question: () => Q,
    private readonly ask: (question: Q, signal: AbortSignal) => Promise<void>,
    private readonly aside = false,
  ) {}

  readonly #ask = () => this.want()

  want() {
    if (this.#busy) this.#again ??= performance.now()
    else void this.#run()
  }

  async #run() {
    this.#busy = true
    let since: number | null = performance.now()
    while (since !== null) {
      this.#watch(since)
      this.#again = null
      try {
        await this.ask(this.question(), AbortSignal.timeout(PATIENCE_MS))
      } catch {
        // Its answer is not there; a newer question follows, or the next thing that is changed is asked.
      }
      since = this.#again
    }
    this.#busy = false
    // Where nobody answered, the newest question is asked once more when somebody does.
    line.again(this.#ask)
    this.#watch(null)
  }

  /** Say so once what was wanted since then has waited long; null: nothing waits. */
  #watch(since: number | null) {
    if (this.aside) return
    clearTimeout(this.#timer)
    const left = since === null ? Infinity : LATE_MS - (performance.now() - since)
    this.#say(left <= 0)
    if (left > 0 && left < Infinity) this.#timer = setTimeout(() => this.#say(true), left)
  }

  #say(is: boolean) {
    if (is !== this.#late) late.count += is ? 1 : -1
    this.#late = is
  }
}
