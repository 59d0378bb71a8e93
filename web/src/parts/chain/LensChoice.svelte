<script lang="ts">
  import { aperture, mm } from '../../lib/format'
  import type { BenchState, BenchView, Lens, Package } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'
  import Picker from '../controls/Picker.svelte'

  interface Props {
    state: BenchState
    view: BenchView
    package: Package
    lens: Lens
    onlens: (lensId: number) => void
    onchange: (part: Partial<BenchState>) => void
  }
  let { state: bench, view, package: equipment, lens, onlens, onchange }: Props = $props()
  const choices = $derived(new Map(view.kit.map((choice) => [choice.lens_id, choice])))
  const options = $derived(
    equipment.lens_sets.flatMap((set) =>
      inOrder(set.lenses).map((option) => ({
        value: String(option.id),
        label: option.name,
        group: `${set.maker} ${set.name}`,
        ...COVERAGE[choices.get(option.id)?.verdict ?? 'unknown'],
      })),
    ),
  )
  const inOrder = (lenses: Lens[]) => lenses.toSorted((a, b) => a.focal_min_mm - b.focal_min_mm)
</script>

<span class="pair">
  <Picker label="Lens" {options} value={String(bench.lens_id)} onchange={(id) => onlens(Number(id))} />
  {#if lens.focal_max_mm > lens.focal_min_mm}<span class="figure">{mm(view.lens.focal_mm)}</span>{/if}
  <select
    class="set figure"
    aria-label="Stop"
    value={String(view.lens.stop ?? '')}
    onchange={(event) => onchange({ stop: Number(event.currentTarget.value) })}
  >
    {#each [...new Set([...view.lens.stops, view.lens.stop ?? 0])]
      .filter(Boolean)
      .toSorted((a, b) => a - b) as stop (stop)}
      <option value={String(stop)}>{view.lens.marks}{aperture(stop)}</option>
    {/each}
  </select>
</span>

<style>
  .pair {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }
</style>
