<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../lib/client'
  import { recent } from '../lib/recent.svelte'
  import { pathTo, router } from '../lib/router.svelte'
  import type { Problem, Production, ProductionFacts } from '../lib/types'
  import AskField from '../parts/ask/AskField.svelte'
  import NewProduction from '../parts/productions/NewProduction.svelte'
  import ProductionRow from '../parts/productions/ProductionRow.svelte'
  import { largestSensor } from '../parts/productions/windows'
  import ViewFrame from '../parts/page/ViewFrame.svelte'

  let here = $state.raw<Production[] | null>(null)
  let away = $state.raw<Production[]>([])
  let unread = $state.raw<Problem | null>(null)
  /** What was refused of the last thing that was done. */
  let refused = $state.raw<Problem | null>(null)
  const largest = $derived(largestSensor(here ?? []))
  const demo = $derived(here?.find((p) => p.demo))

  async function refresh() {
    const { data, problem } = await client.listProductions()
    unread = problem ?? null
    if (!data) return
    here = data.here
    away = data.removed
    recent.among(data.here.map((p) => p.id))
  }
  onMount(() => void refresh())

  /** Do something to a production, and show what came of it. */
  async function act<T>(doing: Promise<client.Outcome<T>>): Promise<T | undefined> {
    const { data, problem } = await doing
    refused = problem ?? null
    await refresh()
    return data
  }

  async function begin(facts: ProductionFacts) {
    const made = await act(client.addProduction(facts))
    if (made) router.go(pathTo(made.id, 'package', 'bodies', 'new'))
    return made !== undefined
  }

  async function fromFile(file: File) {
    const made = await act(client.readProductionFile(file))
    if (made) router.go(pathTo(made.id, 'package'))
  }
</script>

<ViewFrame heading="Productions" problem={unread} onretry={() => void refresh()} waiting={here === null}>
  <AskField productionId={null} />
  <NewProduction
    problem={refused}
    demoHere={demo !== undefined}
    onbegin={begin}
    onfile={(file) => void fromFile(file)}
    ondemo={() => void act(client.resetDemo())}
  />
  {#if here?.length === 0}
    <p class="soft none">
      No production yet. Give the first one a name and begin with your own camera; or look at the demo.
    </p>
  {/if}
  <ul>
    {#each here ?? [] as production (production.id)}
      <ProductionRow
        {production}
        {largest}
        file={client.productionFileAddress(production.id, true)}
        onfacts={(facts) => void act(client.writeProduction(production.id, production.version, facts))}
        oncopy={(facts) => void act(client.addProduction(facts, production.id))}
        onaway={() => void act(client.removeProduction(production.id, production.version, true))}
      />
    {/each}
  </ul>
  {#if away.length}
    <section aria-labelledby="away">
      <h2 id="away">Put away</h2>
      <ul class="acts">
        {#each away as { id, version, name } (id)}
          <li>
            <button class="knob" onclick={() => void act(client.removeProduction(id, version, false))}
              >Bring {name} back</button
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</ViewFrame>

<style>
  .none {
    padding-block: 1rem;
  }
  h2 {
    padding-block: 0.8rem 0.3rem;
    color: var(--ink-soft);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
</style>
