<script lang="ts">
  import type { BenchState, Package } from '../lib/types'
  import { COC_CHOICES, cocChoice } from './coc'

  interface Props {
    state: BenchState
    package: Package
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { state: bench, package: equipment, onchange }: Props = $props()

  const reference = $derived(bench.reference)
  const referenceValue = $derived(
    reference.name === 'scan_mode' ? `window${reference.scan_mode_id}` : (reference.name ?? 'super35'),
  )

  function chooseReference(value: string) {
    const id = /^window(\d+)$/.exec(value)?.[1]
    const named = value === 'full_frame' ? 'full_frame' : 'super35'
    onchange({
      reference: id
        ? { ...reference, name: 'scan_mode', scan_mode_id: Number(id) }
        : { ...reference, name: named, scan_mode_id: null },
    })
  }
</script>

<div class="switches">
  <label
    ><span class="soft">crop against</span>
    <select
      class="set"
      aria-label="Reference for crop factors"
      value={referenceValue}
      onchange={(event) => chooseReference(event.currentTarget.value)}
    >
      <option value="super35">Super 35</option>
      <option value="full_frame">full frame</option>
      {#each equipment.bodies as body (body.id)}
        <optgroup label={body.name}>
          {#each body.modes as mode (mode.id)}<option value="window{mode.id}">{mode.name}</option>{/each}
        </optgroup>
      {/each}
    </select></label
  >
  <label
    ><span class="soft">by</span>
    <select
      class="set"
      aria-label="Dimension that sets the crop"
      value={reference.by}
      onchange={(event) =>
        onchange({
          reference: { ...reference, by: event.currentTarget.value as BenchState['reference']['by'] },
        })}
    >
      <option value="width">width</option>
      <option value="height">height</option>
      <option value="diagonal">diagonal</option>
    </select></label
  >
  <label
    ><span class="soft">sharp to</span>
    <select
      class="set"
      aria-label="Rule for the circle of confusion"
      value={cocChoice(bench.coc)}
      onchange={(event) => {
        const found = COC_CHOICES.find((c) => c.label === event.currentTarget.value)
        if (found) onchange({ coc: found.coc })
      }}
    >
      {#each COC_CHOICES as { label } (label)}<option value={label}>{label}</option>{/each}
      {#if !COC_CHOICES.some((c) => c.label === cocChoice(bench.coc))}
        <option value={cocChoice(bench.coc)}>{cocChoice(bench.coc)}</option>
      {/if}
    </select></label
  >
  <span role="group" aria-label="Unit of distances">
    <button class="knob" aria-pressed={bench.unit === 'm'} onclick={() => onchange({ unit: 'm' })}>m</button
    ><button class="knob" aria-pressed={bench.unit === 'ft'} onclick={() => onchange({ unit: 'ft' })}
      >ft</button
    >
  </span>
</div>

<style>
  .switches {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 0.9rem;
    font-size: 14px;
  }
  select {
    max-width: 11rem;
  }
</style>
