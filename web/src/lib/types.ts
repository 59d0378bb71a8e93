/** Short names for the generated types. */
import type { components } from './generated/api'

type Schemas = components['schemas']
export type BenchState = Required<Schemas['BenchState']>
export type BenchView = Schemas['BenchView']
export type LadderRow = Schemas['LadderRow']
export type Package = Schemas['PackageRead']
export type Production = Schemas['ProductionRead']
export type RecordingFormat = Schemas['FormatRead']
export type ScanMode = Schemas['ModeRead']
export type Body = Schemas['BodyRead']
export type Lens = Schemas['LensRead']
export type PlanGeometry = Schemas['PlanView']
export type MapGeometry = Schemas['WindowMap']
export type Step = Schemas['Step']
export type Note = Schemas['Note']
export type CropSwitch = Schemas['CropSwitch']
export type Unit = BenchState['unit']
export type Verdict = LadderRow['verdict']

/** What the server says when it refuses; `stored` comes with a stale write. */
export interface Problem {
  code: string
  message: string
  faults: { field: string; value?: unknown; rule: string }[]
  stored?: { version: number; state: BenchState }
}

/** Where a recording format stands in the package. */
export interface FormatPlace {
  body: Body
  mode: ScanMode
  format: RecordingFormat
}
