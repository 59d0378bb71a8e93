/** How the cells of the kit's matrix are written. */
import { degrees, mm } from '../../lib/format'
import type { MatrixRow } from '../../lib/types'

export const cellText = (r: MatrixRow, j: number) => {
  const short = r.effective_mm[j]
  const long = r.long?.effective_mm[j]
  return short == null ? '' : long == null ? mm(short) : `${mm(short)}–${mm(long)}`
}
export const angleText = (r: MatrixRow, j: number) => {
  const long = r.long?.angle_deg[j]
  return `${degrees(r.angle_deg[j])}${long == null ? '' : ` – ${degrees(long)}`}`
}
/** A zoom is worst where its circle is: both ends are told. */
export const verdictsOf = (r: MatrixRow, j: number) => {
  const [a, b] = [r.verdict[j] ?? 'unknown', r.long?.verdict[j]]
  return b && b !== a ? ([a, b] as const) : ([a] as const)
}
