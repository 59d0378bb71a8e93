/** What stands below the Bench's drawings, one row each; kept in the address after the hash. */
import type { BenchState, BenchView, FormatPlace } from './types'

export const BENCH_TABS = [
  { value: 'formats', label: 'Every format', file: 'FormatsTab' },
  { value: 'depth', label: 'Depth', file: 'DepthTab' },
  { value: 'light', label: 'Exposure', file: 'LightTab' },
  { value: 'flicker', label: 'Flicker', file: 'FlickerTab' },
  { value: 'scene', label: 'Scene', file: 'SceneTab' },
] as const
export type BenchTab = (typeof BENCH_TABS)[number]['value']

/** What every tab is given; each names what it takes of it. */
export interface BenchTabProps {
  productionId: number
  state: BenchState
  view: BenchView
  places: Map<number, FormatPlace>
  /** Names of formats by id. */
  names: Map<number, string>
  bodyName: string
  /** Formats whose derivation is open. */
  open: number[]
  dragging: boolean
  /** Says which rows are in sight when something begins to be dragged. */
  onsight: (formatIds: number[]) => void
  onchange: (part: Partial<BenchState>, kind?: string) => void
  ontoggleopen: (formatId: number) => void
}

export const tabOf = (hash: string): BenchTab =>
  BENCH_TABS.find((tab) => tab.value === hash.slice(1))?.value ?? BENCH_TABS[0].value

/** Write the tab into the address, beside the state of the Bench. */
export function noteTab(tab: BenchTab) {
  const hash = tab === BENCH_TABS[0].value ? '' : `#${tab}`
  history.replaceState(history.state, '', `${location.pathname}${location.search}${hash}`)
}
