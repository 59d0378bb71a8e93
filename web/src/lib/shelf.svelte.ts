/** A list of documents of a production with the one that is open: bodies, or lens sets. */
import type { Outcome } from './client'
import { hearKept, listAt, tellKept } from './otherTabs'
import { router } from './router.svelte'
import type { Problem } from './types'

interface Row {
  id: number
  version: number
}

/** What an editor of one document offers to its list. */
export interface OpenDocument {
  readonly id: number
  readonly version: number
  readonly document: unknown
  readonly steps: { back: number; forth: number }
  undo(): void
  redo(): void
  settle(): Promise<boolean>
  close(): void
}

export interface ShelfKind<R extends Row, K extends { id: number }, E extends OpenDocument, A> {
  /** Address of the list; a document is below it by its number. */
  path: string
  list: () => Promise<Outcome<{ here: R[]; removed: R[] }>>
  read: (id: number) => Promise<Outcome<K>>
  add: (from: A) => Promise<Outcome<K>>
  remove: (id: number, version: number, removed: boolean) => Promise<Outcome<K>>
  edit: (kept: K, onkept: () => void) => E
}

export class Shelf<R extends Row, K extends { id: number }, E extends OpenDocument, A> {
  rows = $state.raw<R[] | null>(null)
  removed = $state.raw<R[]>([])
  editor = $state.raw<E | null>(null)
  notes = $state.raw<string[]>([])
  /** What was refused of the last thing that was done; apart from it, why list or document could not be read. */
  refused = $state.raw<Problem | null>(null)
  #unread = $state.raw<{ list: Problem | null; document: Problem | null }>({ list: null, document: null })
  readonly problem = $derived(this.refused ?? this.#unread.list ?? this.#unread.document)
  readonly current = $derived(this.rows?.find((row) => row.id === this.editor?.id))
  /** The document that was asked for last; none when the view is left. */
  #newest: number | null = null

  /** Hears of what another window adds, takes away or renames. */
  readonly #deaf: () => void

  constructor(private readonly kind: ShelfKind<R, K, E, A>) {
    this.#deaf = hearKept(listAt(this.kind.path), () => void this.refresh())
  }

  /** After something was done here: the list anew, here and in other windows. */
  async #changed() {
    await this.refresh()
    tellKept(listAt(this.kind.path), 0)
  }

  async refresh() {
    const { data, problem } = await this.kind.list()
    if (data) {
      this.rows = data.here
      this.removed = data.removed
    }
    this.#unread = { ...this.#unread, list: problem ?? null }
  }

  /** Open a document in the place of the one before it. */
  async open(id: number | null) {
    this.#newest = id
    if (id === null || this.editor?.id === id) return
    const { data, problem } = await this.kind.read(id)
    if (id !== this.#newest) return
    this.#unread = { ...this.#unread, document: problem ?? null }
    if (!data) return
    this.editor?.close()
    // What is kept after the view is left has no list to refresh.
    this.editor = this.kind.edit(data, () => void (this.#newest !== null && this.#changed()))
  }

  leave() {
    this.#newest = null
    this.#deaf()
    this.editor?.close()
  }

  hrefOf = (id: number) => `${this.kind.path}/${id}`

  async add(from: A) {
    const { data, problem } = await this.kind.add(from)
    this.refused = problem ?? null
    if (data) await this.show(data.id)
  }

  /** After something came in: the list anew, and the new one open. */
  async show(id: number) {
    await this.#changed()
    router.go(this.hrefOf(id))
  }

  async setRemoved(row: Row, removed: boolean) {
    const open = this.editor?.id === row.id ? this.editor : null
    if (open) await open.settle()
    const { problem } = await this.kind.remove(row.id, open?.version ?? row.version, removed)
    this.refused = problem ?? null
    await this.#changed()
    if (problem) return
    if (removed && open) {
      open.close()
      this.editor = null
      router.go(this.kind.path, true)
    } else if (!removed) router.go(this.hrefOf(row.id))
  }
}
