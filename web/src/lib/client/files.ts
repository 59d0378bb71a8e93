/** Files out and in. */
import { http, outcome, sent } from './http'

export const fileKinds = () => outcome(http.GET('/api/v1/files'))

/** The documents of a file are added; the rows of one come back in the document that is named, which is not kept yet. */
export const readFile = (id: number, kind: string, file: Blob, documentId?: number) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/files/{kind}', {
      params: { path: { production_id: id, kind }, query: { document_id: documentId } },
      ...sent(file),
    }),
  )

/** Address of a document as a file, or of an empty one to fill in. */
export function fileAddress(
  id: number,
  kind: string,
  query: { document_id?: number; template?: boolean; aspect?: number[]; protect?: number; squeeze?: number },
) {
  const asked = new URLSearchParams()
  for (const [key, value] of Object.entries(query))
    for (const each of [value].flat()) asked.append(key, String(each))
  return `/api/v1/productions/${id}/files/${kind}${asked.size ? `?${asked}` : ''}`
}

/** Where set-ups are fetched from as a file for another program. */
export const handoverAddress = (id: number, kind: string, of: string) =>
  `/api/v1/productions/${id}/handover/${kind}?of=${of}`

export const readCameras = (production_id: number, kind: string, file: Blob) =>
  outcome(
    http.POST('/api/v1/productions/{production_id}/handover/{kind}', {
      params: { path: { production_id, kind } },
      ...sent(file),
    }),
  )
