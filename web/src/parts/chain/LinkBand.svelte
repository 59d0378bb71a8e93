<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { adapterOptions, namedOptions } from '../../lib/options'
  import { factor, stops } from '../../lib/format'
  import type { BenchState, BenchView, FormatPlace, Lens, Package, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import LensChoice from './LensChoice.svelte'
  import { narrow } from '../../lib/narrow.svelte'
  import LinkCell from './LinkCell.svelte'
  import LinkChips from './LinkChips.svelte'
  import LinkSum from './LinkSum.svelte'
  import { aspectOptions, PATH, TITLES, type LinkName } from './links'
  import LinkTray from './LinkTray.svelte'
  import { chipWords, summaries } from './summaries'
  import { asItGoesOn, withLens, withMode } from './choices'

  interface Props {
    state: BenchState
    view: BenchView
    package: Package
    place: FormatPlace
    lens: Lens
    places: Map<number, FormatPlace>
    referenceName: string
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let {
    state: bench,
    view,
    package: equipment,
    place,
    places,
    lens,
    referenceName,
    read,
    onchange,
  }: Props = $props()

  let open = $state<LinkName | null>(null)
  const toggle = (name: LinkName) => (open = open === name ? null : name)

  const modes = $derived(
    equipment.bodies.flatMap((body) => namedOptions(body.modes, `${body.maker} ${body.name}`)),
  )
  const adapter = $derived(equipment.adapters.find((a) => a.id === bench.adapter_id))

  const said = $derived(summaries(bench, view, equipment, place, lens))
  /** On a telephone only the link that is being set has its cell. */
  const shown = (name: LinkName) => !narrow.current || open === name
  /** What every cell of the band is given. */
  const cell = (name: LinkName, effect: string, acts = true) => ({
    name,
    title: TITLES[name],
    effect,
    acts,
    summary: said[name],
    open: open === name,
    ontoggle: toggle,
  })
  const crops = (name: 'readout' | 'recording' | 'delivery') => {
    const times = view.links[name].factor
    return cell(name, factor(times), Math.abs(times - 1) > 5e-4)
  }

  const chooseLens = (id: number) => onchange(withLens(equipment, view, lens, id))
</script>

{#snippet sum()}
  <LinkSum
    {view}
    formatId={bench.format_id}
    {referenceName}
    unit={bench.unit}
    onlens={(id) => onchange(asItGoesOn(view, id))}
  />
{/snippet}

<div class="band-with-tray">
  {#if narrow.current}
    <div class="stays">
      <LinkChips words={chipWords(bench, view, equipment, place, lens)} {open} ontoggle={toggle} />
      {@render sum()}
    </div>
  {/if}
  {#if !narrow.current || open}
    <ol id="link-cell" class="band" aria-label={narrow.current ? 'What is set' : PATH}>
      {#if shown('subject')}
        <LinkCell {...cell('subject', view.links.subject.sharp === false ? 'soft' : '')}>
          <DistanceField
            id="subject-distance"
            label="Subject distance"
            metres={bench.subject_m}
            unit={bench.unit}
            size={9}
            {read}
            onchange={(subject_m, kind) => onchange({ subject_m }, kind)}
          />
        </LinkCell>
      {/if}
      {#if shown('lens')}
        <LinkCell {...cell('lens', lens.squeeze === 1 ? '' : factor(view.links.lens.factor))}>
          <LensChoice state={bench} {view} package={equipment} {lens} onlens={chooseLens} {onchange} />
        </LinkCell>
      {/if}
      {#if shown('adapter')}
        <LinkCell
          {...cell(
            'adapter',
            adapter && adapter.magnification !== 1 ? `${stops(-view.lens.adapter_stops)} stop` : '',
          )}
        >
          <Choice
            label="Adapter"
            grow
            search
            options={adapterOptions(equipment.adapters, 'none')}
            value={bench.adapter_id ?? null}
            onchange={(adapter_id) => onchange({ adapter_id })}
          />
        </LinkCell>
      {/if}
      {#if shown('readout')}
        <LinkCell {...crops('readout')}>
          <Choice
            label="Scan mode"
            grow
            search
            options={modes}
            value={place.mode.id}
            onchange={(id) => onchange(withMode(equipment, id))}
          />
        </LinkCell>
      {/if}
      {#if shown('recording')}
        <LinkCell {...crops('recording')}>
          <Choice
            label="Recording format"
            grow
            options={namedOptions(place.mode.formats)}
            value={bench.format_id}
            onchange={(format_id) => onchange({ format_id })}
          />
        </LinkCell>
      {/if}
      {#if shown('delivery')}
        <LinkCell {...crops('delivery')}>
          <Choice
            label="Delivered aspect"
            grow
            figure
            options={aspectOptions(bench.delivery.aspect)}
            value={bench.delivery.aspect ?? null}
            onchange={(aspect) => onchange({ delivery: { ...bench.delivery, aspect } })}
          />
        </LinkCell>
      {/if}
    </ol>
  {/if}
  {#if !narrow.current}{@render sum()}{/if}
  {#if open}
    <div class="tray">
      <LinkTray
        package={equipment}
        {places}
        onlens={chooseLens}
        link={open}
        state={bench}
        {view}
        {place}
        {lens}
        {read}
        {onchange}
      />
    </div>
  {/if}
</div>

<style>
  .band-with-tray {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 6px 10px;
  }
  .band {
    display: grid;
    grid-template-columns: 0.85fr 1.4fr 1fr 1.1fr 1.05fr 0.92fr;
    gap: 0;
    min-height: 84px;
  }
  .band > :global(* + *) {
    margin-left: -7px;
  }
  .tray {
    grid-column: 1 / -1;
  }
  @media (max-width: 1100px) {
    .band-with-tray {
      grid-template-columns: 1fr;
    }
    .band {
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 6px 0;
    }
    .band > :global(* + *) {
      margin-left: 0;
    }
  }
  @media (max-width: 560px) {
    /* What stays in sight stays for the whole of the page. */
    .band-with-tray {
      display: contents;
    }
    .band {
      grid-template-columns: minmax(0, 1fr);
      min-height: 0;
    }
    .stays {
      position: sticky;
      top: 0;
      z-index: 6;
      display: grid;
      gap: 4px;
      padding-block: 4px;
      background: var(--ground);
    }
  }
</style>
