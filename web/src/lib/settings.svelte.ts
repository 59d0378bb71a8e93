/** The package's settings as they are edited: base rate, shutter, cards; a document like any other, once it is read. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { line } from './line.svelte'
import type { PackageSettings, Problem } from './types'

/** Nothing follows from them before they are kept. */
const nothing = () => Promise.resolve({ data: {} })

class KeptSettings extends DocumentEditor<PackageSettings, object> {
  constructor(
    productionId: number,
    first: { version: number; settings: PackageSettings },
    onkept: () => void,
  ) {
    const asDocument = ({ version, settings }: { version: number; settings: PackageSettings }) => ({
      version,
      document: settings,
    })
    const kind = {
      draftKey: `hextan.settings.${productionId}`,
      read: async () => {
        const { data, problem } = await client.readSettings(productionId)
        return data ? { data: asDocument(data) } : { problem }
      },
      sheet: nothing,
      write: async (version: number, document: PackageSettings) => {
        const { data, problem } = await client.writeSettings(productionId, version, document)
        if (data) return { data: asDocument(data) }
        const { stored, ...rest } = problem
        // The fields are those of the document itself.
        const faults = rest.faults.map((f) => ({ ...f, field: f.field.replace(/^settings\./, 'document.') }))
        return { problem: { ...rest, faults, ...(stored ? { stored: asDocument(stored) } : {}) } }
      },
    }
    super(kind, productionId, { ...asDocument(first), id: productionId }, onkept)
  }
}

export class SettingsEditor {
  readonly productionId: number
  /** Grows with each time that new settings are kept. */
  kept = $state(0)
  #editor = $state.raw<KeptSettings | null>(null)
  #unread = $state.raw<Problem | null>(null)
  #left = false

  constructor(productionId: number) {
    this.productionId = productionId
    void this.#read()
  }

  get settings(): PackageSettings | null {
    return this.#editor?.document ?? null
  }
  get problem() {
    return this.#editor?.problem ?? this.#unread
  }
  get differences() {
    return this.#editor?.differences ?? null
  }
  get undo() {
    const now = this.#editor
    return now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() }
  }

  async #read() {
    const { data, problem } = await client.readSettings(this.productionId)
    this.#unread = problem ?? null
    if (problem) line.again(() => void this.#read())
    if (!data || this.#left) return
    this.#editor = new KeptSettings(this.productionId, data, () => (this.kept += 1))
    this.kept += 1
  }

  set(path: string, value: unknown) {
    this.#editor?.set(path, value)
  }

  fault(path: string): string | undefined {
    return this.#editor?.fault(path)
  }

  resolve(take: 'theirs' | 'mine') {
    this.#editor?.resolve(take)
  }

  /** Keep at once what still waits. */
  settle() {
    void this.#editor?.settle()
  }

  /** When another view takes its place. */
  close() {
    this.#left = true
    this.#editor?.close()
  }
}
