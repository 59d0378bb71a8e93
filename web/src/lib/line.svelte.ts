/** The line to the server, for all that asks and keeps: whether it is there, and who asks again when it is back. */
import { whenBack } from './reconnect'

export class Line {
  /** Whether the last question was answered by nobody. */
  away = $state(false)
  // Never shown.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  readonly #waiting = new Set<() => void>()
  #stop: (() => void) | null = null

  constructor(private readonly watch: (back: () => void) => () => void = whenBack) {}

  /** Nobody answered. */
  lost() {
    this.away = true
    this.#stop ??= this.watch(() => this.found())
  }

  /** Ask again once when the server is back, where nobody answered just now. */
  again(ask: () => void) {
    if (this.away) this.#waiting.add(ask)
  }

  /** Somebody answered. */
  found() {
    if (!this.away) return
    this.away = false
    this.#stop?.()
    this.#stop = null
    const asks = [...this.#waiting]
    this.#waiting.clear()
    for (const ask of asks) ask()
  }
}

export const line = new Line()
