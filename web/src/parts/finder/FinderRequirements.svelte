<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { adapterOptions, lensOptions } from '../../lib/options'
  import { NUMBERS, PLAIN, type WishName } from '../../lib/finder'
  import type { FinderAsk, Package, PackageSettings } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'
  import WishChoice from './WishChoice.svelte'

  interface Props {
    ask: FinderAsk
    package: Package
    cards: PackageSettings['cards']
    fault: (path: string) => string | undefined
    onchange: (part: Partial<FinderAsk>) => void
  }
  let { ask, package: equipment, cards, fault, onchange }: Props = $props()

  const firstLens = $derived(equipment.lens_sets[0]?.lenses[0]?.id)
  const needsLens = $derived(ask.covers != null || ask.angle_deg != null)

  function toggle(name: WishName, on: boolean, first: object) {
    const part: Partial<FinderAsk> = { [name]: on ? { must: true, weight: 1, ...first } : null }
    if (on && (name === 'covers' || name === 'angle_deg') && !ask.lens && firstLens)
      part.lens = { lens_id: firstLens, adapter_id: null, focal_mm: null }
    if (on && (name === 'reframe_percent' || name === 'levelling_deg') && !ask.delivery)
      part.delivery = { must: true, weight: 1, raster: [3840, 2160] }
    onchange(part)
  }
  const set = (name: WishName, part: object) => onchange({ [name]: { ...ask[name], ...part } })

  const SCANS = [
    { value: false, label: 'progressive' },
    { value: true, label: 'interlaced' },
  ]
</script>

{#snippet head(name: WishName, label: string, first: object)}
  <label class="head"
    ><input
      type="checkbox"
      checked={ask[name] != null}
      onchange={(event) => toggle(name, event.currentTarget.checked, first)}
    />
    {label}</label
  >
{/snippet}
{#snippet must(name: WishName)}
  {@const wish = ask[name]}
  {#if wish}<WishChoice {wish} onchange={(part) => set(name, part)} />{/if}
{/snippet}

<div class="asks" role="group" aria-label="What the shot needs">
  <div class="ask" class:on={ask.rate}>
    {@render head('rate', 'Frame rate', { fps: '50', interlaced: false })}
    {#if ask.rate}
      <EntryField
        label="Frame rate"
        kind="text"
        value={ask.rate.fps}
        fault={fault('rate.fps')}
        oninput={(fps) => set('rate', { fps })}
      />
      <Choice
        label="Progressive or interlaced"
        options={SCANS}
        value={ask.rate.interlaced}
        onchange={(interlaced) => set('rate', { interlaced })}
      />
    {/if}
    {@render must('rate')}
  </div>
  <div class="ask" class:on={ask.delivery}>
    {@render head('delivery', 'Delivered raster', { raster: [3840, 2160] })}
    {#if ask.delivery}
      <span
        >{#each [0, 1] as axis (axis)}{axis ? ' × ' : ''}<EntryField
            label={axis ? 'Delivered height' : 'Delivered width'}
            kind="number"
            size={5}
            value={ask.delivery.raster[axis]}
            fault={fault(`delivery.raster[${axis}]`)}
            oninput={(n) =>
              set('delivery', { raster: ask.delivery?.raster.map((m, i) => (i === axis ? n : m)) })}
          />{/each}</span
      >
    {/if}
    {@render must('delivery')}
  </div>
  {#each NUMBERS as { name, label, unit, first } (name)}
    <div class="ask" class:on={ask[name]}>
      {@render head(name, ask[name] ? label : `${label} … ${unit}`, { least: first })}
      {#if ask[name]}
        <EntryField
          label="{label} {unit}"
          kind="number"
          size={5}
          value={ask[name]?.least}
          fault={fault(`${name}.least`)}
          oninput={(least) => set(name, { least })}
        /><span class="soft">{unit}</span>
      {/if}
      {@render must(name)}
    </div>
  {/each}
  {#each PLAIN as { name, label } (name)}
    <div class="ask" class:on={ask[name]}>
      {@render head(name, label, {})}
      {@render must(name)}
    </div>
  {/each}
  <div class="ask" class:on={ask.card_minutes}>
    {@render head('card_minutes', 'Minutes on a card', { least: 30, card: cards[0]?.key ?? '' })}
    {#if ask.card_minutes}
      <EntryField
        label="Minutes"
        kind="number"
        size={5}
        value={ask.card_minutes.least}
        fault={fault('card_minutes.least')}
        oninput={(least) => set('card_minutes', { least })}
      />
      <Choice
        label="Card"
        options={cards.map((card) => ({ value: card.key, label: card.name }))}
        value={ask.card_minutes.card}
        onchange={(card) => set('card_minutes', { card })}
      />
    {/if}
    {@render must('card_minutes')}
  </div>
  <div class="ask lens" class:on={needsLens}>
    <span class="soft">Lens at hand</span>
    <Choice
      label="Lens at hand"
      search
      options={[{ value: null, label: 'none' }, ...lensOptions(equipment.lens_sets)]}
      value={ask.lens?.lens_id ?? null}
      onchange={(lens_id) => onchange({ lens: lens_id ? { ...ask.lens, lens_id, focal_mm: null } : null })}
    />
    {#if ask.lens}
      <Choice
        label="Adapter"
        options={adapterOptions(equipment.adapters, 'no adapter')}
        value={ask.lens.adapter_id ?? null}
        onchange={(adapter_id) => ask.lens && onchange({ lens: { ...ask.lens, adapter_id } })}
      />
    {/if}
    {#each ['covers', 'angle_deg', 'lens.lens_id'] as path (path)}
      {#if fault(path)}<span class="fault" role="alert">{fault(path)}</span>{/if}
    {/each}
  </div>
</div>

<style>
  .asks {
    display: grid;
    gap: 1px;
    align-content: start;
  }
  .ask {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.1rem 0.5rem;
    min-height: 34px;
    padding: 1px 8px;
    border-left: 2px solid var(--line);
    color: var(--ink-soft);
    font-size: 14.5px;
  }
  .ask.on {
    border-left-color: var(--accent);
    color: var(--ink);
    background: var(--panel);
  }
  .head {
    display: inline-flex;
    align-items: center;
    gap: 0.45rem;
    cursor: pointer;
  }
  .ask :global(.cell input) {
    border-bottom-color: var(--line-strong);
  }
</style>
