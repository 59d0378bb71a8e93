/** A sound, or a shake of the hand, when something begins to differ: only where it was asked for. Nothing flashes. */
const KEY = 'hextan.signal'

class Signal {
  on = $state(read())
  #context: AudioContext | null = null

  /** Asked for by a press: browsers let a page sound only then. */
  set(on: boolean) {
    this.on = on
    try {
      localStorage.setItem(KEY, on ? 'on' : 'off')
    } catch {
      // Kept for this page only.
    }
    if (on) this.give()
  }

  give() {
    if (!this.on) return
    navigator.vibrate?.([120, 80, 120])
    try {
      this.#context ??= new AudioContext()
      const { currentTime, destination } = this.#context
      const tone = this.#context.createOscillator()
      const loud = this.#context.createGain()
      tone.frequency.value = 660
      loud.gain.setValueAtTime(0.15, currentTime)
      loud.gain.exponentialRampToValueAtTime(0.001, currentTime + 0.35)
      tone.connect(loud).connect(destination)
      tone.start()
      tone.stop(currentTime + 0.4)
    } catch {
      // A device without sound.
    }
  }
}

function read(): boolean {
  try {
    return localStorage.getItem(KEY) === 'on'
  } catch {
    return false
  }
}

export const signal = new Signal()
