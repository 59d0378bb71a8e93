/**
 * The views and the sections of the package, one row each: the router, the header and the pages read them here.
 * A new one is its own files and its row.
 */
export interface ViewRow {
  /** As it stands in the address. */
  name: string
  title: string
  /** Its component: `views/NAME.svelte`, or of a section `views/package/NAME.svelte`. */
  file: string
}

export const VIEWS = [
  { name: 'package', title: 'Package', file: 'PackageView' },
  { name: 'bench', title: 'Bench', file: 'BenchView' },
  { name: 'compare', title: 'Compare', file: 'CompareView' },
  { name: 'shots', title: 'Shots', file: 'ShotsView' },
  { name: 'kit', title: 'Kit', file: 'PackingView' },
  { name: 'sheets', title: 'Sheets', file: 'SheetsView' },
  { name: 'set', title: 'Set', file: 'SetView' },
] as const satisfies readonly ViewRow[]

export type ViewName = (typeof VIEWS)[number]['name']

/** The sections of the package, in two groups in the order of the work. */
export const GROUPS = { carried: 'What we carry', does: 'What it can do' } as const

export const SECTIONS = [
  { name: 'bodies', group: 'carried', title: 'Bodies', file: 'BodiesView' },
  { name: 'lenses', group: 'carried', title: 'Lenses', file: 'LensesView' },
  { name: 'mounts', group: 'carried', title: 'Mounts and adapters', file: 'RigView' },
  { name: 'coverage', group: 'does', title: 'Coverage', file: 'CoverageView' },
  { name: 'kit', group: 'does', title: 'Whole kit', file: 'KitView' },
  { name: 'ladder', group: 'does', title: 'Ladder', file: 'LadderView' },
  { name: 'match', group: 'does', title: 'Match and framing', file: 'MatchView' },
  { name: 'speed', group: 'does', title: 'Speed', file: 'SpeedView' },
  { name: 'finder', group: 'does', title: 'Format finder', file: 'FinderView' },
  { name: 'data', group: 'does', title: 'Pixels and data', file: 'DataView' },
  { name: 'value', group: 'does', title: 'Value', file: 'WorthView' },
  { name: 'settings', group: 'carried', title: 'Settings', file: 'SettingsView' },
  { name: 'paste', group: 'carried', title: 'Paste anything', file: 'PasteView' },
] as const satisfies readonly (ViewRow & { group: keyof typeof GROUPS })[]

/** What every view is given. */
export interface ViewProps {
  productionId: number
  /** What follows in the path, such as `bodies/3`. */
  rest: string[]
}

/** What can be undone, known by the section that is shown. */
export interface Undoable {
  steps: { back: number; forth: number }
  undo: () => void
  redo: () => void
}

/** What every section of the package is given. */
export interface SectionProps {
  productionId: number
  productionName: string
  /** The catalogue, and whether it is what is shown. */
  shelfId: number
  isShelf: boolean
  /** Id of the document that the address names. */
  chosen: number | null
  /** Whether the address asks for a new one. */
  isNew: boolean
  onundoable: (now: Undoable | null) => void
}
