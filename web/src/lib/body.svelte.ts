/** A body as it is edited. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import type { BodyDocument, BodyKept, BodySheet } from './types'

export class BodyEditor extends DocumentEditor<BodyDocument, BodySheet> {
  constructor(productionId: number, kept: BodyKept, onkept: () => void) {
    const kind = {
      draftKey: `hextan.body.${productionId}.${kept.id}`,
      read: () => client.readBody(productionId, kept.id),
      sheet: (document: BodyDocument, signal: AbortSignal) =>
        client.bodySheet(productionId, document, signal),
      write: (version: number, document: BodyDocument) =>
        client.writeBody(productionId, kept.id, version, document),
    }
    super(kind, productionId, kept, onkept)
  }

  /** Windows as wide or as high as the sensor follow it until they are set by hand. */
  override set(path: Parameters<DocumentEditor<BodyDocument, BodySheet>['set']>[0], value: unknown) {
    const axis = ['photosites[0]', 'photosites[1]'].indexOf(String(path))
    const { photosites, modes } = this.document
    const before = photosites[axis]
    if (before === undefined || typeof value !== 'number') {
      super.set(path, value)
      return
    }
    const follow = modes.map((mode) =>
      mode.window?.[axis] === before ? { ...mode, window: mode.window.with(axis, value) } : mode,
    )
    this.change({ ...this.document, photosites: photosites.with(axis, value), modes: follow }, String(path))
  }
}
