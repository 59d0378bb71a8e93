<script lang="ts">
  import type { BenchState, Package } from '../../lib/types'
  import { COC_CHOICES, cocChoice } from '../chain/coc'
  import { UNITS } from '../../lib/units'
  import Segments from '../controls/Segments.svelte'
  import ReferenceChoice from '../chain/ReferenceChoice.svelte'

  interface Props {
    state: BenchState
    package: Package
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { state: bench, package: equipment, onchange }: Props = $props()
</script>

<div class="switches">
  <span
    ><span class="soft">crop against</span>
    <ReferenceChoice
      value={bench.reference}
      package={equipment}
      label="Reference for crop factors"
      dimensionLabel="Dimension that sets the crop"
      onchange={(reference) => onchange({ reference })}
    /></span
  >
  <label
    ><span class="soft">sharp to</span>
    <select
      class="set"
      aria-label="Rule for the circle of confusion"
      value={bench.coc === null ? '' : cocChoice(bench.coc)}
      onchange={(event) => {
        if (event.currentTarget.value === '') onchange({ coc: null })
        const found = COC_CHOICES.find((c) => c.label === event.currentTarget.value)
        if (found) onchange({ coc: found.coc })
      }}
    >
      <option value="">the production's rule</option>
      {#each COC_CHOICES as { label } (label)}<option value={label}>{label}</option>{/each}
      {#if bench.coc !== null}
        {@const own = cocChoice(bench.coc)}
        {#if !COC_CHOICES.some((c) => c.label === own)}<option value={own}>{own}</option>{/if}
      {/if}
    </select></label
  >
  <Segments
    label="Unit of distances"
    options={UNITS}
    value={bench.unit}
    onchange={(unit) => onchange({ unit })}
  />
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
