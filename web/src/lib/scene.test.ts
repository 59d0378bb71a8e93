import { describe, expect, it } from 'vitest'
import { newObject, readScene, writeScene } from './scene'
import type { Scene, SceneObject } from './types'

const scene: Scene = {
  camera_height_m: 1.2,
  posture: 'seated',
  subject_height_m: 1.68,
  face_caution_m: 0.5,
  frames: [1.3333333333333333, 0.5625],
  title_safe: true,
  objects: [
    {
      key: 'a',
      kind: 'lamp',
      name: 'bow lamp',
      distance_m: 6.5,
      aside_m: -1.3,
      height_m: 2.3,
      size_m: 0.2,
      ground_m: -0.5,
    },
    {
      key: 'b',
      kind: 'shore',
      name: 'far shore',
      distance_m: 180,
      aside_m: 0,
      height_m: 9,
      size_m: null,
      ground_m: 0,
    },
  ],
}

describe('the scene in the address', () => {
  it('comes back as it was written', () => {
    expect(readScene(writeScene(scene))).toEqual(scene)
    const empty = { ...scene, objects: [], frames: [] }
    expect(readScene(writeScene(empty))).toEqual(empty)
  })
  it('keeps its separators out of names', () => {
    const named = { ...scene, objects: [{ ...(scene.objects[0] as SceneObject), name: 'a~b!c' }] }
    expect(readScene(writeScene(named))?.objects[0]?.name).toBe('a b c')
  })
  it('is none where the text is none', () => {
    for (const text of ['', 'x', '1~standing', 'a~standing~1~1~0~']) expect(readScene(text)).toBeNull()
    expect(readScene('1.5~standing~1.7~0.45~0~!x~boat~y~1~0~1~~0!k~lamp~l~no~0~1~~0')?.objects).toEqual([])
  })
  it('gives new objects keys and names of their own', () => {
    const one = newObject('lamp', scene, 3)
    const two = newObject('lamp', { ...scene, objects: [...scene.objects, one] }, 3)
    expect(one.name).toBe('lamp')
    expect(two.name).toBe('lamp 2')
    expect(new Set([one.key, two.key, 'a', 'b']).size).toBe(4)
    expect(two.distance_m).toBe(6)
  })
})
