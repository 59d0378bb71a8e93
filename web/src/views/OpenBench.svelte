<script lang="ts">
  import { openBench, type Bench } from '../lib/bench.svelte'
  import { pathTo } from '../lib/router.svelte'
  import type { ViewProps } from '../lib/views'
  import Failed from '../parts/page/Failed.svelte'
  import BenchView from './BenchView.svelte'

  let { productionId }: ViewProps = $props()
  let attempt = $state(0)
  // Entering the Bench opens it anew: the package may have been changed meanwhile.
  const opening = $derived(attempt >= 0 ? openBench(productionId) : null)

  // A Bench that is left has to keep what still waits, also one that was still being opened.
  $effect(() => {
    let shown: Bench | undefined
    let left = false
    void opening?.then(({ bench }) => {
      if (left) bench?.close()
      else shown = bench
    })
    return () => {
      left = true
      shown?.close()
    }
  })
</script>

{#await opening}
  <p class="waiting soft">Opening the production…</p>
{:then opened}
  {#if opened?.bench}
    <BenchView bench={opened.bench} productionName={opened.name ?? ''} />
  {:else if opened?.problem}
    <Failed problem={opened.problem} onretry={() => (attempt += 1)}>
      {#if productionId}<a class="knob" href={pathTo(productionId, 'package')}>Go to the package</a>{/if}
    </Failed>
  {/if}
{/await}
