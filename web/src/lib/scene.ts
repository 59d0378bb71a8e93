/** The scene in the address bar, and what can be put into it. */
import type { Scene, SceneObject } from './types'

const FIELD = '~'
const OBJECT = '!'
const KINDS = ['standing', 'seated', 'lamp', 'post', 'shore'] as const

/** Names of kinds, and what a new object of a kind is like; distances in metres. */
export const NEW_OBJECTS: Record<SceneObject['kind'], { label: string; height_m: number; beyond_m: number }> =
  {
    standing: { label: 'person, standing', height_m: 1.72, beyond_m: 1.5 },
    seated: { label: 'person, seated', height_m: 1.72, beyond_m: 1.5 },
    lamp: { label: 'lamp', height_m: 2.3, beyond_m: 3 },
    post: { label: 'post', height_m: 3, beyond_m: 4 },
    shore: { label: 'far shore', height_m: 9, beyond_m: 150 },
  }

const bare = (text: string) => text.replaceAll(FIELD, ' ').replaceAll(OBJECT, ' ')

export function writeScene(scene: Scene): string {
  const head = [
    scene.camera_height_m,
    scene.posture,
    scene.subject_height_m,
    scene.face_caution_m,
    scene.title_safe ? 1 : 0,
    scene.frames.join('_'),
  ].join(FIELD)
  const objects = scene.objects.map((o) =>
    [o.key, o.kind, bare(o.name), o.distance_m, o.aside_m, o.height_m, o.size_m ?? '', o.ground_m].join(
      FIELD,
    ),
  )
  return [head, ...objects].join(OBJECT)
}

/** Read a scene; null where the text is none. What breaks a rule is told by the server. */
export function readScene(text: string): Scene | null {
  const [head = '', ...rows] = text.split(OBJECT)
  const [camera, posture, height, caution, safe, frames] = head.split(FIELD)
  const figures = [camera, height, caution].map(Number)
  if (!text || figures.some((n) => !Number.isFinite(n)) || frames === undefined) return null
  const objects = rows.flatMap((row): SceneObject[] => {
    const [key = '', kind, name = '', ...rest] = row.split(FIELD)
    const known = KINDS.find((k) => k === kind)
    const [distance_m = NaN, aside_m = 0, height_m = NaN, size, ground_m = 0] = rest.map((n) =>
      n === '' ? undefined : Number(n),
    )
    if (!known || !Number.isFinite(distance_m) || !Number.isFinite(height_m)) return []
    return [{ key, kind: known, name, distance_m, aside_m, height_m, size_m: size ?? null, ground_m }]
  })
  return {
    camera_height_m: figures[0] as number,
    posture: posture === 'seated' ? 'seated' : 'standing',
    subject_height_m: figures[1] as number,
    face_caution_m: figures[2] as number,
    title_safe: safe === '1',
    frames: frames === '' ? [] : frames.split('_').map(Number).filter(Number.isFinite),
    objects,
  }
}

/** A new object of a kind behind the subject, with a key and a name that no other has. */
export function newObject(kind: SceneObject['kind'], scene: Scene, subject_m: number): SceneObject {
  const { label, height_m, beyond_m } = NEW_OBJECTS[kind]
  const names = new Set(scene.objects.map((o) => o.name))
  const keys = new Set(scene.objects.map((o) => o.key))
  let n = 1
  while (names.has(n === 1 ? label : `${label} ${n}`)) n++
  let k = scene.objects.length
  while (keys.has(`o${k}`)) k++
  const distance_m = Number((subject_m + beyond_m).toFixed(3))
  const aside_m = kind === 'shore' ? 0 : 0.5
  const name = n === 1 ? label : `${label} ${n}`
  return { key: `o${k}`, kind, name, distance_m, aside_m, height_m, size_m: null, ground_m: 0 }
}
