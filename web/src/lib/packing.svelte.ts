/** Packing as it is edited, and the search for a kit: begun anew when something changes, looked at until it is done. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { stockOf, stockRows, type StockRow } from './packing'
import { parsePath, setAt } from './paths'
import type { Packing, PackingKept, PackingView, Problem, SearchSeen } from './types'

/** Until there is a kit, and while what stands around it is looked for. */
const LOOK_MS = { first: 250, rest: 900 }
const BEGIN_AFTER_MS = 350

export class PackingEditor extends DocumentEditor<Packing, PackingView> {
  constructor(productionId: number, kept: PackingKept) {
    const kind = {
      draftKey: `hextan.packing.${productionId}`,
      read: () => client.readPacking(productionId),
      sheet: (document: Packing, signal: AbortSignal) => client.viewPacking(productionId, document, signal),
      write: (version: number, document: Packing) => client.writePacking(productionId, version, document),
    }
    super(kind, productionId, { ...kept, id: productionId }, () => {})
  }
}

/** All things as rows of a grid: what is said of one that nothing was said of yet becomes a row of the stock. */
export class ShownStock {
  readonly #editor: PackingEditor
  constructor(editor: PackingEditor) {
    this.#editor = editor
  }
  readonly rows = $derived.by(() => stockRows(this.#editor.document, this.#editor.sheet?.things ?? []))
  readonly document = $derived({ stock: this.rows })

  readonly faults = $derived.by(() => {
    const { stock } = this.#editor.document
    return Object.fromEntries(
      Object.entries(this.#editor.faults).flatMap(([path, rule]) => {
        const [, at, rest] = /^stock\[(\d+)\](.*)$/.exec(path) ?? []
        const thing = at === undefined ? undefined : stock[Number(at)]?.thing
        const place = this.rows.findIndex(
          (row) => thing && JSON.stringify(row.thing) === JSON.stringify(thing),
        )
        return place < 0 ? [] : [[`stock[${place}]${rest}`, rule]]
      }),
    )
  })

  set(path: string, value: unknown) {
    const changed =
      path === 'stock' ? { stock: value as StockRow[] } : setAt(this.document, parsePath(path), value)
    this.change(changed)
  }

  change(changed: { stock: StockRow[] }) {
    const { document } = this.#editor
    this.#editor.change({ ...document, stock: stockOf(document, this.rows, changed.stock) })
  }
}

/** One search of the server, for whatever is asked for now. */
export class KitSearch {
  seen = $state.raw<SearchSeen | null>(null)
  problem = $state.raw<Problem | null>(null)
  /** Whether what is shown is the answer to something that was changed since. */
  stale = $state(false)
  readonly #productionId: number
  #timer: ReturnType<typeof setTimeout> | undefined
  /** Which question is the newest: answers to others come too late. */
  #turn = 0
  #asked: { document: Packing; kits: string[] } | null = null

  constructor(productionId: number) {
    this.#productionId = productionId
  }

  /** Ask in a moment; what was asked before is no longer wanted. */
  ask(document: Packing, kits: string[]) {
    clearTimeout(this.#timer)
    this.#turn += 1
    this.#asked = { document, kits }
    this.stale = true
    const other = this.seen && this.seen.name !== kits.join('~')
    if (other) this.seen = null
    this.#timer = setTimeout(
      () => void this.#begin(this.#turn, document, kits),
      this.seen ? BEGIN_AFTER_MS : 0,
    )
  }

  async stop() {
    const { seen } = this
    if (seen) await client.stopSearch(this.#productionId, seen.name)
  }

  /** Ask again, after the server was away. */
  retry() {
    if (this.#asked) this.ask(this.#asked.document, this.#asked.kits)
  }

  close() {
    clearTimeout(this.#timer)
    this.#turn += 1
  }

  async #begin(turn: number, document: Packing, kits: string[]) {
    const { data, problem } = await client.beginSearch(this.#productionId, document, kits)
    if (turn !== this.#turn) return
    this.problem = problem ?? null
    if (data) this.#take(turn, data)
  }

  #take(turn: number, now: SearchSeen) {
    const answered = now.kit ?? now.sides
    // Until there is something new, what was found before stays in sight.
    if (answered || now.state === 'failed') this.stale = false
    this.seen = answered || !this.seen ? now : { ...now, kit: this.seen.kit, sides: this.seen.sides }
    if (now.state === 'waiting' || now.state === 'running')
      this.#timer = setTimeout(() => void this.#look(turn, now.name), answered ? LOOK_MS.rest : LOOK_MS.first)
  }

  async #look(turn: number, name: string) {
    const { data, problem } = await client.seeSearch(this.#productionId, name)
    if (turn !== this.#turn) return
    // A server that was started anew knows nothing of it.
    if (problem?.code === 'not_found') return this.retry()
    this.problem = problem ?? null
    if (data) this.#take(turn, data)
  }
}
