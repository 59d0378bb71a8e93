/** Dark or light, kept in the browser. */
export type Mode = 'dark' | 'light'

class ModeSwitch {
  mode = $state<Mode>(document.documentElement.dataset.mode === 'light' ? 'light' : 'dark')

  toggle() {
    this.mode = this.mode === 'dark' ? 'light' : 'dark'
    document.documentElement.dataset.mode = this.mode
    try {
      localStorage.setItem('hextan.mode', this.mode)
    } catch {
      // Kept for this page only.
    }
  }
}
export const modeSwitch = new ModeSwitch()
