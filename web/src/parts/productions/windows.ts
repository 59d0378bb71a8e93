import type { Production } from '../../lib/types'

type Size = readonly number[]

/** The largest sensor of all productions, width and height in mm: every small drawing has its scale. */
export function largestSensor(productions: readonly Production[]): [number, number] {
  const sensors: Size[] = productions.flatMap((p) => p.glance.bodies.map((b) => b.sensor_mm))
  const most = (i: number, least: number) => Math.max(least, ...sensors.map((size) => size[i] ?? 0))
  return [most(0, 36), most(1, 24)]
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

function day(iso: string): string {
  const [year, month = '1', date] = iso.split('-')
  return `${Number(date)} ${MONTHS[Number(month) - 1]} ${year}`
}

/** The days of a production in words; nothing where none is known. */
export function days(starts: string, ends: string): string {
  if (starts && ends) return `${day(starts)} to ${day(ends)}`
  return starts ? `from ${day(starts)}` : ends ? `until ${day(ends)}` : ''
}

/** When something was changed, as one says it. */
export function ago(changed: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(changed)) / 60_000)
  if (minutes < 1) return 'just now'
  if (minutes < 60) return `${minutes} min ago`
  if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h ago`
  return `on ${day(changed.slice(0, 10))}`
}
