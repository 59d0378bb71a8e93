<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { stopOptions } from '../../lib/options'
  import { mm } from '../../lib/format'
  import type { BenchState, BenchView, Lens, Package } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'

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
        value: option.id,
        label: option.name,
        group: `${set.maker} ${set.name}`,
        ...COVERAGE[choices.get(option.id)?.verdict ?? 'unknown'],
      })),
    ),
  )
  const inOrder = (lenses: Lens[]) => lenses.toSorted((a, b) => a.focal_min_mm - b.focal_min_mm)
</script>

<span class="pair">
  <Choice label="Lens" grow search {options} value={bench.lens_id} onchange={onlens} />
  {#if lens.focal_max_mm > lens.focal_min_mm}<span class="figure">{mm(view.lens.focal_mm)}</span>{/if}
  <Choice
    label="Stop"
    figure
    options={stopOptions(view.lens)}
    value={view.lens.stop}
    onchange={(stop) => onchange({ stop })}
  />
</span>

<style>
  .pair {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }
</style>
