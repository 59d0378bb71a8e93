/** Which single keys are heard, and which were given another key; kept in the browser. */
import type { Shortcut } from './shortcuts'

const STORED = 'hextan.keys'

/** A key without Ctrl: it can be switched off and changed. */
export const isSingle = (shortcut: Shortcut) => !shortcut.on.some((key) => key.startsWith('ctrl+'))

export class KeySettings {
  heard = $state(true)
  /** Other keys, by what they do. */
  own = $state.raw<Record<string, string>>({})

  constructor(private readonly storage: Pick<Storage, 'getItem' | 'setItem'> = localStorage) {
    try {
      const kept = JSON.parse(storage.getItem(STORED) ?? '{}') as Partial<{
        heard: boolean
        own: Record<string, string>
      }>
      this.heard = kept.heard !== false
      this.own = kept.own ?? {}
    } catch {
      // What cannot be read is as if nothing was set.
    }
  }

  /** The keys that run a shortcut. */
  keysOf(shortcut: Shortcut): readonly string[] {
    const own = this.own[shortcut.does]
    return own && isSingle(shortcut) ? [own] : shortcut.on
  }

  /** What is printed beside it. */
  words(shortcut: Shortcut): string {
    return this.own[shortcut.does] ?? shortcut.keys
  }

  switch(heard: boolean) {
    this.heard = heard
    this.#keep()
  }

  /** Give a shortcut another key, or its first one again; the one that had it gives it up. */
  give(shortcut: Shortcut, key: string | null, all: readonly Shortcut[]): string {
    if (key === null) {
      this.own = Object.fromEntries(Object.entries(this.own).filter(([does]) => does !== shortcut.does))
      this.#keep()
      return ''
    }
    const taken = all.find((other) => other !== shortcut && this.keysOf(other).includes(key))
    if (taken) return `${key} is taken: ${taken.does}`
    this.own = { ...this.own, [shortcut.does]: key }
    this.#keep()
    return ''
  }

  #keep() {
    try {
      this.storage.setItem(STORED, JSON.stringify({ heard: this.heard, own: this.own }))
    } catch {
      // Kept for this page only.
    }
  }
}

export const keySettings = new KeySettings()
