/** Bodies, lens sets, mounts and adapters. */
import { listAt, tellKept } from '../otherTabs'
import { at, http, outcome, write } from './http'
import type {
  AnythingAsk,
  BodyDocument,
  LensLineAsk,
  LensSetDocument,
  QuickBodyAsk,
  RigDocument,
  EquipmentNew,
  EquipmentAdded,
} from '../types'

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

export const anything = (ask: AnythingAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/entry/anything', { body: ask, signal }))

/** Lists of equipment that stand in other windows are read again. */
async function heardElsewhere<T>(id: number, call: Promise<T>): Promise<T> {
  const done = await call
  for (const section of ['bodies', 'lenses'] as const) tellKept(listAt(`/p/${id}/package/${section}`), 0)
  return done
}

/** Add equipment to a production, all of it or nothing; and undo that. */
export const addEquipment = (id: number, body: Partial<EquipmentNew>) =>
  heardElsewhere(id, outcome(http.POST('/api/v1/productions/{production_id}/equipment', { ...at(id), body })))

export const undoEquipment = (id: number, added: EquipmentAdded) =>
  heardElsewhere(
    id,
    outcome(http.POST('/api/v1/productions/{production_id}/equipment/undo', { ...at(id), body: added })),
  )
