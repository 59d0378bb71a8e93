<script lang="ts">
  import type { SectionProps } from '../../lib/views'
  import { toQuery } from '../../lib/address'
  import * as client from '../../lib/client'
  import { faultsOf } from '../../lib/faults'
  import { distanceWithUnit } from '../../lib/format'
  import { KitLook } from '../../lib/kit.svelte'
  import { pathTo } from '../../lib/router.svelte'
  import type { Shot, Worth, WorthAsk, WorthRow } from '../../lib/types'
  import { asInList, ownShot } from '../../lib/worth'
  import WorthAsked from '../../parts/kit/WorthAsked.svelte'
  import WorthSteps from '../../parts/kit/WorthSteps.svelte'
  import WorthTable from '../../parts/kit/WorthTable.svelte'
  import Begin from '../../parts/page/Begin.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const look = new KitLook<WorthAsk, Worth>(
    id,
    // As near as the Bench stands: from any distance the longest lens would always be the softest.
    (bench) => ({
      shot: ownShot({
        framing: 'chest',
        distance: `up to ${distanceWithUnit(bench.subject_m, bench.unit)}`,
      }),
    }),
    (ask, signal) => client.readWorth(id, ask, signal),
  )
  let shots = $state.raw<Shot[]>([])
  void client.readShots(id).then(({ data }) => (shots = data?.document.shots ?? []))

  /** The shot of the list that is asked about, as it stands there: a sheet is of one. */
  const listed = $derived(shots.find((shot) => look.ask && asInList(look.ask.shot, shot)))
  const faults = $derived(faultsOf(look.problem))
  /** What cannot be read of the shot, by its cell. */
  const cellFaults = $derived(
    Object.fromEntries((look.answer?.faults ?? []).map((fault) => [fault.field, fault.rule])),
  )
  /** The Bench as a choice is set; none of what the package does not have. */
  function hrefOf(row: WorthRow) {
    const { choice } = row
    const here = look.equipment?.bodies.some((body) => body.name === choice.body)
    const carried = look.equipment?.lens_sets.some((set) => set.name === choice.lens_set)
    if (!look.bench || !here || !carried) return null
    const set = {
      ...look.bench,
      format_id: choice.format_id,
      lens_id: choice.lens_id,
      adapter_id: choice.adapter_ids[0] ?? null,
      second_adapter_id: choice.adapter_ids[1] ?? null,
      focal_mm: choice.is_zoom ? choice.focal_mm : null,
      stop: choice.stop,
      subject_m: choice.distance_m ?? look.bench.subject_m,
      focus_m: null,
      fps: choice.fps,
      crop_ids: choice.crop_ids,
    }
    return `${pathTo(id, 'bench')}?${toQuery(set)}`
  }
</script>

<NoticeBar
  what="package"
  problem={Object.keys(faults).length ? null : look.problem}
  onresolve={() => {}}
  onundo={null}
/>
{#if look.ask && look.equipment && look.bench}
  <WorthAsked
    ask={look.ask}
    {shots}
    unit={look.bench.unit}
    planned={look.equipment.plan != null}
    hireDays={look.answer?.hire_days ?? null}
    fault={(path) => cellFaults[path] ?? faults[path]}
    read={client.readDistance}
    onchange={(part) => look.change(part)}
  />
  {#if look.answer}
    <div class:stale={look.problem !== null}>
      <p class="words">{look.answer.told.join(' ')}</p>
      {#if look.answer.unpriced.length}
        <p class="soft words">
          Prices are written under <a href={pathTo(id, 'kit')}>Kit, Things and prices</a>.
        </p>
      {/if}
      <WorthSteps answer={look.answer} unit={look.bench.unit} />
      {#if listed}
        <p class="no-print">
          <a class="link" href="{pathTo(id, 'sheets')}/of-worth?which={encodeURIComponent(listed.name)}"
            >As a sheet, to print or to send</a
          >
        </p>
      {/if}
      <WorthTable answer={look.answer} unit={look.bench.unit} {hrefOf} />
    </div>
  {/if}
{:else if look.equipment && !look.equipment.bodies.length}<Begin {productionId} what="This" />{/if}

<style>
  .stale {
    opacity: 0.55;
  }
  .words {
    max-width: 75rem;
    margin-block: 6px;
  }
</style>
