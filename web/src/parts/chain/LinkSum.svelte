<script lang="ts">
  import { depthLike } from '../../lib/columns'
  import { aperture, degrees, factor, mm, NONE } from '../../lib/format'
  import { trade } from '../../lib/trade.svelte'
  import type { BenchView } from '../../lib/types'

  interface Props {
    view: BenchView
    formatId: number
    referenceName: string
    onlens: (id: number) => void
  }
  let { view, formatId, referenceName, onlens }: Props = $props()
  const row = $derived(view.rows.find((r) => r.format_id === formatId))
</script>

{#if view.unmounted}
  {@const { told, nearest_id, nearest_told } = view.unmounted}
  <div class="sum none" role="status">
    <span class="bad">{told}</span>
    {#if nearest_id !== null}<button class="knob small" onclick={() => onlens(nearest_id)}
        >Nearest that mounts: {nearest_told}</button
      >{:else}<span class="soft">No lens of the production mounts on this body.</span>{/if}
  </div>
{:else}
  <div class="sum">
    <span class="soft">{trade.framesLike(referenceName)}</span>
    <span class="figure accent big">{mm(row?.answer.effective_focal_mm)} mm</span>
    {#if row && depthLike(row) !== NONE}<span
        ><span class="soft">depth like</span> <span class="figure accent">{depthLike(row)}</span></span
      >{/if}
    <span class="figure"
      >{factor(view.links.sum.factor)} · {degrees(row?.answer.angle_deg.horizontal)} · {view.lens
        .marks}{aperture(view.lens.mounted.t_stop ?? view.lens.mounted.f_number)}</span
    >
  </div>
{/if}

<style>
  .sum {
    display: grid;
    align-content: space-between;
    min-width: 158px;
    padding: 6px 0;
    white-space: nowrap;
    font-size: 13px;
  }
  .sum.none {
    align-content: start;
    gap: 4px;
    width: 230px;
    white-space: normal;
  }
  .none button {
    white-space: normal;
    text-align: left;
  }
  .big {
    font-size: 25px;
    line-height: 1.1;
  }
  @media (max-width: 1100px) {
    .sum,
    .sum.none {
      grid-auto-flow: column;
      width: auto;
      justify-content: start;
      align-items: baseline;
      gap: 1rem;
    }
  }
  @media (max-width: 560px) {
    .sum {
      grid-auto-flow: row;
      gap: 0;
    }
  }
</style>
