/** Keys of our own, listed under `?`; they rest while something is typed. */
export interface Shortcut {
  keys: string
  /** As `KeyboardEvent.key`, with `ctrl+` before it where wanted. */
  on: string[]
  does: string
  run: () => void
}

const TYPING = 'input, select, textarea, [role="dialog"]'

export function runShortcut(event: KeyboardEvent, shortcuts: Shortcut[]): boolean {
  const control = event.ctrlKey || event.metaKey
  const target = event.target instanceof Element ? event.target.closest(TYPING) : null
  const pressed = `${control ? 'ctrl+' : ''}${control && event.shiftKey ? 'shift+' : ''}${event.key}`
  const found = shortcuts.find((s) => s.on.includes(control ? pressed.toLowerCase() : pressed))
  // A text field has an undo of its own, unless it belongs to a document that undoes as a whole.
  const own = target instanceof HTMLInputElement && !target.closest('[data-undo]')
  if (!found || event.altKey || (target && (!control || own))) return false
  event.preventDefault()
  found.run()
  return true
}

/** The neighbour of a value in a list, staying at the ends. */
export function neighbour<T>(list: readonly T[], at: number, by: number): T | undefined {
  return list[Math.min(Math.max(at + by, 0), list.length - 1)]
}
