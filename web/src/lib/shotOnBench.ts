/** Which shot was opened on the Bench: what is changed there can be taken back into it. */
export interface ShotOnBench {
  key: string
  name: string
}

const at = (productionId: number) => `hextan.shotOnBench.${productionId}`

export function noteShot(productionId: number, shot: ShotOnBench | null) {
  try {
    if (shot) sessionStorage.setItem(at(productionId), JSON.stringify(shot))
    else sessionStorage.removeItem(at(productionId))
  } catch {
    // Storage may be switched off: then a Bench is kept as a new shot.
  }
}

export function notedShot(productionId: number): ShotOnBench | null {
  try {
    const read: unknown = JSON.parse(sessionStorage.getItem(at(productionId)) ?? 'null')
    return read !== null && typeof read === 'object' && 'key' in read && 'name' in read
      ? (read as ShotOnBench)
      : null
  } catch {
    return null
  }
}
