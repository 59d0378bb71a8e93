<script lang="ts">
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
  const OTHER_FRAMES = [
    { label: '4:3', aspect: 4 / 3 },
    { label: '1:1', aspect: 1 },
    { label: '9:16', aspect: 9 / 16 },
    { label: '16:9', aspect: 16 / 9 },
    { label: '1.85', aspect: 1.85 },
    { label: '2.39', aspect: 2.39 },
  ]

  const set = (part: Partial<Scene>, kind = '') => onchange({ scene: { ...scene, ...part } }, kind)
  const edit = (key: string, part: Partial<SceneObject>, kind = '') =>
    set({ objects: scene.objects.map((o) => (o.key === key ? { ...o, ...part } : o)) }, kind)

  const has = (aspect: number) => scene.frames.some((f) => Math.abs(f - aspect) < 0.001)
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
      <select
        class="set"
        aria-label="Posture of the subject"
        value={scene.posture}
        onchange={(event) => set({ posture: event.currentTarget.value === 'seated' ? 'seated' : 'standing' })}
        ><option value="standing">standing</option><option value="seated">seated</option></select
      >
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
    <span role="group" aria-label="Frame lines"
      ><span class="soft">Frame lines</span>
      {#each OTHER_FRAMES as { label, aspect } (label)}
        <button
          class="knob small"
          aria-pressed={has(aspect)}
          onclick={() =>
            set({
              frames: has(aspect)
                ? scene.frames.filter((f) => Math.abs(f - aspect) >= 0.001)
                : [...scene.frames, aspect],
            })}>{label}</button
        >
      {/each}
      <button
        class="knob small"
        aria-pressed={scene.title_safe}
        onclick={() => set({ title_safe: !scene.title_safe })}>title safe</button
      ></span
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
          ></th>
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
