<script lang="ts">
  import type { BenchTabProps } from '../../lib/benchTabs'
  import * as client from '../../lib/client'
  import { follow } from '../../lib/look.svelte'
  import type { ExposureView, Light } from '../../lib/types'
  import LedgerControl from '../../parts/bench/LedgerControl.svelte'
  import LightTables from '../../parts/bench/LightTables.svelte'
  import LedgerDrawing from '../../parts/drawings/LedgerDrawing.svelte'

  let {
    productionId,
    state: bench,
    view: benchView,
    onchange,
  }: Pick<BenchTabProps, 'productionId' | 'state' | 'view' | 'onchange'> = $props()
  const stops = $derived(benchView.lens.stops)

  const look = follow(
    () => bench,
    (state, signal) => client.viewExposure(productionId, state, signal),
  )

  const view = $derived(look.answer)
  const light = $derived(bench.light)
</script>

{#snippet control(row: ExposureView['ledger'][number])}
  {#if view}<LedgerControl {row} {view} {light} {stops} faults={look.faults} {onchange} />{/if}
{/snippet}

<section aria-label="Exposure" class="light">
  {#if look.problem?.faults.length === 0}<p class="bad" role="alert">{look.problem.message}</p>{/if}
  {#if view}
    <div class="main">
      <LedgerDrawing
        ledger={view.ledger}
        off={view.off_stops}
        offText={view.off_text}
        balanced={view.balanced}
        {control}
      />
      <p class="balance" data-testid="balance">
        <span class={view.balance.balanced ? 'ok' : 'warn'}>{view.balance.text}</span>
        {#if view.balance.next}<span class="soft">{view.balance.next}</span>{/if}
        {#if view.balance.changed}
          <button
            class="knob"
            onclick={() =>
              view &&
              onchange({
                light: view.balance.light as Light,
                stop: Number(view.balance.stop.toPrecision(6)),
              })}>Set it so</button
          >
        {/if}
      </p>
      {#each view.notes as note (note)}<p class="warn">{note}</p>{/each}
      <p class="soft">
        Incident light after ISO 2720, C = 250. What is held stays; what may move does so in its order, to
        real values of the body, the filters of the kit and the lens's marks; the light is set exactly.
        Cropping changes no exposure.
      </p>
    </div>
    <LightTables {view} fps={bench.fps} />
  {/if}
</section>

<style>
  .light {
    display: grid;
    gap: 10px 26px;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: start;
  }
  .main {
    display: grid;
    gap: 6px;
    grid-template-columns: minmax(0, 1fr);
    min-width: 0;
    overflow-x: auto;
  }
  .balance {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: center;
  }
  .bad {
    grid-column: 1 / -1;
  }
  @media (max-width: 1000px) {
    .light {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }
    .main {
      grid-column: 1 / -1;
    }
  }
  @media (max-width: 560px) {
    .light {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
