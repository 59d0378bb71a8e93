/** The page of the set: a day, a camera, a shot, what is on the camera, and how that agrees with the plan. */
import * as client from './client'
import { nearFar, type NearFar } from './depthCurves'
import { Latest } from './latest'
import { LiveLine } from './live.svelte'
import {
  changed,
  EMPTY,
  lensIn,
  lastOn,
  listed,
  newBooking,
  newTake,
  newTick,
  nextTake,
  type ListedTake,
} from './logEntries'
import { faultsOf } from './faults'
import { alike, asItWas, NOTHING, onFor, said, type PutOn } from './putOn'
import { Outbox } from './outbox.svelte'
import { there, whenBack } from './reconnect'
import type {
  BodyOption,
  Booking,
  CameraSource,
  CheckItem,
  DepthCurves,
  Held,
  LensOption,
  LogEntry,
  LogKept,
  OnCamera,
  Picture,
  Planned,
  Problem,
  SetDay,
  SetSeen,
  SetSettingsKept,
  Take,
} from './types'

/** What is kept in the browser: whose device this is, and what it was set to. */
interface Kept {
  by: string
  day: string | undefined
  unit: string
  shot: Record<string, string>
  /** What was put on each camera and is not logged yet. */
  putOn: Record<string, PutOn>
}

/** So long a hand rests before what it put on is logged, ms. */
const SAID_AFTER_MS = 1500

export class SetPage {
  seen = $state.raw<SetSeen | null>(null)
  problem = $state.raw<Problem | null>(null)
  /** Entries that the server took after the day was read. */
  arrived = $state.raw<LogKept[]>([])
  /** A day that was asked for, and is neither had from the server nor kept by the browser. */
  missing = $state<string | null>(null)
  /** Whether what is shown was kept by the browser: the server did not answer. */
  old = $state(false)
  by = $state('')
  unit = $state('A')
  shotKey = $state<string | null>(null)
  /** What was set here since the last take; none: as it was. */
  draft = $state.raw<Partial<OnCamera>>({})
  /** The take that was logged here last, and can be undone. */
  logged = $state<string | null>(null)
  /** What was said here last to be on the camera, and can be taken back. */
  booked = $state.raw<Booking | null>(null)
  /** Whether the browser has all of the day: it can be worked without a line. */
  complete = $state(false)
  held = $state.raw<Held | null>(null)
  heldFor = $state.raw<OnCamera | null>(null)
  curves = $state.raw<DepthCurves | null>(null)
  sources = $state.raw<SetSettingsKept | null>(null)
  /** Faults of what is listened to, by their fields. */
  sourceFaults = $state.raw<Record<string, string>>({})
  sourcesSaved = $state(true)
  readonly outbox: Outbox
  readonly live: LiveLine
  readonly #storage: string
  #shots: Record<string, string> = {}
  #day: string | undefined

  constructor(private readonly id: number) {
    this.#storage = `hextan.set.${id}`
    const kept = this.#kept()
    this.by = kept.by ?? ''
    this.unit = kept.unit ?? 'A'
    this.#day = kept.day
    this.#shots = kept.shot ?? {}
    this.#putOn = kept.putOn ?? {}
    document.addEventListener('visibilitychange', this.#hidden)
    this.live = new LiveLine(id)
    this.outbox = new Outbox(
      id,
      (entry, basedOn) => client.writeLogEntry(id, entry, basedOn),
      (now) => this.#arrived(now),
    )
  }

  async open(asked: { day?: string | undefined; unit?: string | undefined; shot?: string | undefined }) {
    if (asked.unit) this.unit = asked.unit
    const kept = this.#day
    await Promise.all([this.load(asked.day ?? kept), this.outbox.open(), this.#readSources()])
    // Without a line, rather a day that was read before than none.
    const { missing } = this
    if (!this.seen && missing !== null) {
      await this.load(kept)
      this.missing = missing
    }
    this.choose(asked.shot ?? this.#shots[this.unit] ?? null)
  }

  /** What is put on and waits for the hand to rest goes into the log before the device sleeps. */
  readonly #hidden = () => {
    if (document.visibilityState === 'hidden') this.#say()
  }

  #closed = false
  close() {
    this.#say()
    this.#closed = true
    document.removeEventListener('visibilitychange', this.#hidden)
    this.#back?.()
    this.outbox.close()
    this.live.close()
  }

  #turn = 0
  #wanted: string | undefined
  #loading: Promise<void> = Promise.resolve()
  /** Read a day, and wait until it is there. An answer that comes after a later question was asked is passed over. */
  load(day = this.#wanted): Promise<void> {
    // What is put on is of the day that is left.
    if (day !== this.#wanted) this.#say()
    this.#loading = this.#load(day)
    return this.#loading
  }

  async #load(day: string | undefined): Promise<void> {
    this.#turn += 1
    const turn = this.#turn
    this.#wanted = day
    const before = this.arrived
    const { data, problem } = await client.readSet(this.id, day)
    if (turn !== this.#turn) return this.#loading
    if (data) {
      this.seen = data
      this.#day = data.day.day
      this.arrived = this.arrived.filter((kept) => !before.includes(kept))
    }
    this.#wanted = this.#day
    this.problem = problem ?? null
    this.missing =
      problem?.code === 'no_answer' && day !== undefined && day !== this.seen?.day.day ? day : null
    this.#ask()
    await this.#look()
    return undefined
  }

  /** Whether the whole page is without a line. */
  readonly away = $derived.by(() => this.old || this.outbox.away || this.problem?.code === 'no_answer')

  #back: (() => void) | null = null
  /** Whether what was read is of the server, or what the browser has kept of it. */
  async #look() {
    this.old = !(await there())
    if (!this.old) return
    this.#back ??= whenBack(() => {
      this.#back = null
      this.old = false
      void this.outbox.flush()
      void this.load(this.missing ?? undefined).then(() => this.fetchAll())
    })
  }

  readonly shots = $derived.by(() => {
    const all = this.seen?.day.shots ?? []
    const mine = all.filter((shot) => shot.unit === this.unit || shot.unit === '')
    return mine.length ? mine : all
  })
  readonly shot = $derived<Planned | null>(
    this.shots.find((shot) => shot.shot === this.shotKey) ?? this.shots[0] ?? null,
  )
  readonly next = $derived(this.shots[this.shots.findIndex((s) => s.shot === this.shot?.shot) + 1] ?? null)
  readonly takes = $derived.by<ListedTake[]>(() =>
    listed(this.seen?.day ?? null, this.outbox.items, this.arrived),
  )
  readonly take = $derived(nextTake(this.takes, this.shot?.shot ?? null, this.unit))
  /** The last take of this camera. */
  readonly last = $derived(this.takes.find((take) => take.entry.unit === this.unit) ?? null)
  readonly units = $derived(this.seen?.day.days.find((d) => d.day === this.seen?.day.day)?.units ?? [])

  /** What was written here since the day was read, in its order. */
  readonly written = $derived.by<LogEntry[]>(() => [
    ...this.arrived.map((kept) => kept.entry),
    ...this.outbox.items.map((item) => item.entry),
  ])
  /** What is on the camera: what was set here, else what it says, else what was last shot with, else the plan. */
  readonly lastSaid = $derived(lastOn(this.seen?.day ?? null, this.written, this.unit))
  readonly before = $derived<OnCamera>(onFor(this.lastSaid, this.shot, EMPTY))
  /** The camera as it was for the shot before, where somebody has to say whether it still is. */
  readonly asItWas = $derived.by(() =>
    this.live.seen?.on || said(this.draft) ? null : asItWas(this.lastSaid, this.shot, EMPTY),
  )
  /** What a camera that is listened to says is on it, with the focus as it goes. */
  readonly said = $derived.by<OnCamera | null>(() => {
    const on = this.live.seen?.on ?? null
    return on && { ...on, focus_m: this.live.focusM ?? on.focus_m, card: this.before.card }
  })
  readonly on = $derived<OnCamera>({ ...(this.said ?? this.before), ...this.draft })
  /** How that agrees with the plan: as the camera says it, unless something was set here besides. */
  readonly agrees = $derived.by<Held | null>(() => {
    if (this.live.seen?.held && !Object.keys(this.draft).length) return this.live.seen.held
    return this.heldFor && alike(this.heldFor, this.on) ? this.held : null
  })
  readonly body = $derived<BodyOption | null>(
    this.seen?.day.bodies.find((body) => body.name === this.on.body) ?? this.seen?.day.bodies[0] ?? null,
  )
  readonly lens = $derived<LensOption | null>(lensIn(this.body, this.on))

  bodyOf(on: OnCamera): BodyOption | null {
    return this.seen?.day.bodies.find((body) => body.name === on.body) ?? null
  }
  lensOf(on: OnCamera): LensOption | null {
    return lensIn(this.bodyOf(on), on)
  }
  /** The letter before a stop, as its lens is marked. */
  marks(on: OnCamera) {
    return this.lensOf(on)?.marks ?? 'T'
  }
  /** The plan of a take's shot, while the list has it. */
  planOf(take: Take): Planned | null {
    return this.seen?.day.shots.find((shot) => shot.shot === take.shot) ?? null
  }

  readonly nearFar = $derived<NearFar | null>(
    this.curves && this.on.focus_m && this.on.stop
      ? nearFar(this.curves, this.on.focus_m, this.on.stop)
      : null,
  )

  choose(shot: string | null) {
    if (this.shot && this.shot.shot !== shot) this.#say()
    this.booked = null
    this.shotKey = shot
    if (this.shot) this.#shots = { ...this.#shots, [this.unit]: this.shot.shot }
    // What was put on for this very shot is still on; the focus of another one is not.
    const { shot: of, on } = this.#putOn[this.unit] ?? NOTHING
    this.draft = of === (this.shot?.shot ?? null) ? on : {}
    if (said(this.draft)) this.#soon()
    this.#keep()
    this.#ask()
  }

  pickUnit(unit: string) {
    this.#say()
    this.unit = unit
    this.choose(this.#shots[unit] ?? null)
  }

  name(by: string) {
    this.by = by.trim()
    this.#keep()
  }

  set(part: Partial<OnCamera>) {
    this.#put({ ...this.draft, ...part })
    if (said(this.draft)) this.#soon()
    this.#ask()
  }

  /** What was put on each camera, and for which shot, until it is in the log. */
  #putOn: Record<string, PutOn> = {}
  #leaving: Record<string, PutOn> = {}
  #put(on: Partial<OnCamera>) {
    this.draft = on
    this.#putOn = { ...this.#putOn, [this.unit]: { shot: this.shot?.shot ?? null, on } }
    this.#keep()
  }

  #saying: ReturnType<typeof setTimeout> | undefined
  #soon() {
    clearTimeout(this.#saying)
    this.#saying = setTimeout(() => this.#say(), SAID_AFTER_MS)
  }

  /** Log what was put on. */
  #say() {
    clearTimeout(this.#saying)
    if (!this.#closed && this.seen && said(this.draft)) this.book('')
  }

  /** Everything as the plan has it; the card stays. */
  asPlanned() {
    if (this.shot?.on) this.set({ ...this.shot.on, card: this.on.card, serial: this.before.serial })
  }

  /** A new shot, and the camera still as it was for the one before; the focus is that of the plan. */
  stillAsItWas() {
    if (this.asItWas) this.set(this.asItWas)
  }

  /** What was put on here is not: the camera is as it was. */
  takeBack() {
    clearTimeout(this.#saying)
    this.#put({})
    const { booked } = this
    this.booked = null
    if (booked)
      void this.outbox.put(changed(booked, this.by, { removed: true }), this.#revisionOf(booked.key))
    this.#ask()
  }

  /** The revision of an entry that was written here, with what of it still waits. */
  #revisionOf(key: string): number {
    const kept = this.arrived.find((each) => each.entry.key === key)?.revision ?? 1
    const waiting = this.outbox.items.filter((item) => item.entry.key === key)
    return Math.max(kept, ...waiting.map((item) => item.basedOn + 1))
  }

  get #writer() {
    return { by: this.by, unit: this.unit, day: this.seen?.day.day ?? '' }
  }

  logTake(part: Partial<Take> = {}) {
    const said = this.live.seen?.said ?? null
    const take = { ...newTake(this.#writer, this.shot, this.take, this.on), said, ...part }
    clearTimeout(this.#saying)
    this.#put({})
    this.booked = null
    this.logged = take.key
    void this.outbox.put(take, 0)
    this.#ask()
    return take
  }

  /** Take back the take that was logged here last: it stays in the history, and what was on stays on. */
  undo() {
    const take = this.takes.find((row) => row.entry.key === this.logged)
    this.logged = null
    if (take) this.correct(take, { removed: true })
  }

  book(note: string) {
    const booking = newBooking(this.#writer, this.shot, this.on, note)
    clearTimeout(this.#saying)
    // Until the browser has it among what waits, it stays where a reload finds it.
    const { unit } = this
    const leaving = { ...this.#leaving, [unit]: this.#putOn[unit] ?? NOTHING }
    this.#leaving = leaving
    this.#put({})
    this.booked = booking
    void this.outbox.put(booking, 0).finally(() => {
      if (this.#leaving !== leaving) return
      this.#leaving = {}
      this.#keep()
    })
    this.#ask()
  }

  /** Circle the last take of this camera, or not. */
  circle() {
    if (this.last) this.correct(this.last, { circled: !this.last.entry.circled })
  }

  correct(take: ListedTake, part: Partial<Take>) {
    void this.outbox.put(changed(take.entry, this.by, part), take.revision)
  }

  tick(body: string, item: CheckItem, part: { ticked?: boolean; note?: string }) {
    const fresh = newTick(this.#writer, body, item.key)
    const entry = {
      ...fresh,
      ...(item.entry ? { key: item.entry } : {}),
      ticked: item.ticked,
      note: item.note,
      ...part,
    }
    void this.outbox.put(entry, item.revision)
  }

  #arrived(kept: LogKept) {
    this.arrived = [...this.arrived, kept]
    if (!this.outbox.moving) void this.load()
  }

  readonly #holding = new Latest(
    () => ({ shot: this.shot?.shot ?? null, on: this.on }),
    async ({ shot, on }, signal) => {
      const { data } = await client.holdAgainstPlan(this.id, shot, on, signal)
      this.held = data ?? null
      this.heldFor = data ? on : null
    },
  )
  #curvesOf = ''
  #ask() {
    this.#follow()
    this.#holding.want()
    void this.#readCurves()
  }

  /** Listen to the camera that is looked at, where it is listened to at all. */
  #follow() {
    const heard = this.sources?.document.sources.some((source) => source.unit === this.unit && source.on)
    if (heard) this.live.follow(this.unit, this.shot?.shot ?? null)
    else this.live.close()
  }

  async #readSources() {
    const { data } = await client.readSetSettings(this.id)
    if (data) this.sources = data
  }

  /** Other cameras to listen to, or otherwise; what is refused says why at its field. */
  async setSources(sources: CameraSource[]) {
    if (!this.sources) return
    this.sources = { ...this.sources, document: { ...this.sources.document, sources } }
    this.sourcesSaved = false
    this.#saving.want()
  }
  /** Let the camera that is looked at go by a name that was heard. */
  nameSource(secret: string) {
    const sources = this.sources?.document.sources ?? []
    return this.setSources(sources.map((each) => (each.unit === this.unit ? { ...each, secret } : each)))
  }
  readonly #saving = new Latest(
    () => this.sources,
    async (kept) => {
      if (!kept) return
      const { data, problem } = await client.writeSetSettings(this.id, kept.version, kept.document)
      this.sourceFaults = problem ? { document: problem.message, ...faultsOf(problem) } : {}
      if (data && this.sources) {
        this.sources = { ...this.sources, version: data.version }
        this.sourcesSaved = this.sources.document === kept.document
        this.#follow()
      } else if (problem?.stored) this.sources = problem.stored
    },
    true,
  )

  /** What is asked when the camera says another lens, or another format. */
  follows() {
    void this.#readCurves()
  }

  /** Depth of all lenses on the formats of the day, by what is asked for one of them: what there is without a line. */
  #ofDay: Record<string, DepthCurves> = {}

  /** Depth of what is on the camera, once for each lens on each format. */
  async #readCurves() {
    const query = this.depthQuery(this.on, this.lens, this.picture)
    const asked = JSON.stringify(query)
    if (asked === this.#curvesOf) return
    this.#curvesOf = asked
    this.curves = this.#ofDay[asked] ?? null
    if (!query) return
    // What came with the day may be older than the lens is now.
    const { data, problem } = await client.readDepthCurves(this.id, query)
    if (asked !== this.#curvesOf) return
    if (problem?.code !== 'no_answer') this.curves = data ?? null
    else if (!this.curves) this.#curvesOf = ''
  }

  depthQuery(on: OnCamera, lens: LensOption | null, picture: Picture | null): client.LensUpQuery | null {
    const format = this.#formatQuery(on, picture)
    if (!format || !lens) return null
    const focal = lens.short_mm < lens.long_mm && on.focal_mm ? { focal_mm: on.focal_mm } : {}
    return { ...lensUp(format, lens.id, this.#adapterIds(on)), ...focal }
  }

  /** The adapters that are on, which need not be the simplest that there are. */
  #adapterIds(on: OnCamera): number[] {
    const all = this.seen?.day.adapters ?? []
    return on.adapters.flatMap((name) => all.find((adapter) => adapter.name === name)?.id ?? [])
  }

  /** The picture of the shot in hand. */
  readonly picture = $derived(this.shot?.picture ?? this.seen?.day.picture ?? null)

  #formatQuery(on: OnCamera, picture: Picture | null): client.FormatQuery | null {
    const body = this.bodyOf(on)
    const format = body?.formats.find((f) => f.name === on.format && (!on.mode || f.mode === on.mode))
    if (!body || !format) return null
    const crops = (on.crops ?? []).map((name) => body.crop_ids[body.crops.indexOf(name)] ?? 0).filter(Boolean)
    return {
      format_id: format.id,
      crop_id: crops,
      ...(picture?.aspect ? { aspect: picture.aspect } : {}),
      ...(picture?.long_edge_px ? { long_edge_px: picture.long_edge_px } : {}),
    }
  }

  /**
   * Ask for everything that may be wanted without a line: the browser keeps what was asked for. First this day, then those
   * around it.
   */
  async fetchAll() {
    const day = this.seen?.day
    this.complete = false
    if (!day) return
    const had: Record<string, boolean> = {}
    // Of a day that was left meanwhile nothing is said.
    if (!(await this.#fetchDay(day, had)) || this.seen?.day.day !== day.day) return
    this.complete = navigator.serviceWorker?.controller != null && !this.old
    const at = day.days.findIndex((each) => each.day === day.day)
    for (const near of day.days.slice(Math.max(0, at - 1), at + 3)) {
      if (near.day === day.day || this.#closed) continue
      const { data } = await client.readSet(this.id, near.day)
      if (!data || !(await this.#fetchDay(data.day, had))) return
    }
  }

  /** Whether all of a day was had. */
  async #fetchDay(day: SetDay, had: Record<string, boolean>): Promise<boolean> {
    // What is planned, and what was on: a crop that came by itself may come again.
    // Each for the picture of its own shot; what is on a camera stays on for the next shot.
    const pictureOf = (shot: string | null | undefined) =>
      day.shots.find((each) => each.shot === shot)?.picture ?? day.picture
    const pictures = [day.picture, ...day.shots.map((shot) => shot.picture)]
    const all: [OnCamera, Picture][] = [
      ...day.shots.flatMap((shot): [OnCamera, Picture][] => (shot.on ? [[shot.on, shot.picture]] : [])),
      ...day.takes.map((take): [OnCamera, Picture] => [take.entry.on, pictureOf(take.entry.shot)]),
      ...day.cameras.flatMap((camera) => pictures.map((each): [OnCamera, Picture] => [camera.on, each])),
    ]
    for (const [on, picture] of all) {
      const format = this.#formatQuery(on, picture)
      const asked = JSON.stringify(format)
      if (format && !had[asked]) {
        const { data, problem } = await client.readFormatCurves(this.id, format)
        if (problem?.code === 'no_answer') return false
        this.#keepCurves(
          (data?.lenses ?? []).map((row) => [lensUp(format, row.lens_id, row.adapter_ids), row.curves]),
        )
        had[asked] = true
      }
      // A zoom as it is set, and a lens behind other adapters than the simplest.
      const alone = this.depthQuery(on, this.lensOf(on), picture)
      const named = JSON.stringify(alone)
      if (alone && !this.#ofDay[named] && !had[named]) {
        const { data, problem } = await client.readDepthCurves(this.id, alone)
        if (problem?.code === 'no_answer') return false
        if (data) this.#keepCurves([[alone, data]])
        had[named] = true
      }
    }
    const { problem } = await client.readDayReport(this.id, day.day)
    return problem?.code !== 'no_answer'
  }

  #keepCurves(rows: [client.LensUpQuery, DepthCurves][]) {
    const found = Object.fromEntries(rows.map(([query, curves]) => [JSON.stringify(query), curves]))
    this.#ofDay = { ...this.#ofDay, ...found }
    this.curves ??= this.#ofDay[JSON.stringify(this.depthQuery(this.on, this.lens, this.picture))] ?? null
  }

  #kept(): Partial<Kept> {
    try {
      return JSON.parse(localStorage.getItem(this.#storage) ?? '{}') as Partial<Kept>
    } catch {
      return {}
    }
  }

  #keep() {
    try {
      const kept: Kept = {
        by: this.by,
        day: this.#day,
        unit: this.unit,
        shot: this.#shots,
        putOn: { ...this.#putOn, ...this.#leaving },
      }
      localStorage.setItem(this.#storage, JSON.stringify(kept))
    } catch {
      // Kept for this page only.
    }
  }
}

/** What is asked for one lens on a format. */
const lensUp = (format: client.FormatQuery, lens_id: number, adapter_id: number[]): client.LensUpQuery => ({
  ...format,
  lens_id,
  adapter_id,
})
