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
  /** Not in an await block: what one resolves to would never be let go of. */
  let opened = $state.raw<Awaited<ReturnType<typeof openBench>> | null>(null)

  // Entering the Bench opens it anew: the package may have been changed meanwhile. A Bench that is left has to keep what still
  // waits, also one that was still being opened.
  $effect(() => {
    void (attempt + router.queries)
    let left = false
    void openBench(productionId).then((found) => {
      if (left) found.bench?.close()
      else opened = found
    })
    return () => {
      left = true
      untrack(() => opened?.bench?.close())
      opened = null
    }
  })
</script>

{#if !opened}
  <p class="waiting soft">Opening the production…</p>
{:else if opened.bench}
  <BenchView bench={opened.bench} productionName={opened.production?.name ?? ''} />
{:else if opened.problem}
  {@const { production, problem } = opened}
  {#if production && problem.code === 'nothing_yet'}
    <ViewFrame productionId={production.id} productionName={production.name} current="bench" heading="Bench">
      <Begin productionId={production.id} what="The Bench" />
    </ViewFrame>
  {:else}
    <Failed {problem} onretry={() => (attempt += 1)}><a class="knob" href="/">To the productions</a></Failed>
  {/if}
{/if}
