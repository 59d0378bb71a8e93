/** A lens set, and mounts with adapters, as they are edited. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import { freeName, newKey } from './rows'
import type {
  AdapterDocument,
  FilterDocument,
  LensDocument,
  LensSetDocument,
  LensSetKept,
  LensSetSheet,
  MountDocument,
  PairDocument,
  RigDocument,
  RigKept,
  RigSheet,
} from './types'

export class LensSetEditor extends DocumentEditor<LensSetDocument, LensSetSheet> {
  constructor(productionId: number, kept: LensSetKept, onkept: () => void) {
    const kind = {
      draftKey: `hextan.lens_set.${productionId}.${kept.id}`,
      read: () => client.readLensSet(productionId, kept.id),
      sheet: (document: LensSetDocument, signal: AbortSignal) =>
        client.lensSetSheet(productionId, document, signal),
      write: (version: number, document: LensSetDocument) =>
        client.writeLensSet(productionId, kept.id, version, document),
    }
    super(kind, productionId, kept, onkept)
  }
}

export class RigEditor extends DocumentEditor<RigDocument, RigSheet> {
  constructor(productionId: number, kept: RigKept, onkept: () => void) {
    const kind = {
      draftKey: `hextan.rig.${productionId}`,
      read: () => client.readRig(productionId),
      sheet: (document: RigDocument, signal: AbortSignal) => client.rigSheet(productionId, document, signal),
      write: (version: number, document: RigDocument) => client.writeRig(productionId, version, document),
    }
    super(kind, productionId, { ...kept, id: productionId }, onkept)
  }
}

/** A new lens beside the others: like the one that is chosen, without its name. */
export function newLens(rows: readonly LensDocument[], like: LensDocument | undefined): LensDocument {
  const plain = {
    focal_mm: 50,
    focal_long_mm: null,
    f_number: null,
    t_stop: 2,
    f_number_long: null,
    t_stop_long: null,
    image_circle_mm: null,
    circle_by: null,
    circles: [],
    squeeze: 1,
    close_focus_m: null,
    mount: 'unknown',
    designed_for: null,
    projection: 'rectilinear' as const,
    pupil_magnification: 1,
    breathing_percent: null,
    front_mm: null,
    length_mm: null,
    weight_kg: null,
    correction: null,
    correction_long: null,
    iris: 'ring' as const,
    data_link: '',
  }
  const shared = like && {
    mount: like.mount,
    squeeze: like.squeeze,
    designed_for: like.designed_for,
    t_stop: like.t_stop,
    f_number: like.f_number,
    iris: like.iris,
    data_link: like.data_link,
  }
  return { ...plain, ...shared, key: newKey(), name: freeName('New lens', rows), origins: {} }
}

export const copyOfLens = (lens: LensDocument, rows: readonly LensDocument[]): LensDocument => ({
  ...lens,
  key: newKey(),
  name: freeName(lens.name, rows),
})

export const newMount = (rows: readonly MountDocument[]): MountDocument => ({
  key: newKey(),
  name: freeName('New mount', rows),
  origins: {},
  flange_mm: null,
  throat_mm: null,
  note: '',
})

export const newAdapter = (
  rows: readonly AdapterDocument[],
  mounts: readonly MountDocument[],
): AdapterDocument => ({
  key: newKey(),
  name: freeName('New adapter', rows),
  origins: {},
  lens_mount: mounts[0]?.name ?? 'unknown',
  body_mount: mounts[1]?.name ?? mounts[0]?.name ?? 'unknown',
  magnification: 1,
  transmission: 1,
  glass: false,
  classes: [],
  passes_iris: true,
  passes_data: true,
})

export const newFilter = (rows: readonly FilterDocument[]): FilterDocument => ({
  key: newKey(),
  name: freeName('New filter', rows),
  origins: {},
  stops: 1,
  count: 1,
})

export const newPair = (glass: string, body: string): PairDocument => ({
  key: newKey(),
  name: glass,
  origins: {},
  body,
  note: 'To be tested',
})

/** What was typed for a table of circles: "2.4: 27.9; 4: 28.7", with "inf" for infinity. */
export function typedCircles(text: string): { at: unknown; circle_mm: unknown }[] {
  return text
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const [at = '', circle = ''] = part.split(':').map((x) => x.trim())
      const number = (x: string) =>
        x !== '' && Number.isFinite(Number(x.replace(',', '.'))) ? Number(x.replace(',', '.')) : x
      return { at: /^(inf|infinity|∞)$/i.test(at) ? null : number(at), circle_mm: number(circle) }
    })
}

export const circlesText = (rows: readonly { at?: number | null; circle_mm: number }[]) =>
  rows.map((row) => `${row.at ?? '∞'}: ${row.circle_mm}`).join('; ')
