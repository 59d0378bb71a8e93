/** Sheets and what is printed. */
import { at, http, named, outcome, write } from './http'
import type { SheetPlan, Sheets } from '../types'

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

/** Where what was printed is fetched from. */
export const printedAddress = (id: number, name: string) =>
  `/api/v1/productions/${id}/sheets/prints/${name}/file`

/** Where one kept sheet is fetched from as a file. */
export const sheetAddress = (id: number, key: string, kind: 'csv' | 'xlsx' | 'ods') =>
  `/api/v1/productions/${id}/sheets/${key}/${kind}`
