/** Sheets as they are put together, seen as they will be printed, and printed. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { line } from './line.svelte'
import { askedOf } from './sheets'
import type { PrintSeen, Problem, SheetPlan, Sheets, SheetSeen, SheetsKept } from './types'

const ASK_AFTER_MS = 250
const LOOK_MS = 400
const WAIT_MS = 1500
/** So many pages are shown at once. */
export const PAGES = 4

export class SheetsEditor extends DocumentEditor<Sheets, object> {
  constructor(productionId: number, kept: SheetsKept) {
    const kind = {
      draftKey: `hextan.sheets.${productionId}`,
      read: () => client.readSheets(productionId),
      sheet: () => Promise.resolve({ data: {} }),
      write: (version: number, document: Sheets) => client.writeSheets(productionId, version, document),
    }
    super(kind, productionId, { ...kept, id: productionId }, () => {})
  }
}

/** A sheet as it would be printed now; without a line, as it was saved when it was last looked at. */
async function seen(productionId: number, plan: SheetPlan, first: number, most: number) {
  const answer = await client.viewSheet(productionId, plan, first, most)
  if (answer.problem?.code !== 'no_answer') {
    // Asked for once more at its address, beside the page: so that the browser has it.
    if (most && navigator.serviceWorker?.controller)
      void client.seeSavedSheet(productionId, plan.key, first, most)
    return answer
  }
  const saved = await client.seeSavedSheet(productionId, plan.key, first, most || PAGES)
  return saved.data ? saved : answer
}

/** What the server says of a sheet as it would be printed now, without its pages. */
export interface SheetState {
  asked: string
  fingerprint: string
  pages: number
  empty: string
  working: boolean
}

/** The states of all sheets of a bundle: asked one after the other, and again when one is another. */
export class SheetStates {
  known = $state.raw<Readonly<Record<string, SheetState>>>({})
  problem = $state.raw<Problem | null>(null)
  readonly #productionId: number
  #wanted: readonly SheetPlan[] = []
  #busy = false
  #closed = false

  constructor(productionId: number) {
    this.#productionId = productionId
  }

  want(plans: readonly SheetPlan[]) {
    this.#wanted = plans
    if (!this.#busy) void this.#run()
  }

  /** Ask all of them again: the plan may have changed. */
  again() {
    this.known = {}
    this.want(this.#wanted)
  }

  note(plan: SheetPlan, seen: SheetSeen) {
    const state = {
      asked: askedOf(plan),
      fingerprint: seen.fingerprint,
      pages: seen.page_count,
      empty: seen.sheet.why_empty,
      working: seen.working,
    }
    this.known = { ...this.known, [plan.key]: state }
  }

  /** How what was printed of a sheet stands to what would be, in words and as a colour. */
  of(plan: SheetPlan) {
    const state = this.known[plan.key]
    if (!state || state.asked !== askedOf(plan)) return { words: '…', tone: 'soft' }
    if (state.working) return { words: 'looked for …', tone: 'soft' }
    if (state.empty) return { words: 'nothing to print', tone: 'warn' }
    if (!plan.made) return { words: 'not printed', tone: 'soft' }
    return state.fingerprint === plan.made.fingerprint
      ? { words: '✓ current', tone: 'ok' }
      : { words: '≠ plan changed', tone: 'warn' }
  }

  pages(plan: SheetPlan) {
    return this.known[plan.key]?.pages
  }

  close() {
    this.#closed = true
  }

  async #run() {
    this.#busy = true
    for (;;) {
      const next = this.#wanted.find((plan) => this.known[plan.key]?.asked !== askedOf(plan))
      if (!next || this.#closed) break
      const { data, problem } = await seen(this.#productionId, next, 0, 0)
      this.problem = problem ?? null
      if (problem) {
        line.again(() => this.#closed || this.want(this.#wanted))
        break
      }
      this.note(next, data)
    }
    this.#busy = false
  }
}

/** One sheet as it would be printed: some of its pages at a time. */
export class SheetPreview {
  seen = $state.raw<SheetSeen | null>(null)
  problem = $state.raw<Problem | null>(null)
  busy = $state(false)
  first = $state(0)
  readonly #productionId: number
  readonly #onseen: (plan: SheetPlan, seen: SheetSeen) => void
  #timer: ReturnType<typeof setTimeout> | undefined
  #turn = 0
  #plan: SheetPlan | null = null

  constructor(productionId: number, onseen: (plan: SheetPlan, seen: SheetSeen) => void) {
    this.#productionId = productionId
    this.#onseen = onseen
  }

  ask(plan: SheetPlan) {
    const other = this.#plan?.key !== plan.key
    if (!other && this.#plan && askedOf(this.#plan) === askedOf(plan)) return
    if (other) {
      this.seen = null
      this.first = 0
    }
    this.#plan = plan
    this.#soon(other ? 0 : ASK_AFTER_MS)
  }

  turn(first: number) {
    this.first = first
    this.#soon(0)
  }

  retry() {
    this.#soon(0)
  }

  close() {
    clearTimeout(this.#timer)
    this.#turn += 1
  }

  #soon(after: number) {
    clearTimeout(this.#timer)
    this.#turn += 1
    const turn = this.#turn
    this.busy = true
    this.#timer = setTimeout(() => void this.#run(turn), after)
  }

  async #run(turn: number) {
    const plan = this.#plan
    if (!plan) return
    const { data, problem } = await seen(this.#productionId, plan, this.first, PAGES)
    if (turn !== this.#turn) return
    this.busy = false
    this.problem = problem ?? null
    if (problem) line.again(() => turn === this.#turn && this.retry())
    if (!data) return
    if (this.first && this.first >= data.page_count) return this.turn(0)
    this.seen = data
    this.#onseen(plan, data)
    if (data.working) this.#timer = setTimeout(() => void this.#run(turn), WAIT_MS)
    return undefined
  }
}

/** Sheets being printed into one file. */
export class Printing {
  seen = $state.raw<PrintSeen | null>(null)
  problem = $state.raw<Problem | null>(null)
  readonly #productionId: number
  readonly #ondone: (seen: PrintSeen) => void
  #turn = 0

  constructor(productionId: number, ondone: (seen: PrintSeen) => void) {
    this.#productionId = productionId
    this.#ondone = ondone
  }

  get busy() {
    return this.seen?.state === 'running' || this.seen?.state === 'waiting'
  }

  async print(title: string, plans: SheetPlan[]) {
    this.#turn += 1
    const turn = this.#turn
    let answer = await client.beginPrint(this.#productionId, title, plans)
    for (;;) {
      if (turn !== this.#turn) return
      this.problem = answer.problem ?? null
      if (!answer.data) return
      this.seen = answer.data
      if (!this.busy) break
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
      answer = await client.seePrint(this.#productionId, answer.data.name)
    }
    if (this.seen?.state === 'done') this.#ondone(this.seen)
  }

  async stop() {
    if (this.seen) await client.stopPrint(this.#productionId, this.seen.name)
  }

  close() {
    this.#turn += 1
  }
}
