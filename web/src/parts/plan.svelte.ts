/** Dragging along the lens axis: turns pixels into metres in steps of the trade. */
import { stepDistance } from '../lib/format'
import type { Unit } from '../lib/types'

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

  constructor(private readonly options: PlanDragOptions) {}

  start(handle: Handle, event: PointerEvent) {
    event.preventDefault()
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    this.handle = handle
    this.options.ondrag(true)
  }

  move(event: PointerEvent, svg: SVGSVGElement) {
    if (!this.handle) return
    const { pxPerMetre, originPx } = this.options.scale()
    const metres = (event.clientX - svg.getBoundingClientRect().left - originPx) / pxPerMetre
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
