import { describe, expect, it } from 'vitest'
import { LiveLine } from './live.svelte'

class Line {
  static opened: Line[] = []
  heard: Record<string, (event: MessageEvent<string>) => void> = {}
  closed = false
  onerror: ((event: Event) => void) | null = null
  constructor(readonly address: string) {
    Line.opened.push(this)
  }
  addEventListener(name: string, told: (event: MessageEvent<string>) => void) {
    this.heard[name] = told
  }
  close() {
    this.closed = true
  }
  say(name: string, data: unknown) {
    this.heard[name]?.(new MessageEvent(name, { data: JSON.stringify(data) }))
  }
}

describe('a camera that is listened to', () => {
  it('is followed from shot to shot, one line at a time', () => {
    Line.opened = []
    const live = new LiveLine(2, (address) => new Line(address))
    live.follow('A', 's1')
    live.follow('A', 's1')
    live.follow('A', 's2')
    expect(Line.opened.map((line) => [line.address, line.closed])).toEqual([
      ['/api/v1/productions/2/live/A/events?shot=s1', true],
      ['/api/v1/productions/2/live/A/events?shot=s2', false],
    ])
    Line.opened[1]?.say('state', { unit: 'A', focus_m: 3 })
    Line.opened[1]?.say('focus', 2.5)
    expect([live.seen?.unit, live.focusM]).toEqual(['A', 2.5])
    Line.opened[1]?.onerror?.(new Event('error'))
    expect(live.broken).toBe(true)
    Line.opened[1]?.say('state', { unit: 'A', focus_m: null })
    expect([live.broken, live.focusM]).toEqual([false, null])
    live.close()
    expect([live.seen, Line.opened[1]?.closed]).toEqual([null, true])
  })
})
