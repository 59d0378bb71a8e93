/** How the page looks by the light around it; kept in the browser. */
export const MODES = [
  { value: 'dark', label: 'Night' },
  { value: 'light', label: 'Day' },
  { value: 'outdoor', label: 'Outdoors' },
  { value: 'red', label: 'Red' },
] as const
export type Mode = (typeof MODES)[number]['value']

class ModeSwitch {
  mode = $state<Mode>(
    MODES.find(({ value }) => value === document.documentElement.dataset.mode)?.value ?? 'dark',
  )

  set(mode: Mode) {
    this.mode = mode
    document.documentElement.dataset.mode = mode
    try {
      localStorage.setItem('hextan.mode', mode)
    } catch {
      // Kept for this page only.
    }
  }

  /** The next one of them. */
  turn() {
    const at = MODES.findIndex(({ value }) => value === this.mode)
    this.set(MODES[(at + 1) % MODES.length]?.value ?? 'dark')
  }
}
export const modeSwitch = new ModeSwitch()
