/** How a production speaks: in the words of cinema, of video, or of stills, and in which units. */
import { gain, shutterTime } from './light'
import type { Unit, Words } from './types'

export const TRADES: readonly { value: Words; label: string; about: string }[] = [
  {
    value: 'cine',
    label: 'cine',
    about: 'EI, shutter angle, what it frames like on the window of reference',
  },
  { value: 'video', label: 'video', about: 'gain where 0 dB is known, shutter 1/50' },
  { value: 'stills', label: 'stills', about: 'ISO, shutter 1/50, the 35 mm equivalent' },
]

class Trade {
  words = $state<Words>('cine')
  /** Of distances; weights go with it. */
  unit = $state<Unit>('m')

  /** How a sensitivity is called. */
  readonly sensitivity = $derived(this.words === 'stills' ? 'ISO' : 'EI')

  /** A sensitivity; in video as a gain, where that is known. */
  ei(ei: number, db?: number | null): string {
    const plain = `${this.sensitivity} ${ei}`
    if (db == null) return plain
    return this.words === 'video' ? `${gain(db)} (${plain})` : `${plain}, ${gain(db)}`
  }

  /** One of a list of them, under their name. */
  listed(ei: number, native: boolean, db: number | null | undefined): string {
    const sign = native ? ' native' : ''
    if (db == null) return `${ei}${sign}`
    return this.words === 'video'
      ? `${gain(db)}${sign} (${this.sensitivity} ${ei})`
      : `${ei}${sign}, ${gain(db)}`
  }

  /** A shutter, by its angle or by its time. */
  shutter(degrees: number, fps: number): string {
    return this.words === 'cine' ? `${degrees}°` : shutterTime(degrees / 360 / fps)
  }

  /** What a focal length is told against: on full frame it has a name of its own. */
  framesLike(reference: string): string {
    return this.words === 'stills' && reference === 'full frame'
      ? '35 mm equivalent'
      : `Frames like, on ${reference}`
  }

  /** Sentences come in the words of cinema. */
  told(text: string): string {
    return this.words === 'stills' ? text.replace(/\bEI\b/g, 'ISO') : text
  }
}

export const trade = new Trade()
