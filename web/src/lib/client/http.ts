/** Asking the server: patience, problems, files; every other module of this folder asks through it. */
import createClient from 'openapi-fetch'
import { forget, productionOf } from '../kept'
import { line } from '../line.svelte'
import { trade } from '../trade.svelte'
import type { paths } from '../generated/api'
import type { Problem } from '../types'

export const http = createClient<paths>({ baseUrl: '/', fetch: (request) => patiently(request) })

/** Answers that the core words itself; documents stay as they were written. */
const WORDED =
  /\/(bench\/(view|move|depth|exposure|flicker)|compare|match-camera|shots\/(listed|answer|rented)|packing\/searches|set\/(held|report))(\/|$)/

/** A server with too much to do says when it is worth asking again; so often it is asked. */
const TRIES = 4

const wait = (ms: number, signal: AbortSignal) =>
  new Promise<void>((done, left) => {
    const timer = setTimeout(done, ms)
    signal.addEventListener('abort', () => {
      clearTimeout(timer)
      left(signal.reason as Error)
    })
  })

/** Whether the same may be sent again without doing anything twice: where it only reads, and where nothing was begun. */
async function mayRepeat(request: Request, response: Response): Promise<boolean> {
  if (request.method === 'GET') return true
  const told = (await response
    .clone()
    .json()
    .catch(() => null)) as { error?: { code?: string } } | null
  return told?.error?.code === 'busy'
}

/** Ask, and ask again where the server is busy and says when. */
export async function patiently(request: Request): Promise<Response> {
  for (let n = 1; ; n += 1) {
    const response = await fetch(request.clone())
    const after = Number(response.headers.get('Retry-After'))
    if (response.status !== 503 || !after || n === TRIES) return response
    if (!(await mayRepeat(request, response))) return response
    await wait(after * 1000, request.signal)
  }
}

http.use({
  async onResponse({ request, response }) {
    // A gateway may answer for a server that is away.
    if (response.status < 502) line.found()
    // Put away by somebody else: what is kept of it here goes, too.
    const gone = response.status === 410 ? productionOf(request.url) : null
    if (gone !== null) await forget(gone)
    if (!response.ok || !WORDED.test(new URL(request.url).pathname)) return undefined
    const text = await response.clone().text()
    const told = trade.told(text)
    return told === text ? undefined : new Response(told, response)
  },
})

/** Either what was asked for, or why not. */
export type Outcome<T, P = Problem> = { data: T; problem?: undefined } | { data?: undefined; problem: P }

/** Why a write was refused; what is stored comes with one that was based on an old version. */
export type WriteProblem<S> = Problem & { stored?: S | null }

const AWAY: Problem = {
  code: 'no_answer',
  message:
    'One moment: the server does not answer. What you see is the last answer; the page goes on by itself.',
  faults: [],
}

/** What a path answers is said by the path itself: nothing here claims another type. */
export async function outcome<T, S = never>(
  call: Promise<{ data?: T; error?: { error: WriteProblem<S> } }>,
): Promise<Outcome<NonNullable<T>, WriteProblem<S>>> {
  try {
    const { data, error } = await call
    if (data !== undefined && data !== null) return { data }
    return { problem: error?.error ?? AWAY }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    line.lost()
    return { problem: AWAY }
  }
}

/** Writes that are under way: who reads what they change waits for them. */
const writes = new Set<Promise<unknown>>()

export function write<T>(call: Promise<T>): Promise<T> {
  writes.add(call)
  void call.finally(() => writes.delete(call))
  return call
}

export const settled = () => Promise.allSettled([...writes])

/** Files go as they are: the server reads them. */
export const sent = (file: Blob) => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': 'application/octet-stream' },
})

export const at = (production_id: number) => ({ params: { path: { production_id } } })

/** Something of a production that has a name: a search, a print. */
export const named = (production_id: number, name: string) => ({ params: { path: { production_id, name } } })
