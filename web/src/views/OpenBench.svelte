<script lang="ts">
  import { untrack } from 'svelte'
  import { openBench } from '../lib/bench.svelte'
  import { router } from '../lib/router.svelte'
  import type { ViewProps } from '../lib/views'
  import Begin from '../parts/page/Begin.svelte'
  import Failed from '../parts/page/Failed.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import BenchView from './BenchView.svelte'

  let { productionId }: ViewProps = $props()
  let attempt = $state(0)
  /**
   * The one that is open, or none yet. Not in an await block: what one resolves to would never be let go of; and in a list, so that
   * a view that goes still has its own.
   */
  let opened = $state.raw<Awaited<ReturnType<typeof openBench>>[]>([])

  // Entering the Bench opens it anew: the package may have been changed meanwhile. A Bench that is left has to keep what still
  // waits, also one that was still being opened.
  $effect(() => {
    void (attempt + router.queries)
    let left = false
    void openBench(productionId).then((found) => {
      if (left) found.bench?.close()
      else opened = [found]
    })
    return () => {
      left = true
      untrack(() => opened.forEach((found) => found.bench?.close()))
      opened = []
    }
  })
</script>

{#each opened as found (found)}
  {#if found.bench}
    <BenchView bench={found.bench} productionName={found.production?.name ?? ''} />
  {:else if found.problem}
    {@const { production, problem } = found}
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
{:else}
  <p class="waiting soft">Opening the production…</p>
{/each}
