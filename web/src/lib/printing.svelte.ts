/** Whether the page is on its way to paper, where nothing scrolls: what is drawn only near the view is drawn whole. */
import { flushSync } from 'svelte'
import { MediaQuery } from 'svelte/reactivity'

class PrintState {
  readonly #print = new MediaQuery('print')
  /** Pages are counted before a change of the medium is told: what prints otherwise has to be there by then. */
  #begun = $state(false)

  constructor() {
    globalThis.addEventListener?.('beforeprint', () => flushSync(() => (this.#begun = true)))
    globalThis.addEventListener?.('afterprint', () => (this.#begun = false))
  }

  get current() {
    return this.#begun || this.#print.current
  }
}

export const printing = new PrintState()
