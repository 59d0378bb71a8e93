<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { adapterOptions, figureOptions } from '../../lib/options'
  import { aperture, rate } from '../../lib/format'
  import type { Problem, Unit } from '../../lib/types'
  import type { TrayProps } from './choices'
  import DeliveryTray from './DeliveryTray.svelte'
  import LensTray from './LensTray.svelte'
  import { TITLES, type LinkName } from './links'
  import SubjectTray from './SubjectTray.svelte'

  interface Props extends TrayProps {
    link: LinkName
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
  }
  let { link, state, view, place, lens, package: equipment, places, onlens, read, onchange }: Props = $props()

  const reasons = $derived([...new Set(view.crops.map((crop) => crop.reason))])
  const sharedReason = $derived(reasons.length === 1 ? reasons[0] : null)

  function toggleCrop(id: number, on: boolean) {
    onchange({ crop_ids: on ? [...state.crop_ids, id] : state.crop_ids.filter((c) => c !== id) })
  }
</script>

<section id="link-tray" aria-label="{TITLES[link]}: more settings">
  {#if link === 'subject'}
    <SubjectTray {state} {view} {read} {onchange} />
  {:else if link === 'lens'}
    <LensTray {state} {view} {place} {lens} package={equipment} {places} {onlens} {onchange} />
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
      <Choice
        label="Second adapter"
        options={adapterOptions(equipment.adapters, 'none')}
        value={state.second_adapter_id ?? null}
        onchange={(second_adapter_id) => onchange({ second_adapter_id })}
      /></label
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
    {#if view.links.readout.menu}<span class="soft">{view.links.readout.menu}</span>{/if}
  {:else if link === 'recording'}
    <label class="item"
      ><span class="soft">Shot at</span>
      <Choice
        figure
        options={figureOptions(place.format.rates, state.fps, (fps) => `${rate(fps)} fps`)}
        value={state.fps}
        onchange={(fps) => onchange({ fps })}
      /></label
    >
    <span class="item"
      ><span class="soft">Codec</span>
      {[place.format.codec, place.format.bits && `${place.format.bits} bit`].filter(Boolean).join(', ') ||
        'not stated'}</span
    >
    {#each view.crops as crop (crop.id)}
      <label class="item" class:off={crop.reason !== null}
        ><input
          type="checkbox"
          checked={crop.on}
          disabled={crop.always || (crop.reason !== null && !crop.on)}
          onchange={(event) => toggleCrop(crop.id, event.currentTarget.checked)}
        />
        {crop.name}
        {#if crop.factor !== null}<span class="figure">×{crop.factor.toFixed(2)}</span>{/if}
        {#if crop.reason !== null && crop.reason !== sharedReason}<span class="soft">({crop.reason})</span
          >{/if}
        {#if crop.on && crop.menu}<span class="soft">{crop.menu}</span>{/if}</label
      >
    {/each}
    {#if sharedReason}<span class="soft">Not here: {sharedReason}.</span>{/if}
  {:else}
    <DeliveryTray delivery={state.delivery} deliveries={equipment.deliveries} {onchange} />
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
  .off {
    opacity: 0.75;
  }
  section :global(input[type='checkbox']) {
    accent-color: var(--accent);
    width: 18px;
    height: 18px;
  }
</style>
