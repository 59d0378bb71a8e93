/** The one place that talks to the server. */
import createClient from 'openapi-fetch'
import { forget, productionOf } from './kept'
import { newKey } from './rows'
import { trade } from './trade.svelte'
import type { paths } from './generated/api'
import type {
  BenchState,
  BodyDocument,
  ClipFacts,
  ComparisonDocument,
  CoverageAsk,
  DataAsk,
  DepthAsk,
  FieldAsk,
  FinderAsk,
  LadderAsk,
  LensLineAsk,
  LensSetDocument,
  LogEntry,
  MatchAsk,
  MatrixAsk,
  OnCamera,
  PackageSettings,
  Packing,
  Problem,
  ProductionFacts,
  QuickBodyAsk,
  RigDocument,
  SetSettings,
  Shot,
  ShotList,
  SlowAsk,
  SheetPlan,
  Sheets,
  ShotsFileKind,
  Unit,
} from './types'

const http = createClient<paths>({ baseUrl: '/', fetch: (request) => patiently(request) })

/** Answers that the core words itself; documents stay as they were written. */
const WORDED =
  /\/(bench\/(view|depth|exposure|flicker)|compare|match-camera|shots\/(view|rented)|packing\/searches|set\/(held|report))(\/|$)/
/** A server with too much to do says when it is worth asking again; so often it is asked. */
const TRIES = 4
const wait = (ms: number, signal: AbortSignal) =>
  new Promise<void>((done, left) => {
    const timer = setTimeout(done, ms)
    signal.addEventListener('abort', () => {
      clearTimeout(timer)
      left(signal.reason as Error)
    })
  })

/** Whether the same may be sent again without doing anything twice: where it only reads, and where nothing was begun. */
async function mayRepeat(request: Request, response: Response): Promise<boolean> {
  if (request.method === 'GET') return true
  const told = (await response
    .clone()
    .json()
    .catch(() => null)) as { error?: { code?: string } } | null
  return told?.error?.code === 'busy'
}

/** Ask, and ask again where the server is busy and says when. */
export async function patiently(request: Request): Promise<Response> {
  for (let n = 1; ; n += 1) {
    const response = await fetch(request.clone())
    const after = Number(response.headers.get('Retry-After'))
    if (response.status !== 503 || !after || n === TRIES) return response
    if (!(await mayRepeat(request, response))) return response
    await wait(after * 1000, request.signal)
  }
}

http.use({
  async onResponse({ request, response }) {
    // Put away by somebody else: what is kept of it here goes, too.
    const gone = response.status === 410 ? productionOf(request.url) : null
    if (gone !== null) await forget(gone)
    if (!response.ok || !WORDED.test(new URL(request.url).pathname)) return undefined
    const text = await response.clone().text()
    const told = trade.told(text)
    return told === text ? undefined : new Response(told, response)
  },
})

/** Either what was asked for, or why not. */
export type Outcome<T, P = Problem> = { data: T; problem?: undefined } | { data?: undefined; problem: P }
/** Why a write was refused; what is stored comes with one that was based on an old version. */
export type WriteProblem<S> = Problem & { stored?: S | null }

const AWAY: Problem = {
  code: 'no_answer',
  message:
    'One moment: the server does not answer. What you see is the last answer; the page goes on by itself.',
  faults: [],
}

/** What a path answers is said by the path itself: nothing here claims another type. */
async function outcome<T, S = never>(
  call: Promise<{ data?: T; error?: { error: WriteProblem<S> } }>,
): Promise<Outcome<NonNullable<T>, WriteProblem<S>>> {
  try {
    const { data, error } = await call
    if (data !== undefined && data !== null) return { data }
    return { problem: error?.error ?? AWAY }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    return { problem: AWAY }
  }
}

/** Writes that are under way: who reads what they change waits for them. */
const writes = new Set<Promise<unknown>>()

function write<T>(call: Promise<T>): Promise<T> {
  writes.add(call)
  void call.finally(() => writes.delete(call))
  return call
}

export const settled = () => Promise.allSettled([...writes])

export const listProductions = () => outcome(http.GET('/api/v1/productions'))

/** Files go as they are: the server reads them. */
const sent = (file: Blob) => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': 'application/octet-stream' },
})

const at = (production_id: number) => ({ params: { path: { production_id } } })

/** What is said of a production; the page speaks in its words from then on. */
export async function readProduction(id: number) {
  const found = await outcome(http.GET('/api/v1/productions/{production_id}', at(id)))
  if (found.data) [trade.words, trade.unit] = [found.data.words, found.data.unit]
  return found
}

/** An empty production, or a copy of another. */
export const addProduction = (facts: ProductionFacts, copyOf?: number) =>
  outcome(
    http.POST('/api/v1/productions', {
      body: { facts, production_id: copyOf },
      headers: { 'Idempotency-Key': newKey() },
    }),
  )

export const writeProduction = (id: number, version: number, facts: ProductionFacts) =>
  outcome(http.PUT('/api/v1/productions/{production_id}', { ...at(id), body: { version, facts } }))

export async function removeProduction(id: number, version: number, removed: boolean) {
  const found = await outcome(
    http.POST('/api/v1/productions/{production_id}/removal', { ...at(id), body: { version, removed } }),
  )
  if (found.data && removed) await forget(id)
  return found
}

export const readProductionFile = (file: Blob) =>
  outcome(
    http.POST('/api/v1/productions/file', {
      ...sent(file),
      headers: { ...sent(file).headers, 'Idempotency-Key': newKey() },
    }),
  )

export const resetDemo = () => outcome(http.POST('/api/v1/demo'))

/** Address of a whole production as a file; also with what was taken out of it. */
export const productionFileAddress = (id: number, removed: boolean) =>
  `/api/v1/productions/${id}/file${removed ? '?removed=true' : ''}`

export const readPackage = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/package', at(id)))

export const readBench = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/bench', at(id)))

export const writeBench = (id: number, version: number, state: BenchState) =>
  outcome(
    http.PUT('/api/v1/productions/{production_id}/bench', {
      ...at(id),
      body: { version, state },
      keepalive: true,
    }),
  )

export const viewBench = (
  id: number,
  ask: { state: BenchState; open_rows: number[]; plan_extent_m: number | null },
  signal: AbortSignal,
) => outcome(http.POST('/api/v1/productions/{production_id}/bench/view', { ...at(id), body: ask, signal }))

export const readDistance = (text: string, unit: Unit) =>
  outcome(http.GET('/api/v1/distance', { params: { query: { text, unit } } }))

export const mendBench = (id: number, state: BenchState) =>
  outcome(http.POST('/api/v1/productions/{production_id}/bench/mended', { ...at(id), body: state }))

/** The catalogue from which a production takes copies; of a catalogue, itself. */
export const readCatalogue = (id: number) =>
  outcome(http.GET('/api/v1/catalogue', { params: { query: { production_id: id } } }))

const atBody = (production_id: number, body_id: number) => ({ params: { path: { production_id, body_id } } })

export const listBodies = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/bodies', at(id)))

export const readBody = (id: number, bodyId: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/bodies/{body_id}', atBody(id, bodyId)))

/** A new body, a copy from the catalogue, or a copy of one that is here. */
export const addBody = (
  id: number,
  from: { document?: BodyDocument; catalogue_body_id?: number; body_id?: number },
) => outcome(http.POST('/api/v1/productions/{production_id}/bodies', { ...at(id), body: from }))

export const writeBody = (id: number, bodyId: number, version: number, document: BodyDocument) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/bodies/{body_id}', {
        ...atBody(id, bodyId),
        body: { version, document },
      }),
    ),
  )

export const removeBody = (id: number, bodyId: number, version: number, removed: boolean) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bodies/{body_id}/removal', {
      ...atBody(id, bodyId),
      body: { version, removed },
    }),
  )

export const bodySheet = (id: number, document: BodyDocument, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bodies/sheet', { ...at(id), body: document, signal }),
  )

export const catalogueChanges = (id: number, bodyId: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/bodies/{body_id}/catalogue', atBody(id, bodyId)))

export const settleChanges = (id: number, bodyId: number, version: number, take: string[], leave: string[]) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bodies/{body_id}/catalogue', {
      ...atBody(id, bodyId),
      body: { version, take, leave },
    }),
  )

/** A question in one line; with a production its names are understood too. */
export const ask = (q: string, production_id: number | undefined, signal: AbortSignal) =>
  outcome(http.GET('/api/v1/ask', { params: { query: { q, production_id } }, signal }))

export const quickBody = (ask: QuickBodyAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/entry/body', { body: ask, signal }))

export const lensLine = (ask: LensLineAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/entry/lens-set', { body: ask, signal }))

export const readSettings = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/settings', at(id)))

export const writeSettings = (id: number, version: number, settings: PackageSettings) =>
  outcome(
    http.PUT('/api/v1/productions/{production_id}/settings', { ...at(id), body: { version, settings } }),
  )

export const readSpeed = (id: number, signal: AbortSignal) =>
  outcome(http.GET('/api/v1/productions/{production_id}/speed', { ...at(id), signal }))

export const findFormats = (id: number, ask: FinderAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/finder', { ...at(id), body: ask, signal }))

export const readData = (id: number, ask: DataAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/data', { ...at(id), body: ask, signal }))

export const fileKinds = () => outcome(http.GET('/api/v1/files'))

/** The documents of a file are added; the rows of one come back in the document that is named, which is not kept yet. */
export const readFile = (id: number, kind: string, file: Blob, documentId?: number) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/files/{kind}', {
      params: { path: { production_id: id, kind }, query: { document_id: documentId } },
      ...sent(file),
    }),
  )

/** Address of a document as a file, or of an empty one to fill in. */
export function fileAddress(
  id: number,
  kind: string,
  query: { document_id?: number; template?: boolean; aspect?: number[]; protect?: number; squeeze?: number },
) {
  const asked = new URLSearchParams()
  for (const [key, value] of Object.entries(query))
    for (const each of [value].flat()) asked.append(key, String(each))
  return `/api/v1/productions/${id}/files/${kind}${asked.size ? `?${asked}` : ''}`
}

const atSet = (production_id: number, set_id: number) => ({ params: { path: { production_id, set_id } } })

export const listLensSets = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/lens-sets', at(id)))

export const readLensSet = (id: number, setId: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/lens-sets/{set_id}', atSet(id, setId)))

/** A new lens set, a copy from the catalogue, or a copy of one that is here. */
export const addLensSet = (
  id: number,
  from: { document?: LensSetDocument; catalogue_lens_set_id?: number; lens_set_id?: number },
) => outcome(http.POST('/api/v1/productions/{production_id}/lens-sets', { ...at(id), body: from }))

export const writeLensSet = (id: number, setId: number, version: number, document: LensSetDocument) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/lens-sets/{set_id}', {
        ...atSet(id, setId),
        body: { version, document },
      }),
    ),
  )

export const removeLensSet = (id: number, setId: number, version: number, removed: boolean) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/lens-sets/{set_id}/removal', {
      ...atSet(id, setId),
      body: { version, removed },
    }),
  )

export const lensSetSheet = (id: number, document: LensSetDocument, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/lens-sets/sheet', { ...at(id), body: document, signal }),
  )

export const lensSetChanges = (id: number, setId: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/lens-sets/{set_id}/catalogue', atSet(id, setId)))

export const settleLensSet = (id: number, setId: number, version: number, take: string[], leave: string[]) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/lens-sets/{set_id}/catalogue', {
      ...atSet(id, setId),
      body: { version, take, leave },
    }),
  )

export const readRig = (id: number) => outcome(http.GET('/api/v1/productions/{production_id}/rig', at(id)))

export const writeRig = (id: number, version: number, document: RigDocument) =>
  write(
    outcome(http.PUT('/api/v1/productions/{production_id}/rig', { ...at(id), body: { version, document } })),
  )

export const rigSheet = (id: number, document: RigDocument, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/rig/sheet', { ...at(id), body: document, signal }))

export const readShots = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/shots', at(id)))

export const writeShots = (id: number, version: number, document: ShotList) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/shots', { ...at(id), body: { version, document } }),
    ),
  )

export const viewShots = (id: number, document: ShotList, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/view', {
      ...at(id),
      body: { document, changes_for: [] },
      signal,
    }),
  )
/** With what one shot could be made that cannot be made as it is. */
export const changesOfShot = (id: number, document: ShotList, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/view', { ...at(id), body: { document }, signal }),
  )

/** Address of the list of shots as a table. */
export const shotsFileAddress = (id: number, kind: ShotsFileKind) =>
  `/api/v1/productions/${id}/shots/files/${kind}`

export const readShotsFile = (id: number, kind: ShotsFileKind, file: Blob, remove: boolean) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/files/{kind}', {
      params: { path: { production_id: id, kind }, query: { remove } },
      ...sent(file),
    }),
  )

export const shotPictures = (id: number, shots: Shot[], scene: BenchState['scene'] | undefined) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/pictures', {
      ...at(id),
      body: { shots, ...(scene && { scene }) },
    }),
  )

export const rentedShot = (id: number, shot: Shot) =>
  outcome(http.POST('/api/v1/productions/{production_id}/shots/rented', { ...at(id), body: { shot } }))

export const shotBench = (id: number, shot: Shot) =>
  outcome(http.POST('/api/v1/productions/{production_id}/shots/bench', { ...at(id), body: { shot } }))

export const shotOfBench = (id: number, state: BenchState, number: string) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/from-bench', { ...at(id), body: { state, number } }),
  )

export const readPacking = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/packing', at(id)))

export const writePacking = (id: number, version: number, document: Packing) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/packing', { ...at(id), body: { version, document } }),
    ),
  )

export const viewPacking = (id: number, document: Packing, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/packing/view', { ...at(id), body: { document }, signal }),
  )

export const readSet = (id: number, day: string | undefined) =>
  outcome(
    http.GET('/api/v1/productions/{production_id}/set', {
      params: { path: { production_id: id }, query: day === undefined ? {} : { day } },
    }),
  )

export const readDayReport = (id: number, day: string) =>
  outcome(
    http.GET('/api/v1/productions/{production_id}/set/report', {
      params: { path: { production_id: id }, query: { day } },
    }),
  )

/** A format with the crops that are on, and the picture that the shot delivers: what counts as sharp goes by both. */
export interface FormatQuery {
  format_id: number
  crop_id: number[]
  aspect?: number
  long_edge_px?: number
}
/** Which lens is on which format, as the address of its depth names it. */
export interface LensUpQuery extends FormatQuery {
  lens_id: number
  adapter_id: number[]
  focal_mm?: number
}
export const readDepthCurves = (id: number, query: LensUpQuery) =>
  outcome(
    http.GET('/api/v1/productions/{production_id}/set/depth', {
      params: { path: { production_id: id }, query },
    }),
  )

/** The same of every lens on a format, with the crops that are on. */
export const readFormatCurves = (id: number, query: FormatQuery) =>
  outcome(
    http.GET('/api/v1/productions/{production_id}/set/depths', {
      params: { path: { production_id: id }, query },
    }),
  )

export const holdAgainstPlan = (id: number, shot: string | null, on: OnCamera, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/set/held', { ...at(id), body: { shot, on }, signal }),
  )

export const writeLogEntry = (id: number, entry: LogEntry, basedOn: number) =>
  outcome(
    http.PUT('/api/v1/productions/{production_id}/log/{key}', {
      params: { path: { production_id: id, key: entry.key } },
      body: { entry, based_on: basedOn },
      keepalive: true,
    }),
  )

/** Where a camera that is listened to is heard, as it stands against the plan of a shot. */
export const liveAddress = (id: number, unit: string, shot: string | null) =>
  `/api/v1/productions/${id}/live/${encodeURIComponent(unit)}/events${shot ? `?shot=${encodeURIComponent(shot)}` : ''}`

/** The first bytes of a clip and its last: its head is in one of them. */
export const readClipHead = (
  id: number,
  query: { name: string; size: number; head: number; offset_min: number },
  bytes: Blob,
) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/clips/head', {
      params: { path: { production_id: id }, query },
      ...sent(bytes),
    }),
  )

export const listClips = (
  id: number,
  ask: { facts: ClipFacts[]; unit: string; day: string; by: string; offset_min: number },
) => outcome(http.POST('/api/v1/productions/{production_id}/log/clips', { ...at(id), body: ask }))

export const readSetSettings = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/set/settings', at(id)))

export const writeSetSettings = (id: number, version: number, document: SetSettings) =>
  outcome(
    http.PUT('/api/v1/productions/{production_id}/set/settings', { ...at(id), body: { version, document } }),
  )

export const readSheets = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/sheets', at(id)))

export const writeSheets = (id: number, version: number, document: Sheets) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/sheets', { ...at(id), body: { version, document } }),
    ),
  )

export const viewSheet = (id: number, plan: SheetPlan, first: number, most: number, signal?: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/sheets/view', {
      ...at(id),
      body: { plan, first, most },
      ...(signal ? { signal } : {}),
    }),
  )

/** A saved sheet at an address of its own, which is kept for when there is no line. */
export const seeSavedSheet = (id: number, key: string, first: number, most: number, signal?: AbortSignal) =>
  outcome(
    http.GET('/api/v1/productions/{production_id}/sheets/{key}/view', {
      params: { path: { production_id: id, key }, query: { first, most } },
      ...(signal ? { signal } : {}),
    }),
  )

export const beginPrint = (id: number, title: string, plans: SheetPlan[]) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/sheets/prints', { ...at(id), body: { title, plans } }),
  )

export const seePrint = (id: number, name: string) =>
  outcome(http.GET('/api/v1/productions/{production_id}/sheets/prints/{name}', named(id, name)))

export const stopPrint = (id: number, name: string) =>
  outcome(http.POST('/api/v1/productions/{production_id}/sheets/prints/{name}/stop', named(id, name)))

/** Where set-ups are fetched from as a file for another program. */
export const handoverAddress = (id: number, kind: string, of: string) =>
  `/api/v1/productions/${id}/handover/${kind}?of=${of}`

export const readCameras = (production_id: number, kind: string, file: Blob) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/handover/{kind}', {
      params: { path: { production_id, kind } },
      ...sent(file),
    }),
  )

/** Where what was printed is fetched from. */
export const printedAddress = (id: number, name: string) =>
  `/api/v1/productions/${id}/sheets/prints/${name}/file`

/** Where one kept sheet is fetched from as a file. */
export const sheetAddress = (id: number, key: string, kind: 'csv' | 'xlsx' | 'ods') =>
  `/api/v1/productions/${id}/sheets/${key}/${kind}`

const named = (production_id: number, name: string) => ({ params: { path: { production_id, name } } })

export const beginSearch = (id: number, document: Packing, kits: string[]) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/packing/searches', {
      ...at(id),
      body: { document, kits },
    }),
  )

export const seeSearch = (id: number, name: string) =>
  outcome(http.GET('/api/v1/productions/{production_id}/packing/searches/{name}', named(id, name)))

export const stopSearch = (id: number, name: string) =>
  outcome(http.POST('/api/v1/productions/{production_id}/packing/searches/{name}/stop', named(id, name)))

export const viewCoverage = (id: number, ask: CoverageAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/coverage', { ...at(id), body: ask, signal }))

export const readMatrix = (id: number, ask: MatrixAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/matrix', { ...at(id), body: ask, signal }))

export const matrixTable = (id: number, ask: MatrixAsk) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/kit/matrix.csv', {
      ...at(id),
      body: ask,
      parseAs: 'text',
    }),
  )

export const readLadder = (id: number, ask: LadderAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/ladder', { ...at(id), body: ask, signal }))

export const readMatch = (id: number, ask: MatchAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/match', { ...at(id), body: ask, signal }))

export const findField = (id: number, ask: FieldAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/field', { ...at(id), body: ask, signal }))

export const readSlowMotion = (id: number, ask: SlowAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/slow-motion', { ...at(id), body: ask, signal }))

export const viewDepth = (id: number, ask: DepthAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/bench/depth', { ...at(id), body: ask, signal }))

export const depthTable = (id: number, ask: DepthAsk) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bench/depth.csv', {
      ...at(id),
      body: ask,
      parseAs: 'text',
    }),
  )

export const viewExposure = (id: number, state: BenchState, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bench/exposure', { ...at(id), body: { state }, signal }),
  )

export const viewFlicker = (id: number, state: BenchState, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/bench/flicker', { ...at(id), body: { state }, signal }),
  )

const atComparison = (production_id: number, comparison_id: number) => ({
  params: { path: { production_id, comparison_id } },
})

export const listComparisons = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/comparisons', at(id)))

export const readComparison = (id: number, comparisonId: number) =>
  outcome(
    http.GET(
      '/api/v1/productions/{production_id}/comparisons/{comparison_id}',
      atComparison(id, comparisonId),
    ),
  )

export const addComparison = (id: number, document: ComparisonDocument) =>
  outcome(http.POST('/api/v1/productions/{production_id}/comparisons', { ...at(id), body: { document } }))

export const writeComparison = (
  id: number,
  comparisonId: number,
  version: number,
  document: ComparisonDocument,
) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/comparisons/{comparison_id}', {
        ...atComparison(id, comparisonId),
        body: { version, document },
      }),
    ),
  )

export const removeComparison = (id: number, comparisonId: number, version: number, removed: boolean) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/comparisons/{comparison_id}/removal', {
      ...atComparison(id, comparisonId),
      body: { version, removed },
    }),
  )

export const viewComparison = (id: number, document: ComparisonDocument, signal: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/compare/view', { ...at(id), body: { document }, signal }),
  )

export const matchCamera = (id: number, document: ComparisonDocument, index: number) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/compare/match', { ...at(id), body: { document, index } }),
  )
