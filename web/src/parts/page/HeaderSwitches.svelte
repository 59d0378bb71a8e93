<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import type { BenchState, Package } from '../../lib/types'
  import { cocChoice, cocOf, cocOptions } from '../chain/coc'
  import { orHouse } from '../../lib/reference'
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
      value={bench.reference ?? equipment.reference}
      package={equipment}
      label="Reference for crop factors"
      dimensionLabel="Dimension that sets the crop"
      onchange={(reference) => onchange({ reference: orHouse(reference, equipment.reference) })}
    /></span
  >
  <label
    ><span class="soft">sharp to</span>
    <Choice
      label="Rule for the circle of confusion"
      options={cocOptions(bench.coc)}
      value={bench.coc === null ? null : cocChoice(bench.coc)}
      onchange={(label) => onchange({ coc: cocOf(label) })}
    /></label
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
  .switches :global(select.set) {
    max-width: 11rem;
  }
</style>
