/** The list of shots. */
import { at, http, outcome, sent, write } from './http'
import type { BenchState, Shot, ShotList, ShotsFileKind } from '../types'

export const readShots = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/shots', at(id)))

export const writeShots = (id: number, version: number, document: ShotList) =>
  write(
    outcome(
      http.PUT('/api/v1/productions/{production_id}/shots', { ...at(id), body: { version, document } }),
    ),
  )

/** The answers that are new to whoever has those of `known`, by their shots, and what all come to. */
export const listShots = (
  id: number,
  document: ShotList,
  known: Record<string, string>,
  signal: AbortSignal,
) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/listed', {
      ...at(id),
      body: { document, known },
      signal,
    }),
  )

/** One shot with all reasons; with `changes` also with what it could be made where it cannot be made as it is. */
export const answerShot = (id: number, shot: Shot, changes: boolean, signal?: AbortSignal) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/answer', {
      ...at(id),
      body: { shot, changes },
      ...(signal && { signal }),
    }),
  )

/** Address of the list of shots as a table. */
export const shotsFileAddress = (id: number, kind: ShotsFileKind) =>
  `/api/v1/productions/${id}/shots/files/${kind}`

/** `columns`: what columns are where it was pointed at, a field (or nothing) before the title: `distance=How far`. */
export const readShotsFile = (
  id: number,
  kind: ShotsFileKind,
  file: Blob,
  remove: boolean,
  columns: string[] = [],
) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/shots/files/{kind}', {
      params: { path: { production_id: id, kind }, query: { remove, columns } },
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
