<script lang="ts">
  import type { BenchTabProps } from '../../lib/benchTabs'
  import * as client from '../../lib/client'
  import { follow } from '../../lib/look.svelte'
  import type { DepthAsk } from '../../lib/types'
  import DepthAsks, { type DepthAsked } from '../../parts/bench/DepthAsks.svelte'
  import DepthPlots from '../../parts/bench/DepthPlots.svelte'
  import DepthTable from '../../parts/bench/DepthTable.svelte'

  let {
    productionId,
    state: bench,
    names,
    onchange,
  }: Pick<BenchTabProps, 'productionId' | 'state' | 'names' | 'onchange'> = $props()

  let copied = $state('')
  // What is asked begins around the subject as it stood when the tab was opened.
  // svelte-ignore state_referenced_locally
  const { subject_m } = bench
  let asked = $state.raw<DepthAsked>({
    hold_near_m: Number((subject_m * 0.8).toFixed(2)),
    hold_far_m: Number((subject_m * 1.4).toFixed(2)),
    background_m: null,
    softness_percent: 2,
  })
  const ask = (): DepthAsk => ({ state: bench, ...asked })
  const look = follow(ask, (asked, signal) => client.viewDepth(productionId, asked, signal))

  const view = $derived(look.answer)
  const marks = $derived(view?.table?.marks ?? 'T')

  /** The look's rule becomes that of the production, and the look goes by it. */
  async function makeProductions() {
    const kept = await client.readSettings(productionId)
    const problem =
      kept.problem ??
      (
        await client.writeSettings(productionId, kept.data.version, {
          ...kept.data.settings,
          coc: bench.coc ?? kept.data.settings.coc,
        })
      ).problem
    copied = problem?.message ?? ''
    if (!problem) onchange({ coc: null })
  }

  async function copyTable() {
    const { data, problem } = await client.depthTable(productionId, ask())
    if (data === undefined) copied = problem.message
    else {
      await navigator.clipboard.writeText(data)
      copied = 'The table is on the clipboard.'
    }
  }
</script>

<section aria-label="Depth" class="depth">
  {#if look.problem?.faults.length === 0}<p class="bad" role="alert">{look.problem.message}</p>{/if}
  {#if view}
    <p>
      {view.rule.text}
      <span class="soft"
        >{view.rule.own ? 'This look has a rule of its own.' : "It is the production's rule."}</span
      >
      {#if view.rule.own}<button class="knob small" onclick={() => void makeProductions()}
          >Make it the production's rule</button
        >{/if}
      {view.aperture.text}
    </p>
    <DepthAsks
      {view}
      state={bench}
      {marks}
      {asked}
      fault={look.problem?.faults.find((f) => f.field === 'softness_percent')?.rule}
      read={client.readDistance}
      onask={(part) => (asked = { ...asked, ...part })}
      {onchange}
    />
    {#if view.curves.length}<DepthPlots {view} state={bench} {names} {marks} />{/if}
    {#if view.table}
      <DepthTable table={view.table} unit={bench.unit} {copied} oncopy={() => void copyTable()} />
    {/if}
  {/if}
</section>

<style>
  .depth {
    display: grid;
    gap: 10px;
    grid-template-columns: minmax(0, 1fr);
  }
</style>
