<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { adapterOptions, formatOptions, lensOptions, stopOptions } from '../../lib/options'
  import Close from '@lucide/svelte/icons/x'
  import { aperture, distanceWithUnit } from '../../lib/format'
  import type { Faults } from '../../lib/faults'
  import type { CompareColumn, CompareView, Package, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import NumberField from '../fields/NumberField.svelte'
  import SetupLight from './SetupLight.svelte'

  interface Props {
    index: number
    letter: string
    /** The set-up that the others are held against and matched to. */
    master: string
    column: CompareColumn
    shown: CompareView['columns'][number]
    equipment: Package
    unit: Unit
    faults: Faults
    /** Whether it is as it is set, and not as a case has it. */
    asSet: boolean
    alone: boolean
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<CompareColumn>, kind?: string) => void
    onmatch: () => void
    onmaster: () => void
    ontake: () => void
  }
  let {
    read,
    index,
    letter,
    master,
    column,
    shown,
    equipment,
    unit,
    faults,
    asSet,
    alone,
    onchange,
    onmatch,
    onmaster,
    ontake,
  }: Props = $props()
  const named = $derived(`of ${letter}`)
  const lens = $derived(equipment.lens_sets.flatMap((s) => s.lenses).find((l) => l.id === column.lens_id))
  const fault = (name: string) => faults[`columns[${index}].${name}`]

  /** A lens brings what it is put on this body with. */
  function chooseLens(lensId: number) {
    const [first = null, second = null] = shown.ways.find((w) => w.lens_id === lensId)?.adapter_ids ?? []
    onchange({ lens_id: lensId, focal_mm: null, adapter_id: first, second_adapter_id: second })
  }
</script>

<div class="chain">
  <p class="entries title">
    <span class="letter">{letter}</span>
    <input
      class="set"
      size="12"
      maxlength="60"
      aria-label="Label {named}"
      placeholder={shown.body}
      value={column.label}
      oninput={(event) => onchange({ label: event.currentTarget.value }, 'label')}
    />
    {#if !alone}<button class="knob small no-print" aria-label="Take set-up {letter} out" onclick={ontake}
        ><Close size={14} /></button
      >{/if}
  </p>
  {#if !alone}<p class="entries no-print">
      {#if letter === master}<span class="soft">Master: the others are held to it</span>
      {:else}<button class="knob small" onclick={onmatch}>Match to {master}</button>
        <button class="knob small" aria-label="Make set-up {letter} the master" onclick={onmaster}
          >Make master</button
        >{/if}
    </p>{/if}
  <Choice
    label="Format {named}"
    grow
    search
    options={formatOptions(equipment.bodies, (format, body) => `${format.name}, ${body.name}`)}
    value={column.format_id}
    onchange={(format_id) => onchange({ format_id, crop_ids: [], ei: null })}
  />
  {#if asSet}
    <Choice
      label="Lens {named}"
      grow
      search
      options={lensOptions(equipment.lens_sets)}
      value={column.lens_id}
      onchange={chooseLens}
    />
    <p class="entries">
      {#if lens && lens.focal_max_mm > lens.focal_min_mm}
        <NumberField
          label="Focal length {named}"
          size={5}
          optional
          value={column.focal_mm ?? lens.focal_min_mm}
          fault={fault('focal_mm')}
          onchange={(focal_mm) => onchange({ focal_mm })}
        /> mm
      {/if}
      <Choice
        label="Adapter {named}"
        options={adapterOptions(equipment.adapters, 'no adapter')}
        value={column.adapter_id ?? null}
        onchange={(adapter_id) => onchange({ adapter_id, second_adapter_id: null })}
      />
      {#if column.second_adapter_id !== null}<span class="soft"
          >+ {equipment.adapters.find((a) => a.id === column.second_adapter_id)?.name}</span
        >{/if}
    </p>
    <p class="entries">
      <Choice
        label="Stop {named}"
        figure
        options={stopOptions(shown)}
        value={shown.stop ?? null}
        onchange={(stop) => onchange({ stop })}
      />
      <span class="soft">at</span>
      <DistanceField
        label="Subject distance {named}"
        metres={column.subject_m}
        {unit}
        {read}
        onchange={(subject_m, kind) => onchange({ subject_m }, kind)}
      />
    </p>
  {:else}
    <p class="entries virtual">
      {shown.lens}, <span class="figure">{shown.focal_mm.toFixed(2)} mm</span>
    </p>
    <p class="entries virtual figure">
      {shown.marks}{aperture(shown.stop)} at {distanceWithUnit(shown.subject_m, unit)}
    </p>
  {/if}
  <SetupLight {named} {column} {shown} trims={letter !== master} {fault} {onchange} />
</div>

<style>
  .chain {
    display: grid;
    gap: 2px;
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 4px;
  }
  .title {
    flex-wrap: nowrap;
  }
  .title input {
    flex: 1 1 0;
    min-width: 0;
  }
  .letter {
    font-size: 18px;
    font-weight: 500;
    color: var(--accent);
  }
  .small {
    min-height: 24px;
    padding: 0 0.45rem;
  }
  .virtual {
    color: var(--light);
  }
</style>
