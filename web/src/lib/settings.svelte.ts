/** The package's settings as they are edited: base rate, shutter, cards; kept a moment after each change. */
import * as client from './client'
import { faultsOf, type Faults } from './faults'
import { parsePath, setAt } from './paths'
import type { PackageSettings, Problem } from './types'

const KEEP_AFTER_MS = 500

export class SettingsEditor {
  readonly productionId: number
  settings = $state.raw<PackageSettings | null>(null)
  faults = $state.raw<Faults>({})
  problem = $state.raw<Problem | null>(null)
  /** Grows with each time that new settings are kept. */
  kept = $state(0)
  #version = 0
  #timer: ReturnType<typeof setTimeout> | undefined
  #keeping: Promise<void> = Promise.resolve()

  constructor(productionId: number) {
    this.productionId = productionId
    void this.#read()
  }

  async #read() {
    const { data, problem } = await client.readSettings(this.productionId)
    this.problem = problem ?? null
    if (!data) return
    this.settings = data.settings
    this.#version = data.version
    this.kept += 1
  }

  set(path: string, value: unknown) {
    if (!this.settings) return
    this.settings = setAt(this.settings, parsePath(path), value)
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => this.settle(), KEEP_AFTER_MS)
  }

  fault(path: string): string | undefined {
    return this.faults[path]
  }

  /** Keep at once what still waits; one write at a time. */
  settle() {
    clearTimeout(this.#timer)
    this.#keeping = this.#keeping.then(() => this.#keep())
  }

  async #keep() {
    const { settings } = this
    if (!settings) return
    const { data, problem } = await client.writeSettings(this.productionId, this.#version, settings)
    this.faults = faultsOf(problem, 'settings.')
    this.problem = problem && problem.code !== 'invalid_input' ? problem : null
    if (!data) return
    this.#version = data.version
    this.kept += 1
  }

  /** After somebody else kept other settings: read theirs. */
  takeTheirs() {
    void this.#read()
  }
}
