/** The one place that talks to the server. */
import createClient from 'openapi-fetch'
import type { paths } from './generated/api'
import type {
  BenchState,
  BenchView,
  BodyDocument,
  BodyKept,
  BodyList,
  BodySheet,
  CameraMatch,
  CatalogueChange,
  CompareView,
  ComparisonDocument,
  ComparisonKept,
  CoverageAsk,
  CoverageView,
  DataAsk,
  DataTable,
  DepthAsk,
  DepthView,
  ExposureView,
  FieldAnswer,
  FieldAsk,
  FileRead,
  FinderAnswer,
  FinderAsk,
  FlickerView,
  KitLadder,
  KitMatch,
  KitMatrix,
  LadderAsk,
  LensSetDocument,
  LensSetKept,
  LensSetList,
  LensSetSheet,
  MatchAsk,
  MatrixAsk,
  Package,
  PackageSettings,
  Problem,
  Production,
  RigDocument,
  RigKept,
  RigSheet,
  SettingsKept,
  SlowAsk,
  SlowMotion,
  SpeedTable,
  Unit,
} from './types'

const http = createClient<paths>({ baseUrl: '/' })

/** Either what was asked for, or why not. */
export type Outcome<T> = { data: T; problem?: undefined } | { data?: undefined; problem: Problem }

const AWAY: Problem = {
  code: 'no_answer',
  message: 'The server does not answer. Is it still running? What you see is the last answer.',
  faults: [],
}

async function outcome<T>(call: Promise<{ data?: unknown; error?: unknown }>): Promise<Outcome<T>> {
  try {
    const { data, error } = await call
    if (data !== undefined) return { data: data as T }
    const told = (error as { error?: Problem } | undefined)?.error
    return { problem: told ?? AWAY }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    return { problem: AWAY }
  }
}

/** Writes that are under way: who reads what they change waits for them. */
const writes = new Set<Promise<unknown>>()

function write<T>(call: Promise<Outcome<T>>): Promise<Outcome<T>> {
  writes.add(call)
  void call.finally(() => writes.delete(call))
  return call
}

export const settled = () => Promise.allSettled([...writes])

export const listProductions = () => outcome<Production[]>(http.GET('/api/productions'))

const at = (production_id: number) => ({ params: { path: { production_id } } })

export const readPackage = (id: number) =>
  outcome<Package>(http.GET('/api/productions/{production_id}/package', at(id)))

export const readBench = (id: number) =>
  outcome<{ version: number; state: BenchState }>(http.GET('/api/productions/{production_id}/bench', at(id)))

export const writeBench = (id: number, version: number, state: BenchState) =>
  outcome<{ version: number; state: BenchState }>(
    http.PUT('/api/productions/{production_id}/bench', {
      ...at(id),
      body: { version, state },
      keepalive: true,
    }),
  )

export const viewBench = (
  id: number,
  ask: { state: BenchState; open_rows: number[]; plan_extent_m: number | null },
  signal: AbortSignal,
) =>
  outcome<BenchView>(
    http.POST('/api/productions/{production_id}/bench/view', { ...at(id), body: ask, signal }),
  )

export const readDistance = (text: string, unit: Unit) =>
  outcome<{ metres: number }>(http.GET('/api/distance', { params: { query: { text, unit } } }))

export const mendBench = (id: number, state: BenchState) =>
  outcome<{ state: BenchState; notes: string[] }>(
    http.POST('/api/productions/{production_id}/bench/mended', { ...at(id), body: state }),
  )

export const readCatalogue = () => outcome<Production>(http.GET('/api/catalogue'))

const atBody = (production_id: number, body_id: number) => ({ params: { path: { production_id, body_id } } })

export const listBodies = (id: number) =>
  outcome<BodyList>(http.GET('/api/productions/{production_id}/bodies', at(id)))

export const readBody = (id: number, bodyId: number) =>
  outcome<BodyKept>(http.GET('/api/productions/{production_id}/bodies/{body_id}', atBody(id, bodyId)))

/** A new body, a copy from the catalogue, or a copy of one that is here. */
export const addBody = (
  id: number,
  from: { document?: BodyDocument; catalogue_body_id?: number; body_id?: number },
) => outcome<BodyKept>(http.POST('/api/productions/{production_id}/bodies', { ...at(id), body: from }))

export const writeBody = (id: number, bodyId: number, version: number, document: BodyDocument) =>
  write(
    outcome<BodyKept>(
      http.PUT('/api/productions/{production_id}/bodies/{body_id}', {
        ...atBody(id, bodyId),
        body: { version, document },
      }),
    ),
  )

export const removeBody = (id: number, bodyId: number, version: number, removed: boolean) =>
  outcome<BodyKept>(
    http.POST('/api/productions/{production_id}/bodies/{body_id}/removal', {
      ...atBody(id, bodyId),
      body: { version, removed },
    }),
  )

export const bodySheet = (id: number, document: BodyDocument, signal: AbortSignal) =>
  outcome<BodySheet>(
    http.POST('/api/productions/{production_id}/bodies/sheet', { ...at(id), body: document, signal }),
  )

export const catalogueChanges = (id: number, bodyId: number) =>
  outcome<CatalogueChange[]>(
    http.GET('/api/productions/{production_id}/bodies/{body_id}/catalogue', atBody(id, bodyId)),
  )

export const settleChanges = (id: number, bodyId: number, version: number, take: string[], leave: string[]) =>
  outcome<BodyKept>(
    http.POST('/api/productions/{production_id}/bodies/{body_id}/catalogue', {
      ...atBody(id, bodyId),
      body: { version, take, leave },
    }),
  )

export const readSettings = (id: number) =>
  outcome<SettingsKept>(http.GET('/api/productions/{production_id}/settings', at(id)))

export const writeSettings = (id: number, version: number, settings: PackageSettings) =>
  outcome<SettingsKept>(
    http.PUT('/api/productions/{production_id}/settings', { ...at(id), body: { version, settings } }),
  )

export const readSpeed = (id: number, signal: AbortSignal) =>
  outcome<SpeedTable>(http.GET('/api/productions/{production_id}/speed', { ...at(id), signal }))

export const findFormats = (id: number, ask: FinderAsk, signal: AbortSignal) =>
  outcome<FinderAnswer>(
    http.POST('/api/productions/{production_id}/finder', { ...at(id), body: ask, signal }),
  )

export const readData = (id: number, ask: DataAsk, signal: AbortSignal) =>
  outcome<DataTable>(http.POST('/api/productions/{production_id}/data', { ...at(id), body: ask, signal }))

/** Files go as they are: the server reads them. */
const sent = (file: Blob) => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': 'application/octet-stream' },
})

export const readFile = (id: number, kind: 'json' | 'fdl', file: Blob) =>
  outcome<FileRead>(
    http.POST('/api/productions/{production_id}/files/{kind}', {
      params: { path: { production_id: id, kind } },
      ...sent(file),
    }),
  )

export const readFormats = (id: number, bodyId: number, file: Blob) =>
  outcome<{ document: BodyDocument }>(
    http.POST('/api/productions/{production_id}/bodies/{body_id}/csv', {
      ...atBody(id, bodyId),
      ...sent(file),
    }),
  )

export const fileAddress = (id: number, bodyId: number, kind: 'json' | 'csv' | 'fdl', query = '') =>
  `/api/productions/${id}/bodies/${bodyId}/file/${kind}${query}`

export const templateAddress = (id: number) => `/api/productions/${id}/formats-template.csv`

const atSet = (production_id: number, set_id: number) => ({ params: { path: { production_id, set_id } } })

export const listLensSets = (id: number) =>
  outcome<LensSetList>(http.GET('/api/productions/{production_id}/lens-sets', at(id)))

export const readLensSet = (id: number, setId: number) =>
  outcome<LensSetKept>(http.GET('/api/productions/{production_id}/lens-sets/{set_id}', atSet(id, setId)))

/** A new lens set, a copy from the catalogue, or a copy of one that is here. */
export const addLensSet = (
  id: number,
  from: { document?: LensSetDocument; catalogue_lens_set_id?: number; lens_set_id?: number },
) => outcome<LensSetKept>(http.POST('/api/productions/{production_id}/lens-sets', { ...at(id), body: from }))

export const writeLensSet = (id: number, setId: number, version: number, document: LensSetDocument) =>
  write(
    outcome<LensSetKept>(
      http.PUT('/api/productions/{production_id}/lens-sets/{set_id}', {
        ...atSet(id, setId),
        body: { version, document },
      }),
    ),
  )

export const removeLensSet = (id: number, setId: number, version: number, removed: boolean) =>
  outcome<LensSetKept>(
    http.POST('/api/productions/{production_id}/lens-sets/{set_id}/removal', {
      ...atSet(id, setId),
      body: { version, removed },
    }),
  )

export const lensSetSheet = (id: number, document: LensSetDocument, signal: AbortSignal) =>
  outcome<LensSetSheet>(
    http.POST('/api/productions/{production_id}/lens-sets/sheet', { ...at(id), body: document, signal }),
  )

export const lensSetChanges = (id: number, setId: number) =>
  outcome<CatalogueChange[]>(
    http.GET('/api/productions/{production_id}/lens-sets/{set_id}/catalogue', atSet(id, setId)),
  )

export const settleLensSet = (id: number, setId: number, version: number, take: string[], leave: string[]) =>
  outcome<LensSetKept>(
    http.POST('/api/productions/{production_id}/lens-sets/{set_id}/catalogue', {
      ...atSet(id, setId),
      body: { version, take, leave },
    }),
  )

export const readLensSets = (id: number, file: Blob) =>
  outcome<{ lens_sets: LensSetKept[] }>(
    http.POST('/api/productions/{production_id}/lens-sets/file', { ...at(id), ...sent(file) }),
  )

export const readLenses = (id: number, setId: number, file: Blob) =>
  outcome<{ document: LensSetDocument }>(
    http.POST('/api/productions/{production_id}/lens-sets/{set_id}/csv', {
      ...atSet(id, setId),
      ...sent(file),
    }),
  )

export const lensFileAddress = (id: number, setId: number, kind: 'json' | 'csv') =>
  `/api/productions/${id}/lens-sets/${setId}/file/${kind}`

export const lensTemplateAddress = (id: number) => `/api/productions/${id}/lenses-template.csv`

export const readRig = (id: number) =>
  outcome<RigKept>(http.GET('/api/productions/{production_id}/rig', at(id)))

export const writeRig = (id: number, version: number, document: RigDocument) =>
  write(
    outcome<RigKept>(
      http.PUT('/api/productions/{production_id}/rig', { ...at(id), body: { version, document } }),
    ),
  )

export const rigSheet = (id: number, document: RigDocument, signal: AbortSignal) =>
  outcome<RigSheet>(
    http.POST('/api/productions/{production_id}/rig/sheet', { ...at(id), body: document, signal }),
  )

export const viewCoverage = (id: number, ask: CoverageAsk, signal: AbortSignal) =>
  outcome<CoverageView>(
    http.POST('/api/productions/{production_id}/kit/coverage', { ...at(id), body: ask, signal }),
  )

export const readMatrix = (id: number, ask: MatrixAsk, signal: AbortSignal) =>
  outcome<KitMatrix>(
    http.POST('/api/productions/{production_id}/kit/matrix', { ...at(id), body: ask, signal }),
  )

export const matrixTable = (id: number, ask: MatrixAsk) =>
  outcome<string>(
    http.POST('/api/productions/{production_id}/kit/matrix.csv', {
      ...at(id),
      body: ask,
      parseAs: 'text',
    }),
  )

export const readLadder = (id: number, ask: LadderAsk, signal: AbortSignal) =>
  outcome<KitLadder>(
    http.POST('/api/productions/{production_id}/kit/ladder', { ...at(id), body: ask, signal }),
  )

export const readMatch = (id: number, ask: MatchAsk, signal: AbortSignal) =>
  outcome<KitMatch>(http.POST('/api/productions/{production_id}/kit/match', { ...at(id), body: ask, signal }))

export const findField = (id: number, ask: FieldAsk, signal: AbortSignal) =>
  outcome<FieldAnswer>(
    http.POST('/api/productions/{production_id}/kit/field', { ...at(id), body: ask, signal }),
  )

export const readSlowMotion = (id: number, ask: SlowAsk, signal: AbortSignal) =>
  outcome<SlowMotion>(
    http.POST('/api/productions/{production_id}/kit/slow-motion', { ...at(id), body: ask, signal }),
  )

export const readRigFile = (id: number, file: Blob) =>
  outcome<{ document: RigDocument }>(
    http.POST('/api/productions/{production_id}/rig/file', { ...at(id), ...sent(file) }),
  )

export const rigFileAddress = (id: number) => `/api/productions/${id}/rig/file`

export const viewDepth = (id: number, ask: DepthAsk, signal: AbortSignal) =>
  outcome<DepthView>(
    http.POST('/api/productions/{production_id}/bench/depth', { ...at(id), body: ask, signal }),
  )

export const depthTable = (id: number, ask: DepthAsk) =>
  outcome<string>(
    http.POST('/api/productions/{production_id}/bench/depth.csv', { ...at(id), body: ask, parseAs: 'text' }),
  )

export const viewExposure = (id: number, state: BenchState, signal: AbortSignal) =>
  outcome<ExposureView>(
    http.POST('/api/productions/{production_id}/bench/exposure', { ...at(id), body: { state }, signal }),
  )

export const viewFlicker = (id: number, state: BenchState, signal: AbortSignal) =>
  outcome<FlickerView>(
    http.POST('/api/productions/{production_id}/bench/flicker', { ...at(id), body: { state }, signal }),
  )

const atComparison = (production_id: number, comparison_id: number) => ({
  params: { path: { production_id, comparison_id } },
})

export const listComparisons = (id: number) =>
  outcome<{ here: ComparisonKept[]; removed: ComparisonKept[] }>(
    http.GET('/api/productions/{production_id}/comparisons', at(id)),
  )

export const readComparison = (id: number, comparisonId: number) =>
  outcome<ComparisonKept>(
    http.GET('/api/productions/{production_id}/comparisons/{comparison_id}', atComparison(id, comparisonId)),
  )

export const addComparison = (id: number, document: ComparisonDocument) =>
  outcome<ComparisonKept>(
    http.POST('/api/productions/{production_id}/comparisons', { ...at(id), body: { document } }),
  )

export const writeComparison = (
  id: number,
  comparisonId: number,
  version: number,
  document: ComparisonDocument,
) =>
  write(
    outcome<ComparisonKept>(
      http.PUT('/api/productions/{production_id}/comparisons/{comparison_id}', {
        ...atComparison(id, comparisonId),
        body: { version, document },
      }),
    ),
  )

export const removeComparison = (id: number, comparisonId: number, version: number, removed: boolean) =>
  outcome<ComparisonKept>(
    http.POST('/api/productions/{production_id}/comparisons/{comparison_id}/removal', {
      ...atComparison(id, comparisonId),
      body: { version, removed },
    }),
  )

export const viewComparison = (id: number, document: ComparisonDocument, signal: AbortSignal) =>
  outcome<CompareView>(
    http.POST('/api/productions/{production_id}/compare/view', { ...at(id), body: { document }, signal }),
  )

export const matchCamera = (id: number, document: ComparisonDocument, index: number) =>
  outcome<CameraMatch>(
    http.POST('/api/productions/{production_id}/compare/match', { ...at(id), body: { document, index } }),
  )
