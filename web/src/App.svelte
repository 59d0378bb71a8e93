<script lang="ts">
  import { openBench, type Bench } from './lib/bench.svelte'
  import { router } from './lib/router.svelte'
  import BenchView from './views/BenchView.svelte'

  const place = $derived(router.place)
  // Not the place itself: a step within a view must not open the view anew.
  const view = $derived(place.view)
  const productionId = $derived(place.productionId ?? 0)
  // Entering the Bench opens it anew: the package may have been changed meanwhile.
  const opening = $derived(view === 'bench' ? openBench(productionId) : null)
  const compareView = $derived(view === 'compare' ? import('./views/CompareView.svelte') : null)
  const packageView = $derived(view === 'package' ? import('./views/PackageView.svelte') : null)
  let shown: Bench | undefined

  // A Bench that is left has to keep what still waits.
  $effect(() => {
    const pending = opening
    void pending?.then(({ bench }) => (shown = bench))
    return () => shown?.close()
  })
</script>

<svelte:document onclick={(event) => router.follow(event)} />

{#if opening}
  {#await opening}
    <p class="waiting soft">Opening the production…</p>
  {:then { bench, name, problem }}
    {#if bench}
      <BenchView {bench} productionName={name ?? ''} />
    {:else}
      <p class="waiting fault" role="alert">
        {problem?.message} <button class="knob" onclick={() => location.reload()}>Try again</button>
        {#if productionId}<a class="knob" href="/p/{productionId}/package">Go to the package</a>{/if}
      </p>
    {/if}
  {/await}
{:else if compareView}
  {#await compareView then { default: CompareView }}
    {#key productionId}
      <CompareView {productionId} rest={place.rest} />
    {/key}
  {/await}
{:else if packageView}
  {#await packageView then { default: PackageView }}
    {#key productionId}
      <PackageView {productionId} rest={place.rest} />
    {/key}
  {/await}
{/if}

<style>
  .waiting {
    padding: 2rem;
  }
</style>
