/** Tables over the whole package: speed, finder, pixels and data, kit. */
import { at, http, outcome } from './http'
import type {
  CoverageAsk,
  DataAsk,
  FieldAsk,
  FinderAsk,
  LadderAsk,
  MatchAsk,
  MatrixAsk,
  SlowAsk,
  WorthAsk,
} from '../types'

export const readSpeed = (id: number, signal: AbortSignal) =>
  outcome(http.GET('/api/v1/productions/{production_id}/speed', { ...at(id), signal }))

export const findFormats = (id: number, ask: FinderAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/finder', { ...at(id), body: ask, signal }))

export const readData = (id: number, ask: DataAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/data', { ...at(id), body: ask, signal }))

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

export const readWorth = (id: number, ask: WorthAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/worth', { ...at(id), body: ask, signal }))

export const readSlowMotion = (id: number, ask: SlowAsk, signal: AbortSignal) =>
  outcome(http.POST('/api/v1/productions/{production_id}/kit/slow-motion', { ...at(id), body: ask, signal }))
