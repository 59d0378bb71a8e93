<script lang="ts">
  import type { BenchState } from '../../lib/types'
  import { ASPECTS, LONG_EDGES } from './links'

  interface Props {
    delivery: BenchState['delivery']
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { delivery, onchange }: Props = $props()
  const USUAL_PX = 3840
  const spare = $derived(Math.round(100 * (delivery.protect ?? 0)))
  const set = (part: Partial<BenchState['delivery']>, kind?: string) =>
    onchange({ delivery: { ...delivery, ...part } }, kind)
</script>

<label class="item"
  ><span class="soft">Aspect</span>
  <select
    class="set figure"
    value={String(delivery.aspect ?? '')}
    onchange={({ currentTarget: { value } }) => set({ aspect: value === '' ? null : Number(value) })}
  >
    {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option>{/each}
  </select></label
>
<label class="item"
  ><span class="soft">Long edge</span>
  <select
    class="set figure"
    value={String(delivery.long_edge_px ?? '')}
    onchange={(event) => set({ long_edge_px: Number(event.currentTarget.value) || null })}
  >
    <option value="">not set</option>
    {#each [...new Set( [...LONG_EDGES, delivery.long_edge_px ?? USUAL_PX] )].toSorted((a, b) => a - b) as edge (edge)}
      <option value={String(edge)}>{edge} px</option>
    {/each}
  </select></label
>
<label class="item"
  ><span class="soft">Protection all round</span>
  <input
    class="figure"
    type="range"
    min="0"
    max="30"
    value={spare}
    oninput={(event) => set({ protect: Number(event.currentTarget.value) / 100 }, 'spare')}
  /><span class="figure">{spare} %</span></label
>
<span class="soft">The figures are those of the whole picture; the protected frame is drawn inside it.</span>

<style>
  input {
    width: 130px;
    accent-color: var(--accent);
  }
</style>
