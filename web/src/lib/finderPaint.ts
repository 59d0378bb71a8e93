/**
 * Paints the finder picture: outlines and discs come from the server in millimetres; here they are only drawn.
 * A soft outline is the average of copies shifted over its disc, which is what a lens does.
 */
import type { FinderObject, FinderView } from './types'

/** Shifts over a disc of radius 1, evenly spread. 255 / 51 is whole, so that the copies add up to full cover. */
const COPIES = 51
const SHIFTS = Array.from({ length: COPIES }, (_, i) => {
  const radius = Math.sqrt((i + 0.5) / COPIES)
  const turn = i * 2.399963229728653
  return [radius * Math.cos(turn), radius * Math.sin(turn)] as const
})
/** Discs below this many pixels are drawn sharp. */
const SHARP_PX = 1
/** Softer outlines are averaged at a coarser grain: nobody sees it, and it keeps a drag fluid. */
const COARSE_PX = 18

const COLOURS = {
  sky: ['#0a1726', '#27415a'],
  water: ['#1c3246', '#0b1622'],
  body: '#6d8797',
  head: '#d0b292',
  subjectBody: '#5f8a93',
  subjectHead: '#e6c7a2',
  post: '#0b131b',
  shore: '#101d29',
  lamp: '255 206 130',
}

export interface Painting {
  /** Pixels for a millimetre across and down; across is less where the squeezed image is shown. */
  perMmX: number
  perMmY: number
  /** Where the optical axis lies, pixels. */
  originX: number
  originY: number
}

type Points = number[][]

function path(context: CanvasRenderingContext2D, points: Points, at: Painting, dx = 0, dy = 0) {
  context.beginPath()
  for (const [x = 0, y = 0] of points) {
    context.lineTo(at.originX + x * at.perMmX - dx, at.originY + y * at.perMmY - dy)
  }
  context.closePath()
}

export function paint(context: CanvasRenderingContext2D, view: FinderView, at: Painting) {
  const { recorded, circle } = view
  const left = at.originX + recorded.x * at.perMmX
  const top = at.originY + recorded.y * at.perMmY
  const [wide, high] = [recorded.width * at.perMmX, recorded.height * at.perMmY]
  context.save()
  context.beginPath()
  context.rect(left, top, wide, high)
  context.clip()
  paintGround(context, view, at, [left, top, wide, high])
  for (const thing of view.objects) paintObject(context, thing, at, wide, high)
  if (circle) {
    context.beginPath()
    context.rect(left - 1, top - 1, wide + 2, high + 2)
    context.ellipse(at.originX, at.originY, circle.rx * at.perMmX, circle.ry * at.perMmY, 0, 0, 7)
    context.fillStyle = '#000'
    context.fill('evenodd')
  }
  const { picture } = view
  context.beginPath()
  context.rect(left, top, wide, high)
  context.rect(
    at.originX + picture.x * at.perMmX,
    at.originY + picture.y * at.perMmY,
    picture.width * at.perMmX,
    picture.height * at.perMmY,
  )
  context.fillStyle = 'rgb(0 0 0 / 45%)'
  context.fill('evenodd')
  context.restore()
}

function paintGround(
  context: CanvasRenderingContext2D,
  view: FinderView,
  at: Painting,
  [left, top, wide, high]: [number, number, number, number],
) {
  const horizon = at.originY
  const soft = Math.max(((view.horizon_blur?.height ?? 0) * at.perMmY) / 2, 0.5)
  const shade = context.createLinearGradient(0, top, 0, top + high)
  const place = (y: number) => Math.min(Math.max((y - top) / high, 0), 1)
  shade.addColorStop(0, COLOURS.sky[0] as string)
  shade.addColorStop(place(horizon - soft), COLOURS.sky[1] as string)
  shade.addColorStop(place(horizon + soft), COLOURS.water[0] as string)
  shade.addColorStop(1, COLOURS.water[1] as string)
  context.fillStyle = shade
  context.fillRect(left, top, wide, high)
}

function paintObject(
  context: CanvasRenderingContext2D,
  thing: FinderObject,
  at: Painting,
  wide: number,
  high: number,
) {
  const rx = ((thing.blur?.width ?? 0) / 2) * at.perMmX
  const ry = ((thing.blur?.height ?? 0) / 2) * at.perMmY
  for (const { part, points } of thing.parts) {
    if (part === 'lamp') {
      paintLamp(context, points, at, rx, ry)
      continue
    }
    const subject = thing.key === 'subject'
    const colour =
      part === 'body' && subject
        ? COLOURS.subjectBody
        : part === 'head' && subject
          ? COLOURS.subjectHead
          : COLOURS[part]
    if (Math.max(rx, ry) * 2 < SHARP_PX) {
      path(context, points, at)
      context.fillStyle = colour
      context.fill()
    } else paintSoft(context, points, at, rx, ry, colour, wide, high)
  }
}

/** A lamp is small and bright: it shows the disc itself, dimmer the larger it grows. */
function paintLamp(context: CanvasRenderingContext2D, points: Points, at: Painting, rx: number, ry: number) {
  const xs = points.map((p) => p[0] ?? 0)
  const ys = points.map((p) => p[1] ?? 0)
  const middle = (all: number[]) => (Math.min(...all) + Math.max(...all)) / 2
  const half = (all: number[]) => (Math.max(...all) - Math.min(...all)) / 2
  const [ownX, ownY] = [Math.max(half(xs) * at.perMmX, 0.5), Math.max(half(ys) * at.perMmY, 0.5)]
  const [wholeX, wholeY] = [ownX + rx, ownY + ry]
  const strength = Math.max(0.4, Math.min(1, Math.sqrt((ownX * ownY) / (wholeX * wholeY)) * 1.6))
  context.beginPath()
  context.ellipse(
    at.originX + middle(xs) * at.perMmX,
    at.originY + middle(ys) * at.perMmY,
    wholeX,
    wholeY,
    0,
    0,
    7,
  )
  context.fillStyle = `rgb(${COLOURS.lamp} / ${strength})`
  context.fill()
  context.strokeStyle = `rgb(${COLOURS.lamp} / ${Math.min(1, strength + 0.25)})`
  context.stroke()
}

let sharpCopy: HTMLCanvasElement | undefined
let averaged: HTMLCanvasElement | undefined

function sheet(kept: HTMLCanvasElement | undefined, wide: number, high: number): HTMLCanvasElement {
  const canvas = kept ?? document.createElement('canvas')
  // Setting the size also wipes it.
  canvas.width = wide
  canvas.height = high
  return canvas
}

function paintSoft(
  context: CanvasRenderingContext2D,
  points: Points,
  at: Painting,
  rx: number,
  ry: number,
  colour: string,
  wide: number,
  high: number,
) {
  const grain = Math.min(1, COARSE_PX / (2 * Math.max(rx, ry)))
  const xs = points.map((p) => at.originX + (p[0] ?? 0) * at.perMmX)
  const ys = points.map((p) => at.originY + (p[1] ?? 0) * at.perMmY)
  // Only what can reach the frame: a person close by may be many frames high.
  const [x0, x1] = [
    Math.max(Math.min(...xs), at.originX - 2 * wide) - rx,
    Math.min(Math.max(...xs), at.originX + 2 * wide) + rx,
  ]
  const [y0, y1] = [
    Math.max(Math.min(...ys), at.originY - 2 * high) - ry,
    Math.min(Math.max(...ys), at.originY + 2 * high) + ry,
  ]
  if (x1 <= x0 || y1 <= y0) return
  const [w, h] = [Math.ceil((x1 - x0) * grain) + 2, Math.ceil((y1 - y0) * grain) + 2]
  sharpCopy = sheet(sharpCopy, w, h)
  averaged = sheet(averaged, w, h)
  const sharp = sharpCopy.getContext('2d')
  const mean = averaged.getContext('2d')
  if (!sharp || !mean) return
  const scaled: Painting = {
    perMmX: at.perMmX * grain,
    perMmY: at.perMmY * grain,
    originX: (at.originX - x0) * grain + 1,
    originY: (at.originY - y0) * grain + 1,
  }
  path(sharp, points, scaled)
  sharp.fillStyle = '#fff'
  sharp.fill()
  mean.globalCompositeOperation = 'lighter'
  mean.globalAlpha = 1 / COPIES
  for (const [dx, dy] of SHIFTS) mean.drawImage(sharpCopy, dx * rx * grain, dy * ry * grain)
  mean.globalAlpha = 1
  mean.globalCompositeOperation = 'source-in'
  mean.fillStyle = colour
  mean.fillRect(0, 0, w, h)
  context.drawImage(averaged, x0 - 1 / grain, y0 - 1 / grain, w / grain, h / grain)
}
