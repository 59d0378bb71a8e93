/** Whose a figure is: every row of a body by its key, with its origins and its path. */
import { parsePath, type Step } from '../../lib/paths'
import type { BodyDocument, Origin } from '../../lib/types'

export interface Owner {
  path: Step[]
  /** The path as the server writes it, with a dot at its end. */
  name: string
  origins: Record<string, Origin>
}

export function ownersOf(document: BodyDocument): Map<string, Owner> {
  const owners = new Map<string, Owner>([[document.key, { path: [], name: '', origins: document.origins }]])
  document.modes.forEach((mode, i) => {
    const at = `modes[${i}]`
    owners.set(mode.key ?? '', { path: ['modes', i], name: `${at}.`, origins: mode.origins ?? {} })
    mode.formats?.forEach((f, j) =>
      owners.set(f.key ?? '', {
        path: ['modes', i, 'formats', j],
        name: `${at}.formats[${j}].`,
        origins: f.origins ?? {},
      }),
    )
  })
  document.crops.forEach((crop, i) =>
    owners.set(crop.key ?? '', { path: ['crops', i], name: `crops[${i}].`, origins: crop.origins ?? {} }),
  )
  return owners
}

/** A scan mode that goes takes the crop rules and claims with it that speak of it. */
export function withoutMode(document: BodyDocument, key: string): BodyDocument {
  const { claims } = document
  const others = <T extends { mode?: string | null }>(list: T[] | undefined) =>
    (list ?? []).filter((claim) => claim.mode !== key)
  return {
    ...document,
    crops: document.crops.map((crop) => ({ ...crop, rules: others(crop.rules) })),
    claims: {
      ...claims,
      crops: others(claims.crops),
      tapes: others(claims.tapes),
      pixels: others(claims.pixels),
    },
  }
}

/** Say a path in words: `modes[1].formats[0].rates[2]` is "S35 4.3K, S35 → UHD, rates". */
export function pathWords(document: BodyDocument, path: string): string {
  const words: string[] = []
  let at: unknown = document
  for (const step of parsePath(path)) {
    at = (at as Record<Step, unknown> | null | undefined)?.[step]
    if (typeof step === 'string' && !['modes', 'formats', 'crops', 'claims'].includes(step))
      words.push(step.replaceAll('_', ' '))
    else if (typeof at === 'object' && at !== null && 'name' in at) words.push(String(at.name))
  }
  return words.join(', ')
}
