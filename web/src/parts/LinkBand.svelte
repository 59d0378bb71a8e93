<script lang="ts">
  import { depthLike } from '../lib/columns'
  import { aperture, degrees, distanceWithUnit, factor, mm, NONE, rate, stops } from '../lib/format'
  import type { BenchState, BenchView, FormatPlace, Lens, Package, Problem, Unit } from '../lib/types'
  import DistanceField from './DistanceField.svelte'
  import LinkCell from './LinkCell.svelte'
  import { ASPECTS, TITLES, aspectLabel, type LinkName } from './links'
  import LinkTray from './LinkTray.svelte'
  import { COVERAGE } from './mounting'

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

  const row = $derived(view.rows.find((r) => r.format_id === bench.format_id))
  const lensSet = $derived(equipment.lens_sets.find((set) => set.lenses.some((x) => x.id === lens.id)))
  const adapter = $derived(equipment.adapters.find((a) => a.id === bench.adapter_id))
  const cropsOn = $derived(view.crops.filter((crop) => crop.on && crop.reason === null))

  const summaries = $derived<Record<LinkName, string>>({
    subject: bench.focus_m === null ? 'focus on it' : `focus ${distanceWithUnit(bench.focus_m, bench.unit)}`,
    lens: `${lensSet?.name ?? ''}${view.lens.circle_mm ? `, Ø ${mm(view.lens.circle_mm)}` : ''}${lens.squeeze === 1 ? '' : `, ${lens.squeeze}× squeeze`}`,
    adapter: adapter ? `${adapter.lens_mount} to ${adapter.body_mount}` : `${lens.mount} mount`,
    readout: `${place.body.name}, ${mm(view.links.readout.width_mm)} × ${mm(view.links.readout.height_mm)} mm`,
    recording: `${rate(bench.fps)} fps, ${cropsOn.length ? cropsOn.map((c) => c.name.toLowerCase()).join(', ') : 'no crop'}`,
    delivery: `${bench.delivery.long_edge_px ?? '–'} px${bench.delivery.protect ? `, ${Math.round(100 * bench.delivery.protect)} % spare` : ''}`,
  })

  const choices = $derived(new Map(view.kit.map((choice) => [choice.lens_id, choice])))
  const inOrder = (lenses: Lens[]) => lenses.toSorted((a, b) => a.focal_min_mm - b.focal_min_mm)

  /** Another lens of the same mount keeps what it is put on with; otherwise it comes with the least trouble. */
  function chooseLens(lensId: number) {
    const next = equipment.lens_sets.flatMap((set) => set.lenses).find((l) => l.id === lensId)
    const [first = null, second = null] = choices.get(lensId)?.adapter_ids ?? []
    const adapters = next?.mount === lens.mount ? {} : { adapter_id: first, second_adapter_id: second }
    onchange({ lens_id: lensId, focal_mm: null, ...adapters })
  }
  function chooseMode(modeId: number) {
    for (const body of equipment.bodies)
      for (const mode of body.modes) {
        const first = mode.formats[0]
        if (mode.id === modeId && first) onchange({ format_id: first.id })
      }
  }
</script>

<div class="band-with-tray">
  <ol class="band" aria-label="The six links of the light's path">
    <LinkCell
      name="subject"
      title={TITLES.subject}
      effect={view.links.subject.sharp === false ? 'soft' : ''}
      acts={true}
      summary={summaries.subject}
      open={open === 'subject'}
      ontoggle={toggle}
    >
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
    <LinkCell
      name="lens"
      title={TITLES.lens}
      effect={lens.squeeze === 1 ? '' : factor(view.links.lens.factor)}
      acts={true}
      summary={summaries.lens}
      open={open === 'lens'}
      ontoggle={toggle}
    >
      <span class="pair">
        <select
          class="set grow"
          aria-label="Lens"
          value={String(bench.lens_id)}
          onchange={(event) => chooseLens(Number(event.currentTarget.value))}
        >
          {#each equipment.lens_sets as set (set.id)}
            <optgroup label="{set.maker} {set.name}">
              {#each inOrder(set.lenses) as option (option.id)}
                <option value={String(option.id)}
                  >{option.name} {COVERAGE[choices.get(option.id)?.verdict ?? 'unknown'].sign}</option
                >
              {/each}
            </optgroup>
          {/each}
        </select>
        {#if lens.focal_max_mm > lens.focal_min_mm}<span class="figure">{mm(view.lens.focal_mm)}</span>{/if}
        <select
          class="set figure"
          aria-label="Stop"
          value={String(view.lens.stop ?? '')}
          onchange={(event) => onchange({ stop: Number(event.currentTarget.value) })}
        >
          {#each [...new Set([...view.lens.stops, view.lens.stop ?? 0])]
            .filter(Boolean)
            .toSorted((a, b) => a - b) as stop (stop)}
            <option value={String(stop)}>{view.lens.marks}{aperture(stop)}</option>
          {/each}
        </select>
      </span>
    </LinkCell>
    <LinkCell
      name="adapter"
      title={TITLES.adapter}
      effect={adapter && adapter.magnification !== 1 ? `${stops(-view.lens.adapter_stops)} stop` : ''}
      acts={true}
      summary={summaries.adapter}
      open={open === 'adapter'}
      ontoggle={toggle}
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
    <LinkCell
      name="readout"
      title={TITLES.readout}
      effect={factor(view.links.readout.factor)}
      acts={Math.abs(view.links.readout.factor - 1) > 5e-4}
      summary={summaries.readout}
      open={open === 'readout'}
      ontoggle={toggle}
    >
      <select
        class="set grow"
        aria-label="Scan mode"
        value={String(place.mode.id)}
        onchange={(event) => chooseMode(Number(event.currentTarget.value))}
      >
        {#each equipment.bodies as body (body.id)}
          <optgroup label="{body.maker} {body.name}">
            {#each body.modes as mode (mode.id)}<option value={String(mode.id)}>{mode.name}</option>{/each}
          </optgroup>
        {/each}
      </select>
    </LinkCell>
    <LinkCell
      name="recording"
      title={TITLES.recording}
      effect={factor(view.links.recording.factor)}
      acts={Math.abs(view.links.recording.factor - 1) > 5e-4}
      summary={summaries.recording}
      open={open === 'recording'}
      ontoggle={toggle}
    >
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
    <LinkCell
      name="delivery"
      title={TITLES.delivery}
      effect={factor(view.links.delivery.factor)}
      acts={Math.abs(view.links.delivery.factor - 1) > 5e-4}
      summary={summaries.delivery}
      open={open === 'delivery'}
      ontoggle={toggle}
    >
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
  <div class="sum" aria-live="polite">
    <span class="soft">Frames like, on {referenceName}</span>
    <span class="figure accent big">{mm(row?.answer.effective_focal_mm)} mm</span>
    {#if row && depthLike(row) !== NONE}<span
        ><span class="soft">depth like</span> <span class="figure accent">{depthLike(row)}</span></span
      >{/if}
    <span class="figure small"
      >{factor(view.links.sum.factor)} · {degrees(row?.answer.angle_deg.horizontal)} · {view.lens
        .marks}{aperture(view.lens.mounted.t_stop ?? view.lens.mounted.f_number)}</span
    >
  </div>
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
  .pair {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }
  .grow {
    flex: 1;
    min-width: 0;
    width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    text-align: left;
  }
  .sum {
    display: grid;
    align-content: space-between;
    min-width: 158px;
    padding: 6px 0;
    white-space: nowrap;
    font-size: 13px;
  }
  .big {
    font-size: 25px;
    line-height: 1.1;
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
    .sum {
      grid-auto-flow: column;
      justify-content: start;
      align-items: baseline;
      gap: 1rem;
    }
  }
  @media (max-width: 560px) {
    .band {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
    .sum {
      grid-auto-flow: row;
      gap: 0;
    }
  }
</style>
