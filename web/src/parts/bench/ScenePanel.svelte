<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import Toggles from '../controls/Toggles.svelte'
  import { wordOptions } from '../../lib/options'
  import { distanceWithUnit } from '../../lib/format'
  import { NEW_OBJECTS, newObject } from '../../lib/scene'
  import type { BenchState, FinderView, Problem, Scene, SceneObject, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import SceneThing from './SceneThing.svelte'

  interface Props {
    state: BenchState
    view: FinderView
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { state: bench, view, read, onchange }: Props = $props()

  const scene = $derived(bench.scene)
  const drawn = $derived(new Map(view.objects.map((o) => [o.key, o])))
  /** Frame lines beside the delivery's, and in place of an aspect the part of it that is safe for titles. */
  const SAFE = 0
  const LINES = [
    { label: '4:3', value: 4 / 3 },
    { label: '1:1', value: 1 },
    { label: '9:16', value: 9 / 16 },
    { label: '16:9', value: 16 / 9 },
    { label: '1.85', value: 1.85 },
    { label: '2.39', value: 2.39 },
    { label: 'title safe', value: SAFE },
  ]

  const set = (part: Partial<Scene>, kind = '') => onchange({ scene: { ...scene, ...part } }, kind)
  const edit = (key: string, part: Partial<SceneObject>, kind = '') =>
    set({ objects: scene.objects.map((o) => (o.key === key ? { ...o, ...part } : o)) }, kind)

  const near = (a: number, b: number) => Math.abs(a - b) < 0.001
  const drawnLines = $derived(
    LINES.map((line) => line.value).filter((line) =>
      line === SAFE ? scene.title_safe : scene.frames.some((frame) => near(frame, line)),
    ),
  )
  function setLines(on: number[]) {
    const own = scene.frames.filter((frame) => !LINES.some((line) => near(line.value, frame)))
    set({ frames: [...own, ...on.filter((line) => line !== SAFE)], title_safe: on.includes(SAFE) })
  }
</script>

<section class="scene" aria-label="Scene">
  <div class="row">
    <span
      ><span class="soft">Camera</span>
      <DistanceField
        label="Camera height"
        metres={scene.camera_height_m}
        unit={bench.unit}
        {read}
        onchange={(camera_height_m, kind) => set({ camera_height_m }, kind)}
      /> <span class="soft">high, level</span></span
    >
    <span
      ><span class="soft">Subject</span>
      <Choice
        label="Posture of the subject"
        options={wordOptions(['standing', 'seated'])}
        value={scene.posture}
        onchange={(posture) => set({ posture })}
      />
      <DistanceField
        label="Height of the subject"
        metres={scene.subject_height_m}
        unit={bench.unit}
        {read}
        onchange={(subject_height_m, kind) => set({ subject_height_m }, kind)}
      /> <span class="soft">tall</span></span
    >
    <span
      ><span class="soft">Faces: caution nearer than</span>
      <DistanceField
        label="Caution for faces nearer than"
        metres={Math.max(scene.face_caution_m, 0.001)}
        unit={bench.unit}
        {read}
        onchange={(face_caution_m, kind) => set({ face_caution_m }, kind)}
      /></span
    >
    <span class="item"
      ><span class="soft">Frame lines</span>
      <Toggles label="Frame lines" options={LINES} value={drawnLines} onchange={setLines} /></span
    >
  </div>
  <div class="wide">
    <table class="figures">
      <caption>What stands in the scene, in the plan view draggable</caption>
      <thead>
        <tr>
          <th>Thing</th><th>Name</th><th class="n">Distance</th><th class="n">To the right</th><th class="n"
            >Height</th
          >
          <th class="n">Its ground</th><th class="n">Blur</th><th class="n">Size beside the subject's</th><th
            ><span class="sr-only">Take it away</span></th
          >
        </tr>
      </thead>
      <tbody>
        {#each scene.objects as o (o.key)}
          <SceneThing
            thing={o}
            seen={drawn.get(o.key)}
            unit={bench.unit}
            {read}
            onedit={(part, kind) => edit(o.key, part, kind)}
            onremove={() => set({ objects: scene.objects.filter((other) => other.key !== o.key) })}
          />
        {/each}
      </tbody>
    </table>
  </div>
  <p class="row">
    <span class="soft">Add</span>
    {#each Object.entries(NEW_OBJECTS) as [kind, { label }] (kind)}
      <button
        class="knob small"
        disabled={scene.objects.length >= 60}
        onclick={() =>
          set({
            objects: [...scene.objects, newObject(kind as SceneObject['kind'], scene, bench.subject_m)],
          })}>{label}</button
      >
    {/each}
  </p>
  <p class="soft">
    Perspective: from {distanceWithUnit(view.perspective.pupil_to_subject_m, bench.unit)} before the entrance pupil{#if view.perspective.face_ratio},
      the nose of a face is drawn {(100 * (view.perspective.face_ratio - 1)).toFixed(1)} % larger than its ears{/if}.
    {#each view.perspective.words as words (words)}{words[0]?.toUpperCase()}{words.slice(1)}.&nbsp;{/each}
    Only the camera's place changes this, never the lens. W is the picture's width. Other frames are taken from
    the whole recording, as any delivery is; title safe is 90 % of the picture (SMPTE ST 2046-1).
  </p>
</section>

<style>
  .scene {
    display: grid;
    gap: 8px;
    grid-template-columns: minmax(0, 1fr);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1.2rem;
    align-items: center;
  }
  p.row {
    gap: 0.4rem;
  }
  table {
    min-width: 860px;
    width: 100%;
  }
  .small {
    padding: 0 0.55rem;
  }
</style>
