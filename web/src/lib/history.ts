/** Undo and redo over whole states; a drag is one step. */
const MOST = 200
/** Changes of the same kind within this time are one step. */
const ONE_STEP_MS = 900

export class History<T> {
  past: T[] = []
  future: T[] = []
  #kind = ''
  #at = -Infinity

  constructor(
    private readonly now: () => number = () => performance.now(),
    kept?: { past: T[]; future: T[] },
  ) {
    if (kept) {
      this.past = kept.past
      this.future = kept.future
    }
  }

  /** Remember the state before a change. An empty kind is always a step of its own; while it is held, however long, one kind is one. */
  remember(before: T, kind: string, held = false) {
    const now = this.now()
    const same = kind !== '' && kind === this.#kind && (held || now - this.#at < ONE_STEP_MS)
    this.#kind = kind
    this.#at = now
    if (same) return
    this.past = [...this.past, before].slice(-MOST)
    this.future = []
  }

  /** Steps follow what was taken in from elsewhere: undoing one's own does not undo that. */
  rebase(onto: (state: T) => T) {
    this.past = this.past.map(onto)
    this.future = this.future.map(onto)
    this.#kind = ''
  }

  undo(current: T): T | null {
    return this.#step(current, 'past', 'future')
  }

  redo(current: T): T | null {
    return this.#step(current, 'future', 'past')
  }

  #step(current: T, from: 'past' | 'future', to: 'past' | 'future'): T | null {
    const found = this[from].at(-1)
    if (found === undefined) return null
    this[from] = this[from].slice(0, -1)
    this[to] = [...this[to], current]
    this.#kind = ''
    return found
  }
}
