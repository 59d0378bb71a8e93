/** What the page of a document of the shelf is given. */
export interface DocumentProps<Editor> {
  editor: Editor
  productionId: number
  /** Whether it goes with one of the catalogue. */
  linked: boolean
  /** How much the catalogue has changed since. */
  changes: number
}
