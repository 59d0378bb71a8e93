<script lang="ts">
  import { aperture, distanceWithUnit } from '../../lib/format'
  import type { TrayProps } from './choices'
  import LensLadder from './LensLadder.svelte'
  import ZoomRange from './ZoomRange.svelte'

  let { state, view, place, lens, package: equipment, places, onlens, onchange }: TrayProps = $props()
  const zoom = $derived(lens.focal_max_mm > lens.focal_min_mm)

  function setFocal(text: string) {
    const focal_mm = Number(text.replace(',', '.'))
    if (focal_mm > 0) onchange({ focal_mm }, 'focal')
  }
</script>

{#if zoom}
  <span class="item"
    ><span class="soft">Focal length</span>
    <ZoomRange
      low={lens.focal_min_mm}
      high={lens.focal_max_mm}
      focal={view.lens.focal_mm}
      marks={view.lens.zoom_marks_mm}
      coversFrom={view.lens.covers_from_mm}
      onset={(focal_mm) => onchange({ focal_mm }, 'focal')}
    />
    <input
      class="set figure"
      size="5"
      inputmode="decimal"
      aria-label="Focal length in mm"
      value={view.lens.focal_mm}
      onchange={(event) => setFocal(event.currentTarget.value)}
    />
    mm
    {#if view.lens.covers_from_mm !== null}<span class="warn"
        >covers from {view.lens.covers_from_mm.toFixed(1)} mm on</span
      >{/if}</span
  >
{/if}
<span class="item"><span class="soft">Mount</span> {lens.mount}</span>
<span class="item"
  ><span class="soft">Image circle</span>
  <span class="figure">{view.lens.circle_mm ? `${view.lens.circle_mm.toFixed(1)} mm` : 'not stated'}</span>
  {#if view.lens.assumed.includes('image_circle_mm')}<span class="warn">assumed of its class</span>{/if}</span
>
<span class="item"
  ><span class="soft">Close focus</span>
  <span class="figure">{distanceWithUnit(lens.close_focus_m, state.unit)}</span></span
>
<span class="item"
  ><span class="soft">Squeeze</span> <span class="figure">{lens.squeeze.toFixed(2)}×</span></span
>
<span class="item"
  ><span class="soft">For depth</span>
  <span class="figure">f/{aperture(view.lens.mounted.f_number)}</span>
  {#if view.lens.assumed.includes('f_number')}<span class="warn">assumed from T</span>{/if}</span
>
{#if lens.projection !== 'rectilinear'}<span class="item">{lens.projection} fisheye</span>{/if}
<LensLadder
  {view}
  {lens}
  {place}
  {places}
  package={equipment}
  onformat={(format_id) => onchange({ format_id })}
  {onlens}
/>
{#if view.suited.length}
  <span class="item suited"
    ><span class="soft">Suits the squeeze:</span>
    {#each view.suited as s (s.format_id)}
      {@const at = places.get(s.format_id)}
      <button
        class="knob"
        aria-pressed={s.format_id === state.format_id}
        onclick={() => onchange({ format_id: s.format_id })}
        >{at?.format.name}
        <span class="soft">{at?.body.name}, {Math.round(100 * s.used)} % used</span></button
      >
    {/each}</span
  >
{/if}
