/** The Bench: its state, the answer to it, undo, and keeping it. */
import { fromQuery, toQuery } from './address'
import * as client from './client'
import { History } from './history'
import { withMoved } from './ladder'
import { Latest } from './latest'
import { line } from './line.svelte'
import { apart, type Difference } from './merging'
import { pathTo } from './router.svelte'
import { keepers } from './saving.svelte'
import type { BenchState, BenchView, FormatPlace, Lens, Package, Problem } from './types'

const KEEP_AFTER_MS = 600
const NOTE_AFTER_MS = 150

export class Bench {
  readonly productionId: number
  readonly package: Package
  readonly places: Map<number, FormatPlace>
  readonly lenses: Lens[]
  state = $state.raw<BenchState>() as BenchState
  view = $state.raw<BenchView | null>(null)
  problem = $state.raw<Problem | null>(null)
  conflict = $state.raw<{ version: number; state: BenchState } | null>(null)
  open = $state.raw<number[]>([])
  steps = $state.raw({ back: 0, forth: 0 })
  dragging = $state(false)
  /** How far the plan view is to reach, metres; null as the subject asks. */
  reach = $state.raw<number | null>(null)

  #version: number
  #history: History<BenchState>
  /** While something is dragged: the rows of the ladder that are in sight; null as long as nobody has said which. */
  inSight: readonly number[] | null = null
  #latest = new Latest(
    () => ({
      state: this.state,
      open_rows: this.open,
      plan_extent_m: this.dragging ? (this.view?.plan.extent_m ?? null) : this.reach,
      // All else of the Bench stands still in a drag, and follows when the hand rests.
      format_ids: this.dragging && this.#movedAlone ? this.inSight : null,
    }),
    async ({ format_ids, open_rows, ...ask }, signal) => {
      if (format_ids) return this.#move({ ...ask, format_ids: [...format_ids] }, signal)
      const { data, problem } = await client.viewBench(this.productionId, { ...ask, open_rows }, signal)
      if (data) {
        this.view = data
        this.#answered = ask.state
      }
      this.problem = problem ?? null
    },
  )
  /** What the whole answer that is shown was asked for. */
  #answered: BenchState | null = null
  /** Whether what is held was moved already: a hand that rests a while makes no second step of undo. */
  #moved = false
  #noteTimer: ReturnType<typeof setTimeout> | undefined
  /** What is on its way to be kept. */
  #sent: BenchState | null = null
  /** Whether the server has what is shown. */
  kept = $state(true)
  #keepTimer: ReturnType<typeof setTimeout> | undefined

  constructor(
    productionId: number,
    equipment: Package,
    version: number,
    state: BenchState,
    /** What had to be replaced because it is gone. */
    readonly notes: string[],
  ) {
    this.productionId = productionId
    this.package = equipment
    // Never changes after this, so it needs no reactivity.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    this.places = new Map(
      equipment.bodies.flatMap((body) =>
        body.modes.flatMap((mode) =>
          mode.formats.map((format) => [format.id, { body, mode, format }] as const),
        ),
      ),
    )
    this.lenses = equipment.lens_sets.flatMap((set) => set.lenses)
    this.#version = version
    this.#history = new History(undefined, this.#keptHistory())
    this.state = state
    this.steps = { back: this.#history.past.length, forth: this.#history.future.length }
    this.#latest.want()
    addEventListener('pagehide', this.#leave)
    this.#noMore = keepers.add(this)
  }

  /** When another view takes its place. */
  close() {
    removeEventListener('pagehide', this.#leave)
    clearTimeout(this.#noteTimer)
    clearTimeout(this.#keepTimer)
    this.#closed = true
    void this.#keep()
  }

  readonly #noMore: () => void
  #closed = false
  readonly #again = () => void this.#keep()
  readonly #leave = () => this.#keepNow()

  get place(): FormatPlace | undefined {
    return this.places.get(this.state.format_id)
  }

  get lens(): Lens | undefined {
    return this.lenses.find((lens) => lens.id === this.state.lens_id)
  }

  /** Change the state. Changes of one kind in quick succession are one step of undo. */
  change(part: Partial<BenchState>, kind = '') {
    this.#history.remember(this.state, kind, this.#moved)
    this.#moved = this.dragging
    this.#set({ ...this.state, ...part }, kind !== '')
  }

  undo() {
    const found = this.#history.undo(this.state)
    if (found) this.#set(found)
  }

  redo() {
    const found = this.#history.redo(this.state)
    if (found) this.#set(found)
  }

  toggleOpen(formatId: number) {
    this.open = this.open.includes(formatId)
      ? this.open.filter((id) => id !== formatId)
      : [...this.open, formatId]
    this.#latest.want()
  }

  setReach(metres: number | null) {
    this.reach = metres
    this.#latest.want()
  }

  drag(on: boolean) {
    this.dragging = on
    this.#moved = false
    if (on) return
    this.inSight = null
    this.#note()
    this.#latest.want()
  }

  /** Whether nothing but places differ from what the whole answer is of. */
  get #movedAlone(): boolean {
    const { subject_m, focus_m, scene } = this.state
    return this.#answered !== null && same({ ...this.#answered, subject_m, focus_m, scene }, this.state)
  }

  /** What a move changes, in what is shown already. */
  async #move(ask: Parameters<typeof client.moveBench>[1], signal: AbortSignal) {
    const { data, problem } = await client.moveBench(this.productionId, ask, signal)
    if (data && this.view) this.view = { ...this.view, ...data, rows: withMoved(this.view.rows, data.rows) }
    this.problem = problem ?? null
  }

  /** Ask and keep again, after the server was away. */
  retry() {
    this.#latest.want()
    if (!this.kept) this.#keepTimer = setTimeout(() => void this.#keep(), KEEP_AFTER_MS)
  }

  /** Whether it has to be decided, or mended, before it can be kept. */
  get refused(): boolean {
    return this.conflict !== null || (this.problem !== null && this.problem.code !== 'no_answer')
  }

  /** After a conflict: take what is kept, or write this one over it. */
  resolve(take: 'theirs' | 'mine') {
    const { conflict } = this
    if (!conflict) return
    this.conflict = null
    this.#version = conflict.version
    if (take === 'theirs') {
      this.change(conflict.state)
      return
    }
    // A set-up is one thing: the other one is a step of undo away.
    this.#history.remember(conflict.state, '')
    this.#set(this.state)
  }

  /** Where the other one says something else. */
  get differences(): Difference[] | null {
    const { conflict } = this
    return conflict && apart(this.#named(this.state), this.#named(conflict.state))
  }

  /** With the names of what a state has by its number. */
  #named(state: BenchState) {
    const place = this.places.get(state.format_id)
    const lens = this.lenses.find((each) => each.id === state.lens_id)
    return {
      ...state,
      format_id: place ? `${place.format.name}, ${place.body.name}` : state.format_id,
      lens_id: lens?.name ?? state.lens_id,
    }
  }

  #set(state: BenchState, quick = false) {
    this.state = state
    const { past, future } = this.#history
    if (past.length !== this.steps.back || future.length !== this.steps.forth) {
      this.steps = { back: past.length, forth: future.length }
    }
    this.#latest.want()
    clearTimeout(this.#noteTimer)
    // Browsers ration changes of the address: a drag is noted when it ends, and quick steps once they rest.
    if (quick && !this.dragging) this.#noteTimer = setTimeout(() => this.#note(), NOTE_AFTER_MS)
    else if (!quick) this.#note()
    clearTimeout(this.#keepTimer)
    this.#keepTimer = setTimeout(() => void this.#keep(), KEEP_AFTER_MS)
    this.kept = false
  }

  /** Write the state into the address, and the steps of undo into the session. */
  #note() {
    history.replaceState(history.state, '', `?${toQuery(this.state)}${location.hash}`)
    const { past, future } = this.#history
    try {
      sessionStorage.setItem(
        this.#historyKey,
        JSON.stringify({ past: past.slice(-50), future: future.slice(-50) }),
      )
    } catch {
      // Storage may be full or switched off: undo then lasts until the page is left.
    }
  }

  /** Before the page goes, keep what still waits. */
  #keepNow() {
    this.#note()
    clearTimeout(this.#keepTimer)
    if (!this.kept) void this.#keep()
  }

  async #keep() {
    const { state } = this
    // What is on its way is not sent twice; what cannot be computed is not kept.
    const stands = this.problem !== null && this.problem.code !== 'no_answer'
    if (!this.kept && !this.conflict && !stands && state !== this.#sent) await this.#write(state)
    if (this.#closed && (this.kept || this.refused || !line.away)) this.#noMore()
  }

  async #write(state: BenchState) {
    this.#sent = state
    const { data, problem } = await client.writeBench(this.productionId, this.#version, state)
    this.#sent = null
    if (data) {
      this.#version = data.version
      if (state === this.state) this.kept = true
    } else if (problem.stored) this.#collide(problem.stored)
    else {
      this.problem = problem
      line.again(this.#again)
    }
  }

  /** What was kept in between may be this window's own, from before a reload: then nothing collides. */
  #collide(stored: { version: number; state: BenchState }) {
    const mine = [this.state, ...this.#history.past].some((state) => same(state, stored.state))
    if (!mine) {
      this.conflict = stored
      return
    }
    this.#version = stored.version
    void this.#keep()
  }

  get #historyKey() {
    return `hextan.undo.${this.productionId}`
  }

  #keptHistory(): { past: BenchState[]; future: BenchState[] } | undefined {
    try {
      const text = sessionStorage.getItem(this.#historyKey)
      return text ? JSON.parse(text) : undefined
    } catch {
      return undefined
    }
  }
}

function same(one: BenchState, other: BenchState): boolean {
  return toQuery(one) === toQuery(other)
}

/** Open the Bench of a production; without a number, of the one that was changed last. */
export async function openBench(
  wanted: number,
): Promise<{ bench?: Bench; production?: { id: number; name: string }; problem?: Problem }> {
  const found = wanted ? await client.readProduction(wanted) : await lastChanged()
  if (found.problem) return { problem: found.problem }
  const production = { id: found.data.id, name: found.data.facts.name }
  // A body that was just edited may still be on its way.
  await client.settled()
  const [equipment, kept] = await Promise.all([
    client.readPackage(production.id),
    client.readBench(production.id),
  ])
  if (equipment.problem) return { problem: equipment.problem }
  if (kept.problem) return { production, problem: kept.problem }
  const whole = await client.mendBench(production.id, fromQuery(location.search, kept.data.state))
  if (whole.problem) return { production, problem: whole.problem }
  const { state, notes } = whole.data
  history.replaceState(null, '', `${pathTo(production.id, 'bench')}${location.search}${location.hash}`)
  const bench = new Bench(production.id, equipment.data, kept.data.version, state, notes)
  return { bench, production }
}

async function lastChanged() {
  const { data, problem } = await client.listProductions()
  const [first] = data?.here ?? []
  if (first) return client.readProduction(first.id)
  const empty: Problem = { code: 'empty', message: 'There is no production yet.', faults: [] }
  return { problem: problem ?? empty }
}
