import { printing } from '../../lib/printing.svelte'

/** Of a long list only the rows near the view are drawn; the rest is height. */
export class Windowed {
  first = $state(0)
  last = $state(0)
  rowPx = $state(28)
  readonly #count: () => number
  readonly #body: () => HTMLElement | undefined

  /** Up to this many rows are all drawn. */
  static readonly ALL = 60
  /** Rows that are drawn beyond the view on either side. */
  static readonly MARGIN = 5

  constructor(count: () => number, body: () => HTMLElement | undefined) {
    this.#count = count
    this.#body = body
    this.last = Windowed.ALL
  }

  get range(): { from: number; to: number } {
    const count = this.#count()
    if (count <= Windowed.ALL || printing.current) return { from: 0, to: count }
    const to = Math.min(count, Math.max(this.last, Windowed.MARGIN))
    return { from: Math.max(0, Math.min(this.first, to - 1)), to }
  }

  /** Look again which rows are in view: after scrolling and resizing. */
  look() {
    const body = this.#body()
    if (!body || this.#count() <= Windowed.ALL) return
    // With fractions: over hundreds of rows, rounded pixels would add up to whole rows.
    const high = body.querySelector('tr[data-key]')?.getBoundingClientRect().height
    if (high) this.rowPx = high
    const top = body.getBoundingClientRect().top
    this.first = Math.max(0, Math.floor(-top / this.rowPx) - Windowed.MARGIN)
    this.last = Math.ceil((innerHeight - top) / this.rowPx) + Windowed.MARGIN
  }

  /** Have a row drawn, and scroll to it where it is not. */
  reveal(index: number) {
    const body = this.#body()
    const { from, to } = this.range
    if (!body || (index >= from && index < to)) return
    scrollTo(0, scrollY + body.getBoundingClientRect().top + index * this.rowPx - innerHeight / 2)
    this.look()
  }
}
