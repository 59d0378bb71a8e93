/** What stands below the Bench's drawings; kept in the address after the hash. */
export const BENCH_TABS = {
  formats: 'Every format',
  depth: 'Depth',
  light: 'Exposure',
  flicker: 'Flicker',
  scene: 'Scene',
} as const
export type BenchTab = keyof typeof BENCH_TABS

export const tabOf = (hash: string): BenchTab => {
  const name = hash.slice(1)
  return name in BENCH_TABS ? (name as BenchTab) : 'formats'
}

/** Write the tab into the address, beside the state of the Bench. */
export function noteTab(tab: BenchTab) {
  const hash = tab === 'formats' ? '' : `#${tab}`
  history.replaceState(history.state, '', `${location.pathname}${location.search}${hash}`)
}
