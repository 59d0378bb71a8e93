/**
 * One question at a time. While one is under way only the newest waits, so that a drag, or fast typing,
 * neither starves nor lags; a question that has waited long for its answer is given up for a newer one.
 */
const STALE_MS = 400

export class Latest<Q> {
  #busy = false
  #again = false
  #asked = 0
  #abort = new AbortController()

  /** `question` is made at the moment of asking; `ask` sends it and takes the answer. */
  constructor(
    private readonly question: () => Q,
    private readonly ask: (question: Q, signal: AbortSignal) => Promise<void>,
  ) {}

  want() {
    if (this.#busy) {
      this.#again = true
      if (performance.now() - this.#asked > STALE_MS) this.#abort.abort()
      return
    }
    void this.#run()
  }

  async #run() {
    this.#busy = true
    do {
      this.#again = false
      this.#asked = performance.now()
      this.#abort = new AbortController()
      try {
        await this.ask(this.question(), this.#abort.signal)
      } catch {
        // Given up for a newer question, which follows.
      }
    } while (this.#again)
    this.#busy = false
  }
}
