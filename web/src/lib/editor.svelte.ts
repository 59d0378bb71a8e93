/** A document as it is edited: what follows from it, undo, and keeping it. Bodies, lens sets, mounts and adapters. */
import type { Outcome, WriteProblem } from './client'
import { faultsOf, type Faults } from './faults'
import { History } from './history'
import { announcer } from './announcer.svelte'
import { Latest } from './latest'
import { line } from './line.svelte'
import { merged, type Difference } from './merging'
import { alike, getAt, parsePath, setAt, type Step } from './paths'
import type { Problem } from './types'
import { hearKept, tellKept } from './otherTabs'
import { keepers } from './saving.svelte'

const KEEP_AFTER_MS = 700

/** How one kind of document is asked about and kept. */
export interface DocumentKind<D, S> {
  /** Names the draft in the browser's storage. */
  draftKey: string
  /** What is kept now. */
  read: () => Promise<Outcome<{ version: number; document: D }>>
  sheet: (document: D, signal: AbortSignal) => Promise<Outcome<S>>
  write: (
    version: number,
    document: D,
  ) => Promise<Outcome<{ version: number; document: D }, WriteProblem<{ version: number; document: D }>>>
}

export class DocumentEditor<D, S> {
  readonly productionId: number
  readonly id: number
  document = $state.raw<D>() as D
  sheet = $state.raw<S | null>(null)
  /** Rules that are broken, by the path of the field. */
  faults = $state.raw<Faults>({})
  problem = $state.raw<Problem | null>(null)
  /** What another window kept where this one has something else, and where. */
  conflict = $state.raw<{ version: number; document: D } | null>(null)
  differences = $state.raw<Difference[] | null>(null)
  steps = $state.raw({ back: 0, forth: 0 })
  kept = $state(true)
  version = $state(0)

  readonly #onkept: () => void
  readonly #kind: DocumentKind<D, S>
  #history = new History<D>()
  /** What was kept last, as far as this window knows: changes are told from it. */
  #base: D
  readonly #deaf: () => void
  /** The document of which the faults speak. */
  #checked: D | null = null
  #keeping: Promise<void> = Promise.resolve()
  #timer: ReturnType<typeof setTimeout> | undefined
  /** What was closed is still kept, once the server is back. */
  #closed = false
  #latest = new Latest(
    () => this.document,
    async (document, signal) => {
      const { data, problem } = await this.#kind.sheet(document, signal)
      if (document === this.document) this.#take(data ?? null, problem ?? null)
    },
  )
  readonly #leave = () => void this.#keep()
  readonly #again = () => void this.#keep()
  readonly #noMore: () => void
  /** What was kept elsewhere while nobody looked here, on another machine too. */
  readonly #look = () => {
    if (globalThis.document.visibilityState === 'visible') void this.#hear(Infinity)
  }

  constructor(
    kind: DocumentKind<D, S>,
    productionId: number,
    kept: { id: number; version: number; document: D },
    onkept: () => void,
  ) {
    this.#kind = kind
    this.productionId = productionId
    this.id = kept.id
    this.version = kept.version
    this.#onkept = onkept
    this.#base = kept.document
    const draft = this.#draft()
    this.document = draft?.document ?? kept.document
    this.kept = draft === null
    // A draft that was begun before another window kept its own: both, put together.
    if (draft && draft.version !== kept.version) {
      this.version = draft.version
      this.#base = draft.base
      this.#takeIn(kept)
    }
    this.#latest.want()
    this.#noMore = keepers.add(this)
    this.#deaf = hearKept(kind.draftKey, (version) => void this.#hear(version))
    addEventListener('pagehide', this.#leave)
    globalThis.document?.addEventListener('visibilitychange', this.#look)
  }

  close() {
    this.#deaf()
    removeEventListener('pagehide', this.#leave)
    globalThis.document?.removeEventListener('visibilitychange', this.#look)
    clearTimeout(this.#timer)
    this.#closed = true
    void this.#keep()
  }

  /** Whether something has to be corrected, or decided, before it can be kept. */
  get refused(): boolean {
    return this.conflict !== null || Object.keys(this.faults).length > 0
  }

  /** Say something else at a path; what is typed into one field in quick succession is one step of undo. */
  set(path: string | readonly Step[], value: unknown) {
    const steps = typeof path === 'string' ? parsePath(path) : path
    if (Object.is(getAt(this.document, steps), value)) return
    this.change(setAt(this.document, steps, value), steps.join('.'))
  }

  change(document: D, kind = '') {
    this.#history.remember(this.document, kind)
    this.#show(document)
  }

  undo() {
    const found = this.#history.undo(this.document)
    if (found) this.#show(found)
  }

  redo() {
    const found = this.#history.redo(this.document)
    if (found) this.#show(found)
  }

  fault(path: string): string | undefined {
    return this.faults[path]
  }

  /** Ask and keep again, after the server was away. */
  retry() {
    this.#latest.want()
    void this.#keep()
  }

  /** After a conflict: where both changed one place, it says theirs or mine; nothing else of either is lost. */
  resolve(take: 'theirs' | 'mine') {
    const { conflict } = this
    if (!conflict) return
    const both = merged(this.#base, this.document, conflict.document)
    const other = take === 'mine' ? 'theirs' : 'mine'
    this.conflict = null
    this.differences = null
    this.version = conflict.version
    this.#rebase(both.mine)
    this.#base = conflict.document
    // The other way is one step of undo away.
    this.#history.remember(both[other], '')
    this.#show(both[take])
  }

  /** What the server made of the body by another way: it is kept already. */
  replace(kept: { version: number; document: D }) {
    this.#history.remember(this.document, '')
    this.version = kept.version
    this.#base = kept.document
    this.#show(kept.document)
    this.kept = true
    clearTimeout(this.#timer)
    this.#note(null)
    this.#onkept()
  }

  /** Keep at once what still waits. */
  async settle(): Promise<boolean> {
    clearTimeout(this.#timer)
    await this.#keep()
    return this.kept
  }

  /** What another window kept, once this one's own write is through. */
  #hear(version: number): Promise<void> {
    this.#keeping = this.#keeping.then(async () => {
      if (version <= this.version || this.conflict) return
      const { data } = await this.#kind.read()
      if (data && data.version > this.version) this.#takeIn(data)
    })
    return this.#keeping
  }

  /** Take in what was kept elsewhere: what is changed here stays, and places that both changed are asked about. */
  #takeIn(kept: { version: number; document: D }) {
    const both = merged(this.#base, this.document, kept.document)
    if (both.differences.length) {
      this.conflict = kept
      this.differences = both.differences
      return
    }
    this.#rebase(both.mine)
    this.version = kept.version
    this.#base = kept.document
    this.document = both.mine
    this.kept = alike(both.mine, kept.document)
    this.#note(this.kept ? null : this.document)
    this.#latest.want()
    if (this.kept) this.#onkept()
    else this.#keepSoon()
    announcer.say('Changed in another window, and taken in here.')
  }

  /** Undo takes back what was done here, not what came from elsewhere. */
  #rebase(after: D) {
    const before = this.document
    this.#history.rebase((state) => merged(before, state, after).mine)
  }

  #show(document: D) {
    this.document = document
    this.kept = false
    this.steps = { back: this.#history.past.length, forth: this.#history.future.length }
    this.#note(document)
    this.#latest.want()
    this.#keepSoon()
  }

  #keepSoon() {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => void this.#keep(), KEEP_AFTER_MS)
  }

  #take(sheet: S | null, problem: Problem | null) {
    if (sheet) this.sheet = sheet
    const refused = Object.keys(this.faults).length > 0
    this.faults = { ...this.#standing(problem), ...faultsOf(problem, 'document.') }
    // What had to wait for a correction can be kept now.
    if (refused && sheet) this.#keepSoon()
    this.problem = problem && problem.faults.length === 0 ? problem : null
  }

  /**
   * While a figure is malformed, the server cannot say whether the rest goes together: what it said of that before
   * stands for figures that have not changed since.
   */
  #standing(problem: Problem | null): Faults {
    const before = this.#checked
    this.#checked = this.document
    if (problem?.code !== 'invalid_input') return {}
    const same = (path: string) => getAt(before, parsePath(path)) === getAt(this.document, parsePath(path))
    return Object.fromEntries(Object.entries(this.faults).filter(([path]) => same(path)))
  }

  /** One write at a time, each from the version that the one before it made. */
  #keep(): Promise<void> {
    this.#keeping = this.#keeping.then(async () => {
      await this.#keepNow()
      if (!this.kept && !this.refused) line.again(this.#again)
      if (this.#closed && (this.kept || this.refused || !line.away)) this.#noMore()
    })
    return this.#keeping
  }

  async #keepNow() {
    const { document } = this
    if (this.kept || this.refused) return
    const { data, problem } = await this.#kind.write(this.version, document)
    if (data) {
      if (this.problem?.code === 'no_answer') this.problem = null
      this.version = data.version
      this.#base = data.document ?? document
      tellKept(this.#kind.draftKey, data.version)
      if (document === this.document) {
        // What was kept may say more than what was typed: a distance its unit.
        if (data.document && !alike(data.document, document)) this.document = data.document
        this.kept = true
        this.#note(null)
      }
      this.#onkept()
    } else if (problem.stored) {
      this.#takeIn(problem.stored)
    } else if (problem.faults.length > 0) {
      // Refused a moment before the sheet has said so at the field.
      this.faults = faultsOf(problem, 'document.')
    } else this.problem = problem
  }

  /** What is not kept yet survives a reload, also while a field of it is refused. */
  #note(document: D | null) {
    try {
      if (document) {
        const draft = { version: this.version, base: this.#base, document }
        sessionStorage.setItem(this.#kind.draftKey, JSON.stringify(draft))
      } else sessionStorage.removeItem(this.#kind.draftKey)
    } catch {
      // Storage may be full or switched off: what is not kept then lasts until the page is left.
    }
  }

  #draft(): { version: number; base: D; document: D } | null {
    try {
      const draft = JSON.parse(sessionStorage.getItem(this.#kind.draftKey) ?? 'null')
      return draft?.version === this.version || draft?.base ? { base: this.#base, ...draft } : null
    } catch {
      return null
    }
  }
}
