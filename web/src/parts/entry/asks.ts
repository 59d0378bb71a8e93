/** What quick entry asks for, field by field. */
import type { QuickBodyAsk } from '../../lib/types'

export type SensorAsk = NonNullable<QuickBodyAsk['sensor']>
export type SensorField = Exclude<keyof SensorAsk, 'reference' | 'format_class'>

/** Facts of a sensor that are typed, a row each: name, how it is called, an example. */
export const SENSOR_FIELDS: readonly { name: SensorField; label: string; example: string }[] = [
  { name: 'size_mm', label: 'Active area, mm', example: '38.1 x 20.1' },
  { name: 'photosites', label: 'Photosites', example: '5952 x 3140' },
  { name: 'pitch_um', label: 'Pitch, µm', example: '6.4' },
  { name: 'megapixels', label: 'Megapixels', example: '24.2' },
  { name: 'crop', label: 'Crop factor', example: '1.5' },
]

export const NO_SENSOR: SensorAsk = {
  size_mm: '',
  photosites: '',
  pitch_um: '',
  format_class: null,
  megapixels: '',
  crop: '',
  reference: 'full_frame',
}

export const NO_BODY: QuickBodyAsk & { sensor: SensorAsk } = {
  name: '',
  maker: '',
  mount: '',
  sensor: NO_SENSOR,
  modes: '',
  formats: ['raw', 'uhd', 'hd'],
}

export const MODES_EXAMPLE = `Full up to 60
S35 crop 1.5x up to 120
S35 UHD 4:2:2 10 bit 23.98-59.94, HD up to 120
2.39 5952x2532 24 25`

export const REFERENCES = [
  { value: 'full_frame', label: 'full frame' },
  { value: 'super35', label: 'Super 35' },
] as const
