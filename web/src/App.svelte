<script lang="ts">
  import type { Component } from 'svelte'
  import { router } from './lib/router.svelte'
  import { VIEWS, type ViewProps } from './lib/views'
  import OpenBench from './views/OpenBench.svelte'

  /** All views but the first one that is seen come when they are asked for. */
  const later = import.meta.glob<{ default: Component<ViewProps> }>([
    './views/*View.svelte',
    '!./views/BenchView.svelte',
  ])
  const place = $derived(router.place)
  /** An address without a production that sets the Bench is the Bench of the one that was changed last. */
  const query = $derived(place.view === 'productions' && location.search)
  // Not the place itself: a step within a view must not open the view anew.
  const view = $derived(place.view === 'productions' && query ? 'bench' : place.view)
  const productionId = $derived(place.productionId ?? 0)
  const file = $derived(
    view === 'productions' ? 'ProductionsView' : VIEWS.find((row) => row.name === view)?.file,
  )
  const coming = $derived(later[`./views/${file}.svelte`]?.())
</script>

<svelte:document onclick={(event) => router.follow(event)} />

{#if place.unknown}
  <main class="unknown">
    <h1>There is no page at {router.path}</h1>
    <p>The address may be cut or mistyped. <a class="link" href="/">To the productions</a></p>
  </main>
{:else if coming}
  {#await coming then { default: View }}
    {#key productionId}
      <View {productionId} rest={place.rest} />
    {/key}
  {:catch}
    <main class="unknown" role="alert">
      <p>This view could not be loaded: the server does not answer, or it is another version by now.</p>
      <button class="knob" onclick={() => location.reload()}>Load the page again</button>
    </main>
  {/await}
{:else}
  <OpenBench {productionId} rest={place.rest} />
{/if}

<style>
  .unknown {
    display: grid;
    justify-items: start;
    gap: 0.6rem;
    padding: 2rem;
  }
  h1 {
    font-size: 19px;
    font-weight: 500;
  }
</style>
