<script lang="ts">
  import { openBench } from './lib/bench.svelte'
  import BenchView from './views/BenchView.svelte'

  const opening = openBench()
</script>

{#await opening}
  <p class="waiting soft">Opening the production…</p>
{:then { bench, name, problem }}
  {#if bench}
    <BenchView {bench} productionName={name ?? ''} />
  {:else}
    <p class="waiting fault" role="alert">
      {problem?.message} <button class="knob" onclick={() => location.reload()}>Try again</button>
    </p>
  {/if}
{/await}

<style>
  .waiting {
    padding: 2rem;
  }
</style>
