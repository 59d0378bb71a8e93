/** The list of shots as it is edited, and the part of it that is shown. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { byKey, merged, passes, shownFaults, type ShotFilter } from './shotList'
import type { ListedAnswer, ListedShots, Shot, ShotList, ShotsKept } from './types'

export class ShotsEditor extends DocumentEditor<ShotList, ListedShots> {
  constructor(productionId: number, kept: ShotsKept) {
    /** Answers that came once: only those that are others come again. */
    let known: ReadonlyMap<string, ListedAnswer> = byKey([])
    const kind = {
      draftKey: `hextan.shots.${productionId}`,
      read: () => client.readShots(productionId),
      sheet: async (document: ShotList, signal: AbortSignal) => {
        const tags = Object.fromEntries([...known].map(([key, { tag }]) => [key, tag]))
        const found = await client.listShots(productionId, document, tags, signal)
        if (!found.data) return found
        known = byKey([...known.values(), ...found.data.answers])
        const answers = document.shots.flatMap((shot) => known.get(shot.key) ?? [])
        return { data: { ...found.data, answers } }
      },
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
