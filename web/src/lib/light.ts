/** The light of a look in the address bar. */
import { LAMPS, MOVERS } from './generated/choices'
import type { Light } from './types'

const KNOWN: readonly Light['known_by'][] = ['lux', 'foot_candles', 'metered']

export function writeLight(light: Light): string {
  const { metered } = light
  return [
    light.ei ?? '',
    light.nd_stops,
    light.shutter,
    light.shutter_deg,
    light.shutter_s,
    light.known_by,
    light.lux,
    light.foot_candles,
    metered.t_stop,
    metered.ei,
    metered.shutter_s,
    metered.nd_stops,
    light.may_move.join('.'),
    light.mains_hz,
    light.lamp,
    light.pulse_hz,
    light.pulse_duty,
    light.ripple_percent ?? '',
  ].join('~')
}

/** Read it; null where the text is none. What breaks a rule is told by the server. */
export function readLight(text: string): Light | null {
  const parts = text.split('~')
  if (parts.length !== 18) return null
  const figure = (i: number) => Number(parts[i])
  const optional = (i: number) => (parts[i] === '' ? null : Number(parts[i]))
  const figures = [1, 3, 4, 6, 7, 8, 9, 10, 11, 13, 15, 16]
  if (figures.some((i) => parts[i] === '' || !Number.isFinite(figure(i)))) return null
  const lamp = LAMPS.find((kind) => kind === parts[14])
  if (!lamp) return null
  return {
    ei: optional(0),
    nd_stops: figure(1),
    shutter: parts[2] === 'time' ? 'time' : 'angle',
    shutter_deg: figure(3),
    shutter_s: figure(4),
    known_by: KNOWN.find((by) => by === parts[5]) ?? 'lux',
    lux: figure(6),
    foot_candles: figure(7),
    metered: { t_stop: figure(8), ei: figure(9), shutter_s: figure(10), nd_stops: figure(11) },
    may_move: MOVERS.filter((m) => (parts[12] ?? '').split('.').includes(m)).toSorted(
      (a, b) => (parts[12] ?? '').indexOf(a) - (parts[12] ?? '').indexOf(b),
    ),
    mains_hz: figure(13) === 60 ? 60 : 50,
    lamp,
    pulse_hz: figure(15),
    pulse_duty: figure(16),
    ripple_percent: optional(17),
  }
}

/** Three significant digits. */
export const three = (value: number) => Number(value.toPrecision(3))

/** ND in stops, thirds as thirds: 1⅓ stops. */
export function ndStops(stops: number): string {
  const thirds = Math.round(3 * stops)
  const whole = Math.floor(thirds / 3)
  const rest = ['', '⅓', '⅔'][thirds % 3] ?? ''
  const told =
    Math.abs(3 * stops - thirds) < 0.02
      ? `${whole || !rest ? whole : ''}${rest}`
      : String(Number(stops.toFixed(2)))
  return `${told} ${thirds > 0 && thirds <= 3 ? 'stop' : 'stops'}`
}

/** A shutter time as it is told: 1/50 s, or seconds where it is long. */
export const shutterTime = (seconds: number) =>
  seconds >= 0.4 ? `${three(seconds)} s` : `1/${Number((1 / seconds).toFixed(1))} s`

/** A gain in decibels: +6 dB, −3 dB. */
export const gain = (db: number) =>
  `${db > 0.05 ? '+' : db < -0.05 ? '−' : ''}${Math.abs(Math.round(10 * db) / 10)} dB`
