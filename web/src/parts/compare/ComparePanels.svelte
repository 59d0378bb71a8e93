<script lang="ts">
  import type { CompareView, Unit } from '../../lib/types'
  import { LETTERS } from '../../lib/compared'
  import RulesPanel from './RulesPanel.svelte'
  import WhyPanel from './WhyPanel.svelte'

  interface Props {
    view: CompareView
    unit: Unit
    /** What a set-up is called, by its place. */
    nameOf: (index: number) => string
  }
  let { view, unit, nameOf }: Props = $props()
</script>

<div class="panels">
  {#each view.summary as summary, i (i)}
    {#if summary}<WhyPanel
        why={view.why[i] ?? null}
        {summary}
        name={nameOf(i)}
        master={LETTERS[view.master] ?? ''}
        {unit}
      />{/if}
  {/each}
  {#if view.rules}<RulesPanel rules={view.rules} master={LETTERS[view.master] ?? ''} />{/if}
</div>
<p class="soft no-print">
  Differences are marked above half a per cent (depth and blur one per cent, exposure a tenth of a stop). The
  parts are changed one after another, in this order; another order would share the same whole out a little
  differently.
</p>

<style>
  .panels {
    display: grid;
    gap: 14px 30px;
    grid-template-columns: repeat(auto-fit, minmax(min(400px, 100%), 1fr));
  }
  @media print {
    /* No type below 7 points. */
    :global(main:has(.panels)) {
      padding: 0;
      gap: 3px;
      zoom: 0.86;
    }
  }
</style>
