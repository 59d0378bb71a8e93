/** What is being typed and not kept yet: a reload, or a look elsewhere, loses nothing. */
export class Draft<T extends object> {
  value = $state.raw() as T

  constructor(
    private readonly key: string,
    private readonly empty: T,
  ) {
    this.value = this.#read()
  }

  #read(): T {
    try {
      const kept: unknown = JSON.parse(sessionStorage.getItem(this.key) ?? '{}')
      return { ...this.empty, ...(kept as Partial<T>) }
    } catch {
      return this.empty
    }
  }

  set(value: T) {
    this.value = value
    try {
      sessionStorage.setItem(this.key, JSON.stringify(value))
    } catch {
      // Kept for this page only.
    }
  }

  /** It is kept elsewhere now. */
  clear() {
    this.value = this.empty
    try {
      sessionStorage.removeItem(this.key)
    } catch {
      // Nothing was kept.
    }
  }
}
