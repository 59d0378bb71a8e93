<script lang="ts">
  import type { SectionProps } from '../../lib/views'
  import { onMount } from 'svelte'
  import { toQuery } from '../../lib/address'
  import * as client from '../../lib/client'
  import { pathTo } from '../../lib/router.svelte'
  import { faultsOf } from '../../lib/faults'
  import { fromAddress, toAddress } from '../../lib/finder'
  import { Latest } from '../../lib/latest'
  import type {
    BenchState,
    FinderAnswer,
    FinderAsk,
    Package,
    PackageSettings,
    Problem,
  } from '../../lib/types'
  import FinderRequirements from '../../parts/finder/FinderRequirements.svelte'
  import Begin from '../../parts/page/Begin.svelte'
  import FinderResults from '../../parts/finder/FinderResults.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  let { productionId }: SectionProps = $props()

  let ask = $state.raw<FinderAsk | null>(null)
  let equipment = $state.raw<Package | null>(null)
  let cards = $state.raw<PackageSettings['cards']>([])
  let bench = $state.raw<BenchState | null>(null)
  let answer = $state.raw<FinderAnswer | null>(null)
  let problem = $state.raw<Problem | null>(null)
  const faults = $derived(faultsOf(problem))
  const latest = new Latest(
    () => ask ?? {},
    async (now, signal) => {
      const { data, problem: why } = await client.findFormats(productionId, now, signal)
      if (data) answer = data
      problem = why ?? null
    },
  )

  onMount(async () => {
    const [kit, settings, kept] = await Promise.all([
      client.readPackage(productionId),
      client.readSettings(productionId),
      client.readBench(productionId),
    ])
    problem = kit.problem ?? settings.problem ?? null
    if (!kit.data || !settings.data) return
    equipment = kit.data
    cards = settings.data.settings.cards
    bench = kept.data?.state ?? null
    change(fromAddress(location.search) ?? firstAsk(settings.data.settings))
  })

  /** Begin with the lens of the Bench, the package's wanted rate, and what a picture usually needs. */
  function firstAsk(settings: PackageSettings): FinderAsk {
    return {
      planned: true,
      lens: bench && {
        lens_id: bench.lens_id,
        adapter_id: bench.adapter_id,
        second_adapter_id: bench.second_adapter_id,
        focal_mm: bench.focal_mm,
      },
      // Nothing is a must that nobody asked for.
      rate: { must: false, weight: 1, fps: settings.wanted_fps, interlaced: false },
      delivery: { must: false, weight: 2, raster: [3840, 2160] },
      full_read: { must: false, weight: 1 },
    }
  }

  function change(part: Partial<FinderAsk>) {
    ask = { ...ask, ...part }
    history.replaceState(history.state, '', `?${toAddress(ask)}`)
    latest.want()
  }

  const hrefOf = (format_id: number) => {
    const at = pathTo(productionId, 'bench')
    return bench ? `${at}?${toQuery({ ...bench, format_id })}` : at
  }
</script>

<NoticeBar
  what="package"
  problem={Object.keys(faults).length ? null : problem}
  onresolve={() => {}}
  onundo={null}
/>
{#if ask && equipment}
  <div class="columns">
    <section aria-label="Requirements">
      <h2>What can I shoot this in?</h2>
      <FinderRequirements
        {ask}
        package={equipment}
        {cards}
        fault={(path) => faults[path]}
        onchange={change}
      />
      {#if equipment?.plan != null && !ask.catalogue}
        <label class="over"
          ><input
            type="checkbox"
            checked={ask.planned ?? false}
            onchange={(event) => change({ planned: event.currentTarget.checked })}
          /> Only bodies that the plan carries</label
        >
      {/if}
      <label class="over"
        ><input
          type="checkbox"
          checked={ask.catalogue ?? false}
          onchange={(event) => change({ catalogue: event.currentTarget.checked })}
        /> Look over the whole catalogue as well: what would have to be rented?</label
      >
      <p class="soft small">
        What fails a must is out. Wishes rank what is left: each counts its weight times the share that is
        reached. Equal scores: the sharper read first, then the wider field, more samples, less data.
      </p>
    </section>
    <section aria-label="Answer" class:stale={problem !== null}>
      {#if equipment && !equipment.bodies.length}<Begin {productionId} what="The finder" />
      {:else if answer}<FinderResults {answer} {hrefOf} />{/if}
    </section>
  </div>
{/if}

<style>
  .columns {
    display: grid;
    grid-template-columns: 372px minmax(0, 1fr);
    gap: 22px;
    align-items: start;
  }
  .over {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    padding: 6px 10px;
    font-size: 14.5px;
  }
  .over input {
    flex: none;
  }
  h2 {
    margin-bottom: 4px;
    font-weight: 500;
  }
  .small {
    margin-top: 8px;
    font-size: 13px;
  }
  .stale {
    opacity: 0.55;
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
