/** The page of the set: days, log, clips, cameras. */
import { at, http, outcome, sent } from './http'
import type { ClipFacts, LogEntry, OnCamera, SetSettings } from '../types'

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
