/**
 * Paints the finder picture: outlines and discs come from the server in millimetres; here they are only drawn.
 * Outlines out of focus are spread over their discs (`soften`).
 */
import { discOf, showing, spread } from './soften'
import type { FinderObject, FinderView } from './types'

/** Discs below this many pixels are drawn sharp. */
const SHARP_PX = 1
/** Wider discs are averaged at a coarser grain: nobody sees it, and it keeps a drag fluid. */
const COARSE_PX = 10

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

/** The recorded picture on the canvas, pixels: nothing is painted beyond it. */
interface Frame {
  left: number
  top: number
  wide: number
  high: number
}

function path(context: CanvasRenderingContext2D, points: Points, at: Painting) {
  context.beginPath()
  for (const [x = 0, y = 0] of points) {
    context.lineTo(at.originX + x * at.perMmX, at.originY + y * at.perMmY)
  }
  context.closePath()
}

export function paint(context: CanvasRenderingContext2D, view: FinderView, at: Painting) {
  const { recorded, circle } = view
  const left = at.originX + recorded.x * at.perMmX
  const top = at.originY + recorded.y * at.perMmY
  const [wide, high] = [recorded.width * at.perMmX, recorded.height * at.perMmY]
  const frame = { left, top, wide, high }
  context.save()
  context.beginPath()
  context.rect(left, top, wide, high)
  context.clip()
  paintGround(context, view, at, frame)
  for (const thing of view.objects) paintObject(context, thing, at, frame)
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
  { left, top, wide, high }: Frame,
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

function paintObject(context: CanvasRenderingContext2D, thing: FinderObject, at: Painting, frame: Frame) {
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
    } else paintSoft(context, points, at, [rx, ry], colour, frame)
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

let outline: HTMLCanvasElement | undefined
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
  [rx, ry]: [number, number],
  colour: string,
  frame: Frame,
) {
  const across = showing(
    points.map((p) => at.originX + (p[0] ?? 0) * at.perMmX),
    rx,
    [frame.left, frame.left + frame.wide],
  )
  const down = showing(
    points.map((p) => at.originY + (p[1] ?? 0) * at.perMmY),
    ry,
    [frame.top, frame.top + frame.high],
  )
  if (!across || !down) return
  const grain = Math.min(1, COARSE_PX / (2 * Math.max(rx, ry)))
  const [wide, high] = [Math.ceil(across.long * grain), Math.ceil(down.long * grain)]
  const disc = discOf(rx * grain, ry * grain)
  outline = sheet(outline, wide + 2 * disc.marginX, high + 2 * disc.marginY)
  averaged = sheet(averaged, wide, high)
  const sharp = outline.getContext('2d', { willReadFrequently: true })
  const soft = averaged.getContext('2d')
  if (!sharp || !soft) return
  path(sharp, points, {
    perMmX: at.perMmX * grain,
    perMmY: at.perMmY * grain,
    originX: (at.originX - across.from) * grain + disc.marginX,
    originY: (at.originY - down.from) * grain + disc.marginY,
  })
  sharp.fill()
  const cover = sharp.getImageData(0, 0, outline.width, outline.height)
  const picture = soft.createImageData(wide, high)
  const shares = spread(cover.data, outline.width, disc, wide, high)
  for (let i = 0; i < shares.length; i++) picture.data[4 * i + 3] = shares[i] ?? 0
  soft.putImageData(picture, 0, 0)
  soft.globalCompositeOperation = 'source-in'
  soft.fillStyle = colour
  soft.fillRect(0, 0, wide, high)
  context.drawImage(averaged, across.from, down.from, wide / grain, high / grain)
}
