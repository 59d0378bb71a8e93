/** Packing, and searches for kits. */
import { at, http, named, outcome, write } from './http'
import type { Packing } from '../types'

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

export const readPlan = (id: number) => outcome(http.GET('/api/v1/productions/{production_id}/plan', at(id)))

/** Make a kit of a packing the plan; none of them where it is null. */
export const writePlan = (
  id: number,
  version: number,
  document: Packing,
  kit: string | null,
  back_to: number | null = null,
) =>
  write(
    outcome(
      http.POST('/api/v1/productions/{production_id}/plan', {
        ...at(id),
        body: { version, document, kit, back_to },
      }),
    ),
  )

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
