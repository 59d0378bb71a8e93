/** An entry of the log on its way to the server. */
import type { LogEntry, LogKept } from './types'

export interface Waiting {
  /** Where it stands in the row; given by the store. */
  order?: number
  production: number
  entry: LogEntry
  basedOn: number
  /** Since when it waits. */
  since: string
  /** A conflict is shown with both sides; what was refused says why. */
  state: 'waiting' | 'conflict' | 'refused'
  stored?: LogKept | null
  told?: string
}
