/** Comparisons. */
import { at, http, outcome, write } from './http'
import type { ComparisonDocument } from '../types'

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
