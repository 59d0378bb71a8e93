<script lang="ts">
  import { distanceWithUnit } from '../lib/format'
  import { NEW_OBJECTS, newObject } from '../lib/scene'
  import type { BenchState, FinderView, Problem, Scene, SceneObject, Unit } from '../lib/types'
  import DistanceField from './DistanceField.svelte'

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
  let asideFault = $state('')

  const set = (part: Partial<Scene>, kind = '') => onchange({ scene: { ...scene, ...part } }, kind)
  const edit = (key: string, part: Partial<SceneObject>, kind = '') =>
    set({ objects: scene.objects.map((o) => (o.key === key ? { ...o, ...part } : o)) }, kind)

  async function setAside(o: SceneObject, text: string) {
    const left = text.trim().startsWith('-') || text.trim().startsWith('−')
    const bare = text.trim().replace(/^[-−+]/, '')
    if (Number(bare) === 0) {
      asideFault = ''
      edit(o.key, { aside_m: 0 })
      return
    }
    const { data, problem } = await read(bare, bench.unit)
    asideFault = problem ? `${o.name}: ${problem.faults[0]?.rule ?? problem.message}` : ''
    if (data) edit(o.key, { aside_m: left ? -data.metres : data.metres })
  }
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
    <table>
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
          {@const seen = drawn.get(o.key)}
          <tr data-object={o.key}>
            <td
              ><select
                class="set"
                aria-label="Kind of {o.name}"
                value={o.kind}
                onchange={(event) => edit(o.key, { kind: event.currentTarget.value as SceneObject['kind'] })}
                >{#each Object.entries(NEW_OBJECTS) as [kind, { label }] (kind)}<option value={kind}
                    >{label}</option
                  >{/each}</select
              ></td
            >
            <td
              ><input
                class="set"
                size="14"
                maxlength="80"
                aria-label="Name of {o.name}"
                value={o.name}
                onchange={(event) => {
                  const name = event.currentTarget.value.trim()
                  if (name) edit(o.key, { name })
                  else event.currentTarget.value = o.name
                }}
              /></td
            >
            <td class="n"
              ><DistanceField
                label="Distance of {o.name}"
                metres={o.distance_m}
                unit={bench.unit}
                {read}
                onchange={(distance_m, kind) => edit(o.key, { distance_m }, kind)}
              /></td
            >
            <td class="n"
              ><input
                class="set figure"
                size="8"
                aria-label="{o.name}, to the right of the axis"
                value={(o.aside_m < 0 ? '−' : '') + distanceWithUnit(Math.abs(o.aside_m), bench.unit)}
                onchange={(event) => void setAside(o, event.currentTarget.value)}
              /></td
            >
            <td class="n"
              ><DistanceField
                label="Height of {o.name}"
                metres={o.height_m}
                unit={bench.unit}
                {read}
                onchange={(height_m, kind) => edit(o.key, { height_m }, kind)}
              /></td
            >
            <td class="n"
              ><input
                class="set figure"
                size="6"
                inputmode="decimal"
                aria-label="Ground of {o.name} above the camera's, metres"
                value={o.ground_m}
                onchange={(event) => {
                  const ground_m = Number(event.currentTarget.value.replace(',', '.').replace('−', '-'))
                  if (Number.isFinite(ground_m)) edit(o.key, { ground_m })
                  else event.currentTarget.value = String(o.ground_m)
                }}
              /> m</td
            >
            <td class="n figure"
              >{seen?.blur_share == null ? 'behind the lens' : `${(100 * seen.blur_share).toFixed(2)} % W`}
              {#if seen?.sharp}<span class="ok">sharp</span>{/if}</td
            >
            <td class="n figure"
              >{seen?.size_ratio == null ? '–' : `${(100 * seen.size_ratio).toFixed(1)} %`}</td
            >
            <td
              ><button
                class="knob small"
                aria-label="Take {o.name} out"
                onclick={() => set({ objects: scene.objects.filter((other) => other.key !== o.key) })}
                >Remove</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if asideFault}<p class="bad" role="alert">{asideFault}</p>{/if}
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
  .wide {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    min-width: 860px;
    width: 100%;
  }
  caption {
    text-align: left;
    color: var(--ink-soft);
  }
  th,
  td {
    padding: 2px 10px 2px 0;
    border-bottom: 1px solid var(--line);
    text-align: left;
    white-space: nowrap;
  }
  th {
    font-weight: 400;
    color: var(--ink-soft);
  }
  .n {
    text-align: right;
  }
  .small {
    padding: 0 0.55rem;
  }
  .ok {
    color: var(--ok);
  }
  .bad {
    color: var(--bad);
  }
</style>
