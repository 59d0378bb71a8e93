/** What the browser keeps of a production for when there is no line; emptied when the production is removed. */

/** As `vite.config.ts` names it. */
const DAY = 'hextan-day-1'
const OF = /^\/api\/(?:v1\/)?productions\/(\d+)(\/|$)/

/** The number of the production that an address is of. */
export const productionOf = (address: string): number | null => {
  const [, id] = OF.exec(new URL(address, location.origin).pathname) ?? []
  return id === undefined ? null : Number(id)
}

/** Forget every answer about a production, and the list that it stood in. */
export async function forget(productionId: number) {
  const there = (globalThis as { caches?: CacheStorage }).caches
  if (!there || !(await there.has(DAY))) return
  const kept = await there.open(DAY)
  const gone = (await kept.keys()).filter(
    ({ url }) => productionOf(url) === productionId || new URL(url).pathname === '/api/v1/productions',
  )
  await Promise.all(gone.map((request) => kept.delete(request)))
}
