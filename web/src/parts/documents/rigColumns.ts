/** The columns of mounts, adapters and ND filters. */
import type { Snippet } from 'svelte'
import { CLASSES } from '../../lib/generated/choices'
import type { AdapterDocument, FilterDocument, MountDocument, PairDocument, RigSheet } from '../../lib/types'
import type { Column } from '../grid/columns'

type Adapter = AdapterDocument
const factor = (times: number | undefined) => (times === undefined ? '–' : `ND${Math.round(times)}`)
const plain = (value: string) => ({ value, label: value })

export function mountColumns(drawn: Snippet<[MountDocument]>): Column<MountDocument>[] {
  return [
    { key: 'name', title: 'Mount', name: 'Name', kind: 'text', size: 10, first: true },
    { key: 'flange_mm', title: 'Flange mm', name: 'Flange distance', kind: 'number', first: true, gloss: 'From the mount’s flange to the sensor plane', empty: '?' },
    { key: 'throat_mm', title: 'Throat mm', name: 'Throat', kind: 'number', first: true, gloss: 'Clear opening', empty: '?' },
    { key: 'note', title: 'Note', name: 'Note', kind: 'text', size: 40, first: true },
    { key: 'flange', title: 'Flange to sensor, to scale', name: 'Flange to sensor', kind: 'computed', drawn, first: true,
      text: (mount) => Number(mount.flange_mm) > 0 ? `${mount.flange_mm} mm` : 'not stated: infinity cannot be checked' },
  ] // prettier-ignore
}

export function adapterColumns(
  mounts: readonly string[],
  sheet: RigSheet | null,
  whole: (adapter: Adapter) => string | undefined,
): Column<Adapter>[] {
  const sides = (value: string) => [...new Set([...mounts, value])].map(plain)
  const notes = (adapter: Adapter) => sheet?.notes[adapter.key ?? ''] ?? []
  return [
    { key: 'name', title: 'Adapter', name: 'Name', kind: 'text', size: 24, first: true },
    { key: 'lens_mount', title: 'Lens side', name: 'Lens side', kind: 'choice', first: true, choices: (a) => sides(a.lens_mount) },
    { key: 'body_mount', title: 'Body side', name: 'Body side', kind: 'choice', first: true, choices: (a) => sides(a.body_mount) },
    { key: 'magnification', title: 'Magnifies', name: 'Magnification', kind: 'number', size: 5, first: true, gloss: 'Below 1 a reducer, above 1 an extender' },
    { key: 'glass', title: 'Glass', name: 'Glass', kind: 'check' },
    { key: 'transmission', title: 'Passes light', name: 'Transmission', kind: 'number', size: 5, gloss: 'Share of the light that comes through' },
    { key: 'passes_iris', title: 'Iris', name: 'Iris control', kind: 'check', gloss: 'Passes control of the iris' },
    { key: 'passes_data', title: 'Lens data', name: 'Lens data', kind: 'check', gloss: 'Passes the lens’s data' },
    { key: 'classes', title: 'Made for lenses of', name: 'Classes', kind: 'choices', gloss: 'Classes of lenses that it is made for; any when none is chosen', empty: 'any', choices: () => CLASSES.map(plain) },
    { key: 'check', title: 'Check', name: 'Check', kind: 'computed', long: true, text: (a) => whole(a) ?? notes(a).join(' '),
      bad: (a) => whole(a) !== undefined || notes(a).some((note) => note.startsWith('Impossible')) },
  ] // prettier-ignore
}

export function pairColumns(
  glass: readonly string[],
  bodies: readonly string[],
  sheet: RigSheet | null,
): Column<PairDocument>[] {
  const known = (names: readonly string[], value: string) => [...new Set([...names, value])].map(plain)
  return [
    { key: 'name', title: 'Lens or lens set', name: 'Lens', kind: 'choice', first: true, choices: (p) => known(glass, p.name) },
    { key: 'body', title: 'on', name: 'Body', kind: 'choice', first: true, choices: (p) => known(bodies, p.body) },
    { key: 'note', title: 'Note', name: 'Note', kind: 'text', size: 60, first: true, gloss: 'Told wherever this lens stands on this body' },
    { key: 'check', title: 'Check', name: 'Check', kind: 'computed', long: true, text: (p) => sheet?.notes[p.key ?? '']?.join(' ') ?? '' },
  ] // prettier-ignore
}

export function filterColumns(sheet: RigSheet | null): Column<FilterDocument>[] {
  const marking = (filter: FilterDocument) => sheet?.filters[filter.key ?? '']
  return [
    { key: 'name', title: 'ND filter', name: 'Name', kind: 'text', size: 16, first: true },
    { key: 'stops', title: 'Takes, stops', name: 'Stops', kind: 'number', size: 5, first: true },
    { key: 'count', title: 'How many', name: 'Number', kind: 'number', size: 3, first: true },
    { key: 'density', title: 'Density', name: 'Density', kind: 'computed', right: true, first: true, text: (f) => marking(f)?.density.toFixed(2) ?? '–' },
    { key: 'factor', title: 'Factor', name: 'Factor', kind: 'computed', right: true, first: true, text: (f) => factor(marking(f)?.factor) },
  ] // prettier-ignore
}
