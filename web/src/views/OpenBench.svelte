<script lang="ts">
  import { openBench, type Bench } from '../lib/bench.svelte'
  import { router } from '../lib/router.svelte'
  import type { ViewProps } from '../lib/views'
  import Begin from '../parts/page/Begin.svelte'
  import Failed from '../parts/page/Failed.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import BenchView from './BenchView.svelte'

  let { productionId }: ViewProps = $props()
  let attempt = $state(0)
  // Entering the Bench opens it anew: the package may have been changed meanwhile.
  const opening = $derived(attempt + router.queries >= 0 ? openBench(productionId) : null)

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
    <BenchView bench={opened.bench} productionName={opened.production?.name ?? ''} />
  {:else if opened?.problem}
    {@const { production, problem } = opened}
    {#if production && problem.code === 'nothing_yet'}
      <ViewFrame
        productionId={production.id}
        productionName={production.name}
        current="bench"
        heading="Bench"
      >
        <Begin productionId={production.id} what="The Bench" />
      </ViewFrame>
    {:else}
      <Failed {problem} onretry={() => (attempt += 1)}><a class="knob" href="/">To the productions</a></Failed
      >
    {/if}
  {/if}
{/await}
