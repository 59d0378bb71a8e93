/** Keys of our own, listed under `?`; they rest while something is typed. */
export interface Shortcut {
  keys: string
  /** As `KeyboardEvent.key`, with `ctrl+` before it where wanted. */
  on: string[]
  does: string
  run: () => void
}

/** What the reader of the keys has set. */
interface Heard {
  heard: boolean
  keysOf: (shortcut: Shortcut) => readonly string[]
}
const ALL: Heard = { heard: true, keysOf: (shortcut) => shortcut.on }

/** Parts that take letters themselves: what is typed there is not for the view. */
const TYPING =
  'input:not([type=checkbox], [type=radio], [type=range]), select, textarea, [role="dialog"], [role="grid"], [role="listbox"], [role="menu"]'

export function runShortcut(event: KeyboardEvent, shortcuts: Shortcut[], settings: Heard = ALL): boolean {
  const control = event.ctrlKey || event.metaKey
  const target = event.target instanceof Element ? event.target.closest(TYPING) : null
  const pressed = `${control ? 'ctrl+' : ''}${control && event.shiftKey ? 'shift+' : ''}${event.key}`
  if (!control && !settings.heard && event.key !== '?') return false
  const found = shortcuts.find((s) => settings.keysOf(s).includes(control ? pressed.toLowerCase() : pressed))
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
