/** The list of shots as it is edited, and the part of it that is shown. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { byKey, merged, passes, shownFaults, type ShotFilter } from './shotList'
import type { Shot, ShotList, ShotsKept, ShotsView } from './types'

export class ShotsEditor extends DocumentEditor<ShotList, ShotsView> {
  constructor(productionId: number, kept: ShotsKept) {
    const kind = {
      draftKey: `hextan.shots.${productionId}`,
      read: () => client.readShots(productionId),
      sheet: (document: ShotList, signal: AbortSignal) => client.viewShots(productionId, document, signal),
      write: (version: number, document: ShotList) => client.writeShots(productionId, version, document),
    }
    super(kind, productionId, { ...kept, id: productionId }, () => {})
  }

  /** Answers by the key of their shot. */
  readonly answers = $derived(byKey(this.sheet?.answers ?? []))
}

/** The rows that are shown, as if they were the whole document: edits find their way into the list. */
export class ShownShots {
  readonly #editor: ShotsEditor
  readonly #filter: () => ShotFilter
  constructor(editor: ShotsEditor, filter: () => ShotFilter) {
    this.#editor = editor
    this.#filter = filter
  }

  readonly rows = $derived.by(() => {
    const filter = this.#filter()
    return this.#editor.document.shots.filter((shot) =>
      passes(filter, shot, this.#editor.answers.get(shot.key)),
    )
  })
  readonly document = $derived({ shots: this.rows })

  readonly faults = $derived.by(() =>
    shownFaults(this.#editor.document.shots, this.rows, this.#editor.faults, this.#editor.answers),
  )

  set(path: string, value: unknown) {
    const [, at, rest] = /^shots\[(\d+)\](.*)$/.exec(path) ?? []
    if (at === undefined) {
      // A block that was pasted, or rows that were added: all that is shown is said anew.
      if (path === 'shots') this.change({ shots: value as Shot[] })
      return
    }
    const shot = this.rows[Number(at)]
    const index = this.#editor.document.shots.findIndex((row) => row.key === shot?.key)
    if (index >= 0) this.#editor.set(`shots[${index}]${rest}`, value)
  }

  change(document: { shots: Shot[] }) {
    const { shots } = this.#editor.document
    this.#editor.change({ ...this.#editor.document, shots: merged(shots, this.rows, document.shots) })
  }
}
