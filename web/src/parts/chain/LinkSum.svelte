<script lang="ts">
  import { depthLike } from '../../lib/columns'
  import { aperture, degrees, factor, mm, NONE } from '../../lib/format'
  import { limits } from '../../lib/figures'
  import { narrow } from '../../lib/narrow.svelte'
  import { trade } from '../../lib/trade.svelte'
  import type { BenchView, Unit } from '../../lib/types'

  interface Props {
    view: BenchView
    formatId: number
    referenceName: string
    unit: Unit
    onlens: (id: number) => void
  }
  let { view, formatId, referenceName, unit, onlens }: Props = $props()
  const row = $derived(view.rows.find((r) => r.format_id === formatId))
  const { near_m, far_m } = $derived(row?.answer.depth ?? { near_m: null, far_m: null })
  const depth = $derived(near_m === null ? null : limits(near_m, far_m, view.plan.focus_m, unit))
</script>

{#if view.unmounted}
  {@const { told, nearest_id, nearest_told } = view.unmounted}
  <div class="sum none" role="status">
    <span class="bad">{told}</span>
    {#if nearest_id !== null}<button class="knob small" onclick={() => onlens(nearest_id)}
        >Nearest that mounts: {nearest_told}</button
      >{:else}<span class="soft">No lens of the production mounts on this body.</span>{/if}
  </div>
{:else if narrow.current}
  <dl class="sum boxes">
    <div>
      <dt>{trade.framesLike(referenceName)}</dt>
      <dd class="figure accent">{mm(row?.answer.effective_focal_mm)} mm</dd>
    </div>
    {#each [['near', depth?.near], ['far', depth?.far]] as const as [title, limit] (title)}
      <div>
        <dt>{title}{depth?.unit ? `, ${depth.unit}` : ''}</dt>
        <dd class="figure">{limit ?? NONE}</dd>
      </div>
    {/each}
  </dl>
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
    .sum.boxes {
      grid-auto-flow: row;
      grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 1fr);
      gap: 4px;
      min-width: 0;
      padding: 0;
    }
    .boxes div {
      padding: 2px 8px;
      border: 1px solid var(--line);
    }
    .boxes dt {
      overflow: hidden;
      text-overflow: ellipsis;
      color: var(--ink-soft);
    }
    .boxes dd {
      font-size: 19px;
    }
  }
</style>
