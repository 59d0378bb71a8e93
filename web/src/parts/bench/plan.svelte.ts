/** Dragging along the lens axis: turns pixels into metres in steps of the trade. */
import { snapAside, stepDistance } from '../../lib/format'
import type { Unit } from '../../lib/types'

export type Handle = 'subject' | 'focus'

export interface PlanDragOptions {
  /** Pixels along the axis for a metre, and where the sensor plane stands. */
  scale: () => { pxPerMetre: number; originPx: number }
  unit: () => Unit
  onmove: (handle: Handle, metres: number, kind: string) => void
  ondrag: (on: boolean) => void
}

export class PlanDrag {
  handle = $state<Handle | null>(null)
  /** Where the drawing begins on the page: asked once, since every question lays the whole page out. */
  #left = 0

  constructor(private readonly options: PlanDragOptions) {}

  start(handle: Handle, event: PointerEvent) {
    event.preventDefault()
    const element = event.currentTarget as SVGGElement
    element.setPointerCapture(event.pointerId)
    this.#left = element.ownerSVGElement?.getBoundingClientRect().left ?? 0
    this.handle = handle
    this.options.ondrag(true)
  }

  move(event: PointerEvent) {
    if (!this.handle) return
    const { pxPerMetre, originPx } = this.options.scale()
    const metres = (event.clientX - this.#left - originPx) / pxPerMetre
    this.options.onmove(this.handle, stepDistance(metres, this.options.unit(), 0), `drag ${this.handle}`)
  }

  end() {
    if (!this.handle) return
    this.handle = null
    this.options.ondrag(false)
  }

  /** Arrow keys: a step; with Page Up and Down ten. */
  key(handle: Handle, metres: number, event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[
      event.key
    ]
    if (!by) return
    event.preventDefault()
    this.options.onmove(handle, stepDistance(metres, this.options.unit(), by), `step ${handle}`)
  }
}

export interface ObjectDragOptions {
  /** Pixels for a metre, and where sensor plane and axis lie. */
  scale: () => { px: number; x0: number; y0: number }
  unit: () => Unit
  onplace: (key: string, distance_m: number, aside_m: number, kind: string) => void
  ondrag: (on: boolean) => void
}

interface Placed {
  key: string
  distance_m: number
  aside_m: number
}

/** Moving a thing about the plan: along the axis and beside it. */
export class ObjectDrag {
  key_held = $state<string | null>(null)
  #svg: SVGSVGElement | null = null

  constructor(private readonly options: ObjectDragOptions) {}

  start(thing: Placed, event: PointerEvent) {
    event.preventDefault()
    const element = event.currentTarget as SVGGElement
    element.setPointerCapture(event.pointerId)
    this.#svg = element.ownerSVGElement
    this.key_held = thing.key
    this.options.ondrag(true)
  }

  move(event: PointerEvent) {
    if (this.key_held === null || !this.#svg) return
    const { px, x0, y0 } = this.options.scale()
    const box = this.#svg.getBoundingClientRect()
    const unit = this.options.unit()
    const along = stepDistance((event.clientX - box.left - x0) / px, unit, 0)
    const aside = snapAside((event.clientY - box.top - y0) / px, unit)
    this.options.onplace(this.key_held, along, aside, `drag ${this.key_held}`)
  }

  end() {
    if (this.key_held === null) return
    this.key_held = null
    this.options.ondrag(false)
  }

  /** Left and right along the axis, up and down beside it; with Page Up and Down ten steps along. */
  key(thing: Placed, event: KeyboardEvent) {
    const along = { ArrowRight: 1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key] ?? 0
    const beside = { ArrowUp: -1, ArrowDown: 1 }[event.key] ?? 0
    if (!along && !beside) return
    event.preventDefault()
    const unit = this.options.unit()
    const distance = along ? stepDistance(thing.distance_m, unit, along) : thing.distance_m
    const aside = beside ? snapAside(thing.aside_m, unit, beside) : thing.aside_m
    this.options.onplace(thing.key, distance, aside, `step ${thing.key}`)
  }
}
