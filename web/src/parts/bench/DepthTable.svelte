<script lang="ts">
  import { limits, limitsText } from '../../lib/figures'
  import { aperture, distanceWithUnit } from '../../lib/format'
  import type { DepthView, Unit } from '../../lib/types'

  interface Props {
    table: NonNullable<DepthView['table']>
    unit: Unit
    /** What became of copying it. */
    copied: string
    oncopy: () => void
  }
  let { table, unit, copied, oncopy }: Props = $props()
</script>

<div class="bar">
  <h2>Depth table</h2>
  <button class="knob small" onclick={oncopy}>Copy as CSV</button>
  <span class="soft" role="status">{copied}</span>
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="wide" role="group" aria-label="Depth table" tabindex="0">
  <table class="figures">
    <thead>
      <tr
        ><th scope="col">Distance</th>{#each table.stops as stop (stop)}<th class="n figure" scope="col"
            >{table.marks}{aperture(stop)}</th
          >{/each}</tr
      >
      <tr
        ><th scope="row">Hyperfocal</th>{#each table.hyperfocal_m as at, i (i)}<td class="n figure"
            >{distanceWithUnit(at, unit)}</td
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each table.rows as row (row.distance_m)}
        <tr>
          <th class="figure" scope="row">{distanceWithUnit(row.distance_m, unit)}</th>
          {#each row.cells as cell, i (i)}<td class="n figure"
              >{limitsText(limits(cell.near_m, cell.far_m, row.distance_m, unit))}</td
            >{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
