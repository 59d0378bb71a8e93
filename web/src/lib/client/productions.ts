/** Productions, their settings and the catalogue. */
import { forget } from '../kept'
import { newKey } from '../rows'
import { trade } from '../trade.svelte'
import { at, http, outcome, sent } from './http'
import type { PackageSettings, ProductionFacts } from '../types'

export const listProductions = () => outcome(http.GET('/api/v1/productions'))

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

/** The catalogue from which a production takes copies; of a catalogue, itself. */
export const readCatalogue = (id: number) =>
  outcome(http.GET('/api/v1/catalogue', { params: { query: { production_id: id } } }))

export const readSettings = (id: number) =>
  outcome(http.GET('/api/v1/productions/{production_id}/settings', at(id)))

export const writeSettings = (id: number, version: number, settings: PackageSettings) =>
  outcome(
    http.PUT('/api/v1/productions/{production_id}/settings', { ...at(id), body: { version, settings } }),
  )
