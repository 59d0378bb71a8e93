<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import Toggles from '../controls/Toggles.svelte'
  import { namedOptions } from '../../lib/options'
  import type { KitAsk, Package } from '../../lib/types'
  import { orHouse } from '../../lib/reference'
  import { aspectOptions } from '../chain/links'
  import ReferenceChoice from '../chain/ReferenceChoice.svelte'

  interface Props {
    ask: KitAsk
    package: Package
    /** Whether reducers and extenders are a choice here. */
    ways?: boolean
    /** Whether a part of the bodies and lens sets can be chosen here. */
    parts?: boolean
    /** Whether only what the plan carries is looked at; none where that is no choice here. */
    planned?: boolean
    onchange: (part: Partial<KitAsk> & { planned?: boolean }) => void
  }
  let { ask, package: equipment, ways = true, parts = true, planned, onchange }: Props = $props()

  const MOUNTED = [
    { value: 'simplest', label: 'the simplest way' },
    { value: 'every', label: 'in every way: reducers, extenders' },
  ] as const
  const reference = $derived({ ...equipment.reference, ...ask.reference })
  const crops = $derived(
    equipment.bodies.flatMap((body) => body.crops.map((crop) => ({ ...crop, body: body.name }))),
  )
  const on = $derived(new Set(ask.crop_ids ?? []))

  /** All of them is no choice at all. */
  const orAll = (ids: number[], all: readonly unknown[]) => (ids.length === all.length ? null : ids)
</script>

<div class="settings">
  <span class="item"
    ><span class="soft">Against</span>
    <ReferenceChoice
      value={reference}
      package={equipment}
      label="Reference for crop factors"
      dimensionLabel="Dimension that sets the crop"
      onchange={(value) => onchange({ reference: orHouse(value, equipment.reference) })}
    /></span
  >
  <label class="item"
    ><span class="soft">Delivered</span>
    <Choice
      label="Delivered aspect"
      options={aspectOptions(ask.delivery?.aspect)}
      value={ask.delivery?.aspect ?? null}
      onchange={(aspect) => onchange({ delivery: { ...ask.delivery, aspect } })}
    /></label
  >
  {#if ways}
    <label class="item"
      ><span class="soft">Mounted</span>
      <Choice
        label="How lenses are mounted"
        options={MOUNTED}
        value={ask.mounted}
        onchange={(mounted) => onchange({ mounted })}
      /></label
    >
  {/if}
  {#if planned !== undefined && equipment.plan !== null}
    <label class="item" title="The plan is {equipment.plan}: without the tick everything of the package"
      ><input
        type="checkbox"
        checked={planned}
        onchange={(event) => onchange({ planned: event.currentTarget.checked })}
      />
      only what the plan carries</label
    >
  {/if}
  {#if parts}
    <span class="item"
      ><span class="soft">Bodies</span>
      <Toggles
        label="Bodies"
        options={namedOptions(equipment.bodies)}
        value={ask.body_ids ?? equipment.bodies.map((body) => body.id)}
        onchange={(ids) => onchange({ body_ids: orAll(ids, equipment.bodies) })}
      /></span
    >
    <span class="item"
      ><span class="soft">Lenses</span>
      <Toggles
        label="Lens sets"
        options={namedOptions(equipment.lens_sets)}
        value={ask.lens_set_ids ?? equipment.lens_sets.map((set) => set.id)}
        onchange={(ids) => onchange({ lens_set_ids: orAll(ids, equipment.lens_sets) })}
      /></span
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
</style>
