<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { figureOptions } from '../../lib/options'
  import type { BenchState, Package } from '../../lib/types'
  import { aspectOptions, LONG_EDGES } from './links'

  interface Props {
    delivery: BenchState['delivery']
    /** Pictures that the production delivers, by their names. */
    deliveries: Package['deliveries']
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { delivery, deliveries, onchange }: Props = $props()
  const USUAL_PX = 3840
  const spare = $derived(Math.round(100 * (delivery.protect ?? 0)))
  const plain = (each: BenchState['delivery']) =>
    [each.aspect ?? null, each.long_edge_px ?? null, each.protect ?? 0].join()
  const same = $derived(deliveries.find((each) => plain(each) === plain(delivery)))
  function take(name: string) {
    const chosen = deliveries.find((each) => each.name === name)
    if (chosen)
      onchange({
        delivery: { aspect: chosen.aspect, long_edge_px: chosen.long_edge_px, protect: chosen.protect },
      })
  }
  const set = (part: Partial<BenchState['delivery']>, kind?: string) =>
    onchange({ delivery: { ...delivery, ...part } }, kind)
</script>

{#if deliveries.length}
  <label class="item"
    ><span class="soft">Delivered</span>
    <Choice
      options={deliveries.map(({ name }) => ({ value: name, label: name }))}
      value={same?.name ?? null}
      placeholder="another picture"
      onchange={take}
    /></label
  >
{/if}
<label class="item"
  ><span class="soft">Aspect</span>
  <Choice
    figure
    options={aspectOptions(delivery.aspect)}
    value={delivery.aspect ?? null}
    onchange={(aspect) => set({ aspect })}
  /></label
>
<label class="item"
  ><span class="soft">Long edge</span>
  <Choice
    figure
    options={[
      { value: null, label: 'not set' },
      ...figureOptions(LONG_EDGES, delivery.long_edge_px ?? USUAL_PX, (edge) => `${edge} px`),
    ]}
    value={delivery.long_edge_px ?? null}
    onchange={(long_edge_px) => set({ long_edge_px })}
  /></label
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
