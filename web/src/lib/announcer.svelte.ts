/** What was just done, for those who do not see it: one short sentence at a time, once things stand still. */
const QUIET_MS = 700

class Announcer {
  text = $state('')
  #timer: ReturnType<typeof setTimeout> | undefined

  /** Say something a moment later; what comes meanwhile takes its place. */
  say(text: string) {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => (this.text = text), QUIET_MS)
  }
}
export const announcer = new Announcer()
