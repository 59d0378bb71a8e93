<script lang="ts">
  import type { KitAsk, Package } from '../../lib/types'
  import { ASPECTS, aspectLabel } from '../chain/links'
  import ReferenceChoice from '../chain/ReferenceChoice.svelte'

  interface Props {
    ask: KitAsk
    package: Package
    /** Whether reducers and extenders are a choice here. */
    ways?: boolean
    /** Whether a part of the bodies and lens sets can be chosen here. */
    parts?: boolean
    onchange: (part: Partial<KitAsk>) => void
  }
  let { ask, package: equipment, ways = true, parts = true, onchange }: Props = $props()

  const reference = $derived({
    name: 'super35' as const,
    by: 'width' as const,
    scan_mode_id: null,
    ...ask.reference,
  })
  const crops = $derived(
    equipment.bodies.flatMap((body) => body.crops.map((crop) => ({ ...crop, body: body.name }))),
  )
  const on = $derived(new Set(ask.crop_ids ?? []))
  const sets = $derived(new Set(ask.lens_set_ids ?? equipment.lens_sets.map((set) => set.id)))
  const bodies = $derived(new Set(ask.body_ids ?? equipment.bodies.map((body) => body.id)))

  /** All of them is no choice at all. */
  function toggled(chosen: Set<number>, all: { id: number }[], id: number, now: boolean): number[] | null {
    const ids = all.map((x) => x.id).filter((x) => (x === id ? now : chosen.has(x)))
    return ids.length === all.length ? null : ids
  }
</script>

<div class="settings">
  <span class="item"
    ><span class="soft">Against</span>
    <ReferenceChoice
      value={reference}
      package={equipment}
      label="Reference for crop factors"
      dimensionLabel="Dimension that sets the crop"
      onchange={(value) => onchange({ reference: value })}
    /></span
  >
  <label class="item"
    ><span class="soft">Delivered</span>
    <select
      class="set"
      aria-label="Delivered aspect"
      value={String(ask.delivery?.aspect ?? '')}
      onchange={(event) =>
        onchange({
          delivery: {
            ...ask.delivery,
            aspect: event.currentTarget.value === '' ? null : Number(event.currentTarget.value),
          },
        })}
    >
      {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option>{/each}
      {#if ask.delivery?.aspect != null && !ASPECTS.some((a) => a.aspect === ask.delivery?.aspect)}
        <option value={String(ask.delivery.aspect)}>{aspectLabel(ask.delivery.aspect)}</option>
      {/if}
    </select></label
  >
  {#if ways}
    <label class="item"
      ><span class="soft">Mounted</span>
      <select
        class="set"
        aria-label="How lenses are mounted"
        value={ask.mounted}
        onchange={(event) => onchange({ mounted: event.currentTarget.value as 'simplest' | 'every' })}
      >
        <option value="simplest">the simplest way</option>
        <option value="every">in every way: reducers, extenders</option>
      </select></label
    >
  {/if}
  {#if parts}
    <span class="item" role="group" aria-label="Bodies"
      ><span class="soft">Bodies</span>
      {#each equipment.bodies as body (body.id)}
        <button
          class="knob"
          aria-pressed={bodies.has(body.id)}
          onclick={() =>
            onchange({ body_ids: toggled(bodies, equipment.bodies, body.id, !bodies.has(body.id)) })}
          >{body.name}</button
        >
      {/each}</span
    >
    <span class="item" role="group" aria-label="Lens sets"
      ><span class="soft">Lenses</span>
      {#each equipment.lens_sets as set (set.id)}
        <button
          class="knob"
          aria-pressed={sets.has(set.id)}
          onclick={() =>
            onchange({ lens_set_ids: toggled(sets, equipment.lens_sets, set.id, !sets.has(set.id)) })}
          >{set.name}</button
        >
      {/each}</span
    >
  {/if}
  {#if crops.length}
    <details class="item">
      <summary>In-camera crops{on.size ? `: ${on.size} on` : ''}</summary>
      <div class="crops">
        {#each crops as crop (crop.id)}
          <label
            ><input
              type="checkbox"
              checked={on.has(crop.id)}
              onchange={(event) =>
                onchange({
                  crop_ids: event.currentTarget.checked
                    ? [...on, crop.id]
                    : [...on].filter((id) => id !== crop.id),
                })}
            />
            {crop.name} <span class="soft">{crop.body}</span></label
          >
        {/each}
      </div>
    </details>
  {/if}
</div>

<style>
  .settings {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 1.2rem;
    font-size: 14px;
  }
  .item {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem;
  }
  details {
    position: relative;
  }
  summary {
    cursor: pointer;
    color: var(--ink-soft);
  }
  .crops {
    position: absolute;
    z-index: 20;
    top: 100%;
    left: 0;
    display: grid;
    gap: 4px;
    width: max-content;
    padding: 8px 12px;
    background: var(--panel);
    border: 1px solid var(--line-strong);
  }
  .knob {
    padding-inline: 0.45rem;
    font-size: 13px;
    min-height: 25px;
  }
</style>
