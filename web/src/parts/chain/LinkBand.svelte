<script lang="ts">
  import { factor, stops } from '../../lib/format'
  import type { BenchState, BenchView, FormatPlace, Lens, Package, Problem, Unit } from '../../lib/types'
  import Picker from '../controls/Picker.svelte'
  import DistanceField from '../fields/DistanceField.svelte'
  import LensChoice from './LensChoice.svelte'
  import LinkCell from './LinkCell.svelte'
  import LinkSum from './LinkSum.svelte'
  import { ASPECTS, TITLES, aspectLabel, type LinkName } from './links'
  import LinkTray from './LinkTray.svelte'
  import { summaries } from './summaries'
  import { withLens, withMode } from './choices'

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
    equipment.bodies.flatMap((body) =>
      body.modes.map((mode) => ({
        value: String(mode.id),
        label: mode.name,
        group: `${body.maker} ${body.name}`,
      })),
    ),
  )
  const adapter = $derived(equipment.adapters.find((a) => a.id === bench.adapter_id))

  const said = $derived(summaries(bench, view, equipment, place, lens))
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

<div class="band-with-tray">
  <ol class="band" aria-label="The six links of the light's path">
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
    <LinkCell {...cell('lens', lens.squeeze === 1 ? '' : factor(view.links.lens.factor))}>
      <LensChoice state={bench} {view} package={equipment} {lens} onlens={chooseLens} {onchange} />
    </LinkCell>
    <LinkCell
      {...cell(
        'adapter',
        adapter && adapter.magnification !== 1 ? `${stops(-view.lens.adapter_stops)} stop` : '',
      )}
    >
      <select
        class="set grow"
        aria-label="Adapter"
        value={String(bench.adapter_id ?? '')}
        onchange={(event) => onchange({ adapter_id: Number(event.currentTarget.value) || null })}
      >
        <option value="">none</option>
        {#each equipment.adapters as option (option.id)}<option value={String(option.id)}
            >{option.name}</option
          >{/each}
      </select>
    </LinkCell>
    <LinkCell {...crops('readout')}>
      <Picker
        label="Scan mode"
        options={modes}
        value={String(place.mode.id)}
        onchange={(id) => onchange(withMode(equipment, Number(id)))}
      />
    </LinkCell>
    <LinkCell {...crops('recording')}>
      <select
        class="set grow"
        aria-label="Recording format"
        value={String(bench.format_id)}
        onchange={(event) => onchange({ format_id: Number(event.currentTarget.value) })}
      >
        {#each place.mode.formats as format (format.id)}<option value={String(format.id)}
            >{format.name}</option
          >{/each}
      </select>
    </LinkCell>
    <LinkCell {...crops('delivery')}>
      <select
        class="set figure grow"
        aria-label="Delivered aspect"
        value={String(bench.delivery.aspect ?? '')}
        onchange={(event) =>
          onchange({ delivery: { ...bench.delivery, aspect: Number(event.currentTarget.value) || null } })}
      >
        {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option
          >{/each}
        {#if !ASPECTS.some((a) => aspectLabel(a.aspect) === aspectLabel(bench.delivery.aspect))}
          <option value={String(bench.delivery.aspect)}>{aspectLabel(bench.delivery.aspect)}</option>
        {/if}
      </select>
    </LinkCell>
  </ol>
  <LinkSum {view} formatId={bench.format_id} {referenceName} />
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
    grid-template-columns: 1fr auto;
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
  .grow {
    flex: 1;
    min-width: 0;
    width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    text-align: left;
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
    .band {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
</style>
