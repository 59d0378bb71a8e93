/** What other windows of this browser keep: a document that was kept there is read again here. */
interface Kept {
  document: string
  version: number
}

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('hextan.kept')
const listening = new Map<string, Set<(version: number) => void>>()
channel?.addEventListener('message', ({ data }: MessageEvent<Kept>) => {
  for (const each of listening.get(data.document) ?? []) each(data.version)
})

/** Say that a document was kept in a new version. */
export function tellKept(document: string, version: number) {
  channel?.postMessage({ document, version } satisfies Kept)
}

/** Hear when another window keeps a document, until what comes back is called. */
export function hearKept(document: string, heard: (version: number) => void): () => void {
  const all = listening.get(document) ?? new Set()
  all.add(heard)
  listening.set(document, all)
  return () => all.delete(heard)
}

/** The list at an address, as a document that is kept: what is added to it or taken away is heard as well. */
export const listAt = (path: string) => `the list at ${path}`
