<script lang="ts">
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { pathTo } from '../../lib/router.svelte'
  import { toQuery } from '../../lib/address'
  import { asOnBench, KitLook } from '../../lib/kit.svelte'
  import type { CoverageAsk, CoverageOption, CoverageView } from '../../lib/types'
  import CircleAlongPlot from '../../parts/drawings/CircleAlongPlot.svelte'
  import CoverageTable from '../../parts/kit/CoverageTable.svelte'
  import CoverageVerdict from '../../parts/kit/CoverageVerdict.svelte'
  import KitSettings from '../../parts/kit/KitSettings.svelte'
  import LensAsSet from '../../parts/kit/LensAsSet.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'
  import WindowMapDrawing from '../../parts/drawings/WindowMapDrawing.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const look = new KitLook<CoverageAsk, CoverageView>(
    productionId,
    (bench) => ({
      ...asOnBench(bench),
      mounted: 'simplest',
      format_id: bench.format_id,
      lens_id: bench.lens_id,
      focal_mm: bench.focal_mm,
      stop: bench.stop,
      focus_m: null,
      adapter_ids: null,
    }),
    (ask, signal) => client.viewCoverage(productionId, ask, signal),
  )
  const answer = $derived(look.answer)
  const place = $derived(
    look.equipment?.bodies
      .flatMap((body) => body.modes.flatMap((mode) => mode.formats.map((format) => ({ body, mode, format }))))
      .find((p) => p.format.id === look.ask?.format_id),
  )
  const lens = $derived(
    look.equipment?.lens_sets.flatMap((set) => set.lenses).find((l) => l.id === look.ask?.lens_id),
  )

  /** Try an option here: what it sets is a part of the question. */
  function take(option: CoverageOption) {
    look.change(option.set as Partial<CoverageAsk>)
  }
  const benchHref = $derived(
    look.bench && look.ask && answer
      ? `${pathTo(productionId, 'bench')}?${toQuery({
          ...look.bench,
          lens_id: look.ask.lens_id,
          format_id: look.ask.format_id,
          adapter_id: answer.lens.adapter_ids[0] ?? null,
          second_adapter_id: answer.lens.adapter_ids[1] ?? null,
          focal_mm: look.ask.focal_mm ?? null,
          stop: look.ask.stop ?? null,
          crop_ids: look.ask.crop_ids ?? [],
        })}`
      : '',
  )
  function firstOf(modeId: number) {
    const mode = look.equipment?.bodies.flatMap((b) => b.modes).find((m) => m.id === modeId)
    const first = mode?.formats[0]
    if (first) look.change({ format_id: first.id })
  }
</script>

<NoticeBar what="package" problem={look.problem} onresolve={() => {}} onundo={null} />
{#if look.ask && look.equipment}
  <KitSettings
    ask={look.ask}
    package={look.equipment}
    ways={false}
    parts={false}
    onchange={(part) => look.change(part)}
  />
  <LensAsSet
    ask={look.ask}
    package={look.equipment}
    {lens}
    shown={answer?.lens ?? null}
    onchange={(part) => look.change(part)}
  />
  {#if answer && place && lens}
    <div class="upper">
      <div class="left">
        <WindowMapDrawing map={answer.map} bodyName={place.body.name} onchoose={firstOf} />
        {#if answer.along}<CircleAlongPlot
            along={answer.along}
            onset={(at) =>
              look.change(
                answer.along?.by === 'focal'
                  ? { focal_mm: at }
                  : answer.along?.by === 'stop'
                    ? { stop: at }
                    : { focus_m: at },
              )}
          />{/if}
      </div>
      <div class="right">
        <CoverageVerdict {answer} lens={lens.name} format={place.format.name} href={benchHref} ontry={take} />
        <CoverageTable
          lenses={answer.lenses}
          format={place.format.name}
          chosen={lens.id}
          onchange={(part) => look.change(part)}
        />
      </div>
    </div>
  {/if}
{/if}

<style>
  .upper {
    display: grid;
    grid-template-columns: 430px minmax(0, 1fr);
    gap: 10px 14px;
  }
  .left,
  .right {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
    align-content: start;
    min-width: 0;
  }
  .left > :global(figure:first-child) {
    height: 350px;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  @media (max-width: 1000px) {
    .upper {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
