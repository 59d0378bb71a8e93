/** The Bench: its state, depth, exposure, flicker. */
import { at, http, outcome } from './http'
import type { BenchState, DepthAsk, Unit } from '../types'

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

export const moveBench = (
  id: number,
  ask: { state: BenchState; format_ids: number[]; plan_extent_m: number | null },
  signal: AbortSignal,
) => outcome(http.POST('/api/v1/productions/{production_id}/bench/move', { ...at(id), body: ask, signal }))

export const readDistance = (text: string, unit: Unit) =>
  outcome(http.GET('/api/v1/distance', { params: { query: { text, unit } } }))

export const mendBench = (id: number, state: BenchState) =>
  outcome(http.POST('/api/v1/productions/{production_id}/bench/mended', { ...at(id), body: state }))

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
