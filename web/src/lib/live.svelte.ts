/** A camera that is listened to, as it speaks: server-sent events, which begin anew by themselves when the line breaks. */
import * as client from './client'
import type { LiveSeen } from './types'

/** What is used of the browser's `EventSource`. */
interface Line {
  addEventListener(name: string, heard: (event: MessageEvent<string>) => void): void
  close(): void
  onerror: ((event: Event) => void) | null
}

export class LiveLine {
  seen = $state.raw<LiveSeen | null>(null)
  /** Where it is focused, between two states. */
  focusM = $state<number | null>(null)
  /** Whether the line to the server is broken: nothing that is shown is new. */
  broken = $state(false)
  #line: Line | null = null
  #address = ''

  constructor(
    private readonly productionId: number,
    private readonly open: (address: string) => Line = (address) => new EventSource(address),
  ) {}

  /** Listen to another camera, or for another shot. */
  follow(unit: string, shot: string | null) {
    const address = client.liveAddress(this.productionId, unit, shot)
    if (address === this.#address) return
    this.close()
    this.#address = address
    const line = this.open(address)
    this.#line = line
    line.addEventListener('state', (event) => {
      this.seen = JSON.parse(event.data) as LiveSeen
      this.focusM = this.seen.focus_m
      this.broken = false
    })
    line.addEventListener('focus', (event) => (this.focusM = Number(event.data)))
    line.onerror = () => (this.broken = true)
  }

  close() {
    this.#line?.close()
    this.#line = null
    this.#address = ''
    this.seen = null
    this.focusM = null
    this.broken = false
  }
}
