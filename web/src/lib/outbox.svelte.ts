/**
 * Entries of the log on their way to the server: kept in the browser first, sent in their order, each exactly once.
 * Its key is made here, so that the server knows an entry that arrives a second time.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { now } from './logEntries'
import { whenBack } from './reconnect'
import type { LogEntry, LogKept, Problem } from './types'
import type { Waiting } from './waiting'

interface Schema extends DBSchema {
  entries: { key: number; value: Waiting }
}

/** Where entries wait: the browser's database, or for tests anything that behaves so. */
export interface Store {
  all(): Promise<Waiting[]>
  put(item: Waiting): Promise<number>
  remove(order: number): Promise<void>
}

export function browserStore(name = 'hextan-outbox'): Store {
  let opened: Promise<IDBPDatabase<Schema>> | undefined
  const db = () =>
    (opened ??= openDB<Schema>(name, 1, {
      upgrade: (fresh) => void fresh.createObjectStore('entries', { keyPath: 'order', autoIncrement: true }),
    }))
  return {
    all: async () => (await db()).getAll('entries'),
    put: async (item) => (await db()).put('entries', item),
    remove: async (order) => (await db()).delete('entries', order),
  }
}

type Answer =
  | { data: LogKept; problem?: undefined }
  | { data?: undefined; problem: Problem & { stored?: LogKept | null } }

export class Outbox {
  items = $state.raw<Waiting[]>([])
  /** Whether the browser has no room for what waits: it lasts until the page is left. */
  unkept = $state(false)
  /** Whether the line is there, as far as the last try told. */
  away = $state(false)
  #sending: Promise<void> | null = null
  #again = false
  #stop: (() => void) | null = null

  constructor(
    private readonly production: number,
    private readonly send: (entry: LogEntry, basedOn: number) => Promise<Answer>,
    private readonly onkept: (kept: LogKept) => void = () => {},
    private readonly store: Store = browserStore(),
    private readonly lock: (work: () => Promise<void>) => Promise<void> = oneTab,
    private readonly back: (again: () => void) => () => void = whenBack,
  ) {}

  /** Show what waits since an earlier visit, and send it. */
  async open() {
    await this.#read()
    void this.flush()
  }

  close() {
    this.#stop?.()
    this.#stop = null
  }

  /** Whether something is still to be sent: what is in conflict or refused, and later versions of it, are not. */
  get moving(): boolean {
    const stuck = this.items.filter((item) => item.state !== 'waiting').map((item) => item.entry.key)
    return this.items.some((item) => item.state === 'waiting' && !stuck.includes(item.entry.key))
  }

  /** Keep an entry here, and send it as soon as that goes. */
  async put(entry: LogEntry, basedOn: number) {
    const item: Waiting = {
      production: this.production,
      entry,
      basedOn,
      since: now(),
      state: 'waiting',
    }
    try {
      await this.store.put(item)
      await this.#read()
    } catch {
      // A browser without room, or in a private window: it waits in this page alone.
      this.unkept = true
      this.items = [...this.items, { ...item, order: -1 - this.items.length }]
    }
    await this.flush()
  }

  /** Send what waits, one after another; a second call while one runs is taken up by it. */
  flush(): Promise<void> {
    if (this.#sending) {
      this.#again = true
      return this.#sending
    }
    this.#sending = this.lock(async () => {
      do {
        this.#again = false
        await this.#sendAll()
      } while (this.#again && !this.away)
    }).finally(() => (this.#sending = null))
    return this.#sending
  }

  async #sendAll() {
    await this.#read()
    /** What cannot go holds back later versions of the same entry, and nothing else. */
    const held = this.items.filter((item) => item.state !== 'waiting').map((item) => item.entry.key)
    for (const item of this.items) {
      if (item.state !== 'waiting' || held.includes(item.entry.key)) continue
      const { data, problem } = await this.send(item.entry, item.basedOn)
      if (data) {
        this.away = false
        await this.#drop(item)
        this.onkept(data)
      } else if (problem.code === 'stale_write') {
        held.push(item.entry.key)
        await this.#change(item, { state: 'conflict', stored: problem.stored ?? null, told: problem.message })
      } else if (problem.faults.length || problem.code === 'invalid_input' || problem.code === 'not_found') {
        held.push(item.entry.key)
        await this.#change(item, { state: 'refused', told: problem.message })
      } else {
        // No line, or a server that is not well: everything stays, in its order.
        this.away = true
        this.#stop ??= this.back(() => {
          this.#stop = null
          void this.flush()
        })
        return
      }
    }
  }

  /** Settle a conflict. Whichever stands, the other stays in the entry's history. */
  async settle(item: Waiting, stands: 'mine' | 'theirs') {
    if (!item.stored) return
    const at = now()
    const { revision, entry } = item.stored
    await this.#change(item, { state: 'waiting', basedOn: revision, stored: null, told: '' })
    if (stands === 'theirs') {
      const again: Waiting = { ...item, entry: { ...entry, written_at: at }, basedOn: revision + 1, state: 'waiting', since: at, stored: null, told: '' } // prettier-ignore
      delete again.order
      await this.store.put(again)
    }
    await this.flush()
  }

  /** Let go of what the server refuses. */
  async drop(item: Waiting) {
    await this.#drop(item)
    await this.flush()
  }

  async #drop(item: Waiting) {
    if (item.order !== undefined && item.order >= 0) await this.store.remove(item.order)
    this.items = this.items.filter((other) => other.order !== item.order)
  }

  async #change(item: Waiting, part: Partial<Waiting>) {
    const changed = { ...item, ...part }
    if (changed.order !== undefined && changed.order >= 0) await this.store.put(changed)
    this.items = this.items.map((other) => (other.order === item.order ? changed : other))
  }

  async #read() {
    try {
      const kept = await this.store.all()
      const here = this.items.filter((item) => item.order !== undefined && item.order < 0)
      this.items = [...kept.filter((item) => item.production === this.production), ...here]
    } catch {
      this.unkept = true
    }
  }
}

/** Two pages of one browser do not send at once. */
async function oneTab(work: () => Promise<void>): Promise<void> {
  if (!('locks' in navigator)) return work()
  await navigator.locks.request('hextan-outbox', work)
}
