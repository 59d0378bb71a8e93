/** A body as it is edited. */
import * as client from './client'
import { DocumentEditor } from './editor.svelte'
import type { BodyDocument, BodyKept, BodySheet } from './types'

export class BodyEditor extends DocumentEditor<BodyDocument, BodySheet> {
  constructor(productionId: number, kept: BodyKept, onkept: () => void) {
    const kind = {
      draftKey: `hextan.body.${productionId}.${kept.id}`,
      sheet: (document: BodyDocument, signal: AbortSignal) =>
        client.bodySheet(productionId, document, signal),
      write: (version: number, document: BodyDocument) =>
        client.writeBody(productionId, kept.id, version, document),
    }
    super(kind, productionId, kept, onkept)
  }
}
