<script lang="ts">
  import { aperture, distanceWithUnit, rate } from '../lib/format'
  import type { BenchState, BenchView, FormatPlace, Lens, Package, Problem, Unit } from '../lib/types'
  import DistanceField from './DistanceField.svelte'
  import LensLadder from './LensLadder.svelte'
  import { ASPECTS, LONG_EDGES, TITLES, type LinkName } from './links'
  import ZoomRange from './ZoomRange.svelte'

  interface Props {
    link: LinkName
    state: BenchState
    view: BenchView
    place: FormatPlace
    lens: Lens
    package: Package
    places: Map<number, FormatPlace>
    onlens: (lensId: number) => void
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { link, state, view, place, lens, package: equipment, places, onlens, read, onchange }: Props = $props()

  const zoom = $derived(lens.focal_max_mm > lens.focal_min_mm)
  const spare = $derived(Math.round(100 * (state.delivery.protect ?? 0)))

  const reasons = $derived([...new Set(view.crops.map((crop) => crop.reason))])
  const sharedReason = $derived(reasons.length === 1 ? reasons[0] : null)

  function setFocal(text: string) {
    const focal_mm = Number(text.replace(',', '.'))
    if (focal_mm > 0) onchange({ focal_mm }, 'focal')
  }

  function toggleCrop(id: number, on: boolean) {
    onchange({ crop_ids: on ? [...state.crop_ids, id] : state.crop_ids.filter((c) => c !== id) })
  }
</script>

<section id="link-tray" aria-label="{TITLES[link]}: more settings">
  {#if link === 'subject'}
    <span class="item"
      ><span class="soft">Subject at</span>
      <DistanceField
        label="Subject distance from the sensor plane"
        metres={state.subject_m}
        unit={state.unit}
        {read}
        onchange={(subject_m, kind) => onchange({ subject_m }, kind)}
      /></span
    >
    <span class="item"
      ><span class="soft">Focus at</span>
      <DistanceField
        label="Focus distance"
        metres={state.focus_m ?? state.subject_m}
        unit={state.unit}
        {read}
        onchange={(focus_m, kind) => onchange({ focus_m }, kind)}
      /></span
    >
    <button class="knob" disabled={state.focus_m === null} onclick={() => onchange({ focus_m: null })}
      >Focus on the subject</button
    >
    <label class="item"
      ><input
        type="checkbox"
        checked={state.movement_m > 0}
        onchange={(event) => onchange({ movement_m: event.currentTarget.checked ? 0.4 : 0 })}
      />
      moves back and forth</label
    >
    {#if state.movement_m > 0}
      <span class="item"
        ><span class="soft">over</span>
        <DistanceField
          label="Movement from end to end"
          metres={state.movement_m}
          unit={state.unit}
          {read}
          onchange={(movement_m, kind) => onchange({ movement_m }, kind)}
        /></span
      >
    {/if}
    <span class="soft">Distances count from the sensor plane, as the focus mark does.</span>
    {#if view.links.subject.from_front_m !== null}
      <span class="soft"
        >{view.links.subject.from_front_m > 0
          ? `From the front of the lens: ${distanceWithUnit(view.links.subject.from_front_m, state.unit)}.`
          : 'That lies inside the lens.'}</span
      >
    {/if}
  {:else if link === 'lens'}
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
      <span class="figure">{view.lens.circle_mm ? `${view.lens.circle_mm.toFixed(1)} mm` : 'not stated'}</span
      ></span
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
      <span class="figure">f/{aperture(view.lens.mounted.f_number)}</span></span
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
  {:else if link === 'adapter'}
    <span class="item"
      ><span class="soft">Behind the adapter</span>
      <span class="figure"
        >{view.lens.mounted.optical_focal_mm.toFixed(1)} mm {view.lens.marks}{aperture(
          view.lens.mounted.t_stop ?? view.lens.mounted.f_number,
        )}</span
      ></span
    >
    <span class="item"
      ><span class="soft">Image circle</span>
      <span class="figure"
        >{view.lens.mounted.image_circle_mm
          ? `${view.lens.mounted.image_circle_mm.toFixed(1)} mm`
          : 'not stated'}</span
      ></span
    >
    <label class="item"
      ><span class="soft">Second adapter</span>
      <select
        class="set"
        aria-label="Second adapter"
        value={String(state.second_adapter_id ?? '')}
        onchange={(event) => onchange({ second_adapter_id: Number(event.currentTarget.value) || null })}
      >
        <option value="">none</option>
        {#each equipment.adapters as option (option.id)}<option value={String(option.id)}
            >{option.name}</option
          >{/each}
      </select></label
    >
    <span class="soft">The lens has the {lens.mount} mount; {place.body.name} takes {place.body.mount}.</span>
    {#if view.lens.mounting.reasons.length}<span class="bad">{view.lens.mounting.reasons.join('; ')}.</span
      >{/if}
    {#each view.lens.mounting.consequences as text (text)}<span class="warn">{text}.</span>{/each}
  {:else if link === 'readout'}
    <span class="item"
      ><span class="soft">Photosites</span>
      <span class="figure">{place.mode.window[0]} × {place.mode.window[1]}</span></span
    >
    <span class="item"
      ><span class="soft">Size</span>
      <span class="figure">{place.mode.width_mm.toFixed(2)} × {place.mode.height_mm.toFixed(2)} mm</span
      ></span
    >
    <span class="item"
      ><span class="soft">Sampling</span>
      {place.mode.method === 'full'
        ? 'every photosite'
        : `${place.mode.method} ${place.mode.sampling[0]} × ${place.mode.sampling[1]}`}</span
    >
  {:else if link === 'recording'}
    <label class="item"
      ><span class="soft">Shot at</span>
      <select
        class="set figure"
        value={String(state.fps)}
        onchange={(event) => onchange({ fps: Number(event.currentTarget.value) })}
      >
        {#each [...new Set([...place.format.rates, state.fps])].toSorted((a, b) => a - b) as fps (fps)}
          <option value={String(fps)}>{rate(fps)} fps</option>
        {/each}
      </select></label
    >
    <span class="item"><span class="soft">Codec</span> {place.format.codec}, {place.format.bits} bit</span>
    {#each view.crops as crop (crop.id)}
      <label class="item" class:off={crop.reason !== null}
        ><input
          type="checkbox"
          checked={crop.on}
          disabled={crop.reason !== null && !crop.on}
          onchange={(event) => toggleCrop(crop.id, event.currentTarget.checked)}
        />
        {crop.name}
        {#if crop.factor !== null}<span class="figure">×{crop.factor.toFixed(2)}</span>{/if}
        {#if crop.reason !== null && crop.reason !== sharedReason}<span class="soft">({crop.reason})</span
          >{/if}</label
      >
    {/each}
    {#if sharedReason}<span class="soft">Not here: {sharedReason}.</span>{/if}
  {:else}
    <label class="item"
      ><span class="soft">Aspect</span>
      <select
        class="set figure"
        value={String(state.delivery.aspect ?? '')}
        onchange={(event) =>
          onchange({
            delivery: {
              ...state.delivery,
              aspect: event.currentTarget.value === '' ? null : Number(event.currentTarget.value),
            },
          })}
      >
        {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option
          >{/each}
      </select></label
    >
    <label class="item"
      ><span class="soft">Long edge</span>
      <select
        class="set figure"
        value={String(state.delivery.long_edge_px ?? '')}
        onchange={(event) =>
          onchange({
            delivery: { ...state.delivery, long_edge_px: Number(event.currentTarget.value) || null },
          })}
      >
        <option value="">not set</option>
        {#each [...new Set( [...LONG_EDGES, state.delivery.long_edge_px ?? 3840] )].toSorted((a, b) => a - b) as edge (edge)}
          <option value={String(edge)}>{edge} px</option>
        {/each}
      </select></label
    >
    <label class="item"
      ><span class="soft">Protection all round</span>
      <input
        class="figure"
        type="range"
        min="0"
        max="30"
        value={spare}
        oninput={(event) =>
          onchange(
            { delivery: { ...state.delivery, protect: Number(event.currentTarget.value) / 100 } },
            'spare',
          )}
      /><span class="figure">{spare} %</span></label
    >
    <span class="soft"
      >The figures are those of the whole picture; the protected frame is drawn inside it.</span
    >
  {/if}
</section>

<style>
  section {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1.4rem;
    min-height: 40px;
    padding: 0.3rem 1rem;
    background: var(--cell-strong);
  }
  .item {
    display: inline-flex;
    align-items: center;
    gap: 0.4rem;
  }
  .suited {
    flex-wrap: wrap;
  }
  .warn {
    color: var(--warn);
  }
  .bad {
    color: var(--bad);
  }
  .off {
    opacity: 0.75;
  }
  input[type='range'] {
    width: 130px;
    accent-color: var(--accent);
  }
  input[type='checkbox'] {
    accent-color: var(--accent);
    width: 18px;
    height: 18px;
  }
</style>
