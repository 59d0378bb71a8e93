/** Short names for the generated types. */
import type { components } from './generated/api'

type Schemas = components['schemas']
export type SceneObject = Required<Schemas['SceneObject']>
export type Scene = Omit<Required<Schemas['Scene']>, 'objects'> & { objects: SceneObject[] }
export type Light = Omit<Required<Schemas['Light']>, 'metered'> & { metered: Required<Schemas['Metered']> }
export type Mover = Light['may_move'][number]
export type BenchState = Omit<Required<Schemas['BenchState']>, 'scene' | 'light'> & {
  scene: Scene
  light: Light
}
export type DepthAsk = Omit<Required<Schemas['DepthAsk']>, 'state'> & { state: BenchState }
export type DepthView = Schemas['DepthView']
export type DepthCurve = Schemas['DepthCurve']
export type StopAnswer = Schemas['StopAnswer']
export type ExposureView = Schemas['ExposureView']
export type FlickerView = Schemas['FlickerView']
export type CompareColumn = Required<Schemas['Column']>
export type ComparisonDocument = Omit<Required<Schemas['Comparison']>, 'columns' | 'scene'> & {
  columns: CompareColumn[]
  scene: Scene
}
export type ComparisonKept = { id: number; version: number; removed: boolean; document: ComparisonDocument }
export type CompareView = Schemas['CompareView']
export type ComparedRow = Schemas['ComparedRow']
export type CameraMatch = Schemas['CameraMatch']
export type MatchOption = Schemas['MatchOption']
export type Why = Schemas['Why']
export type BenchView = Schemas['BenchView']
export type LadderRow = Schemas['LadderRow']
export type Package = Schemas['PackageRead']
export type Production = Schemas['ProductionRead']
export type RecordingFormat = Schemas['FormatRead']
export type ScanMode = Schemas['ModeRead']
export type Body = Schemas['BodyRead']
export type Lens = Schemas['LensRead']
export type PlanGeometry = Schemas['PlanView']
export type FinderView = Schemas['Viewfinder']
export type FinderObject = Schemas['FinderObject']
export type MapGeometry = Schemas['WindowMap']
export type Step = Schemas['Step']
export type Note = Schemas['Note']
export type CropSwitch = Schemas['CropSwitch']
export type BodyDocument = Required<Schemas['BodyDocument']>
export type ModeDocument = BodyDocument['modes'][number]
export type FormatDocument = NonNullable<ModeDocument['formats']>[number]
export type CropDocument = BodyDocument['crops'][number]
export type Origin = Schemas['Origin']
export type BodyKept = { id: number; version: number; document: BodyDocument }
export type BodyList = Schemas['BodyList']
export type BodySummary = Schemas['BodySummary']
export type BodySheet = Schemas['BodySheet']
export type FormatFigures = Schemas['FormatFigures']
export type ModeFigures = Schemas['ModeFigures']
export type ClaimVerdict = Schemas['CropChecked']['verdict']
export type CatalogueChange = Schemas['CatalogueChange']
export type PackageSettings = Required<Schemas['PackageSettings']>
export type SettingsKept = { version: number; settings: PackageSettings }
export type SpeedTable = Schemas['SpeedTable']
export type SpeedRow = Schemas['SpeedRow']
export type FinderAsk = Schemas['FinderAsk']
export type FinderAnswer = Schemas['FinderAnswer']
export type RankedRow = Schemas['RankedRow']
export type RejectedRow = Schemas['RejectedRow']
export type DataAsk = Schemas['DataAsk']
export type DataTable = Schemas['DataTable']
export type DataRow = Schemas['DataRow']
export type FileRead = Schemas['FileRead']
export type LensSetDocument = Required<Schemas['LensSetDocument']>
export type LensDocument = LensSetDocument['lenses'][number]
export type LensSetKept = { id: number; version: number; document: LensSetDocument }
export type LensSetList = Schemas['LensSetList']
export type LensSetSummary = Schemas['LensSetSummary']
export type LensSetSheet = Schemas['LensSetSheet']
export type LensFigures = Schemas['LensFigures']
export type RigDocument = Required<Schemas['RigDocument']>
export type MountDocument = RigDocument['mounts'][number]
export type AdapterDocument = RigDocument['adapters'][number]
export type FilterDocument = RigDocument['filters'][number]
export type RigKept = { version: number; document: RigDocument }
export type RigSheet = Schemas['RigSheet']
export type Combination = Schemas['Combination']
export type KitAsk = Omit<Schemas['MatrixAsk'], 'across'>
export type CoverageAsk = Schemas['CoverageAsk']
export type CoverageView = Schemas['CoverageView']
export type CoverageOption = Schemas['Option']
export type MatrixAsk = Schemas['MatrixAsk']
export type KitMatrix = Schemas['KitMatrix']
export type MatrixRow = Schemas['MatrixRow']
export type LadderAsk = Schemas['LadderAsk']
export type KitLadder = Schemas['KitLadder']
export type Rung = Schemas['Rung']
export type MatchAsk = Schemas['MatchAsk']
export type KitMatch = Schemas['KitMatch']
export type Matched = Schemas['Matched']
export type FieldAsk = Schemas['FieldAsk']
export type FieldAnswer = Schemas['FieldAnswer']
export type SlowAsk = Schemas['SlowAsk']
export type SlowMotion = Schemas['SlowMotion']
export type KitVerdict = Schemas['LensChoice']['verdict']
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
