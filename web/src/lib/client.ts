/** The one place that talks to the server. */
import createClient from 'openapi-fetch'
import type { paths } from './generated/api'
import type { BenchState, BenchView, Package, Problem, Production, Unit } from './types'

const http = createClient<paths>({ baseUrl: '/' })

/** Either what was asked for, or why not. */
export type Outcome<T> = { data: T; problem?: undefined } | { data?: undefined; problem: Problem }

const AWAY: Problem = {
  code: 'no_answer',
  message: 'The server does not answer. Is it still running? What you see is the last answer.',
  faults: [],
}

async function outcome<T>(call: Promise<{ data?: unknown; error?: unknown }>): Promise<Outcome<T>> {
  try {
    const { data, error } = await call
    if (data !== undefined) return { data: data as T }
    const told = (error as { error?: Problem } | undefined)?.error
    return { problem: told ?? AWAY }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    return { problem: AWAY }
  }
}

export const listProductions = () => outcome<Production[]>(http.GET('/api/productions'))

const at = (production_id: number) => ({ params: { path: { production_id } } })

export const readPackage = (id: number) =>
  outcome<Package>(http.GET('/api/productions/{production_id}/package', at(id)))

export const readBench = (id: number) =>
  outcome<{ version: number; state: BenchState }>(http.GET('/api/productions/{production_id}/bench', at(id)))

export const writeBench = (id: number, version: number, state: BenchState) =>
  outcome<{ version: number; state: BenchState }>(
    http.PUT('/api/productions/{production_id}/bench', {
      ...at(id),
      body: { version, state },
      keepalive: true,
    }),
  )

export const viewBench = (
  id: number,
  ask: { state: BenchState; open_rows: number[]; plan_extent_m: number | null },
  signal: AbortSignal,
) =>
  outcome<BenchView>(
    http.POST('/api/productions/{production_id}/bench/view', { ...at(id), body: ask, signal }),
  )

export const readDistance = (text: string, unit: Unit) =>
  outcome<{ metres: number }>(http.GET('/api/distance', { params: { query: { text, unit } } }))
