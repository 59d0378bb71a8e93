<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import Segments from '../controls/Segments.svelte'
  import { formatOptions, wordOptions } from '../../lib/options'
  import type { FieldAnswer, FieldAsk, Package, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import FieldAnswers from './FieldAnswers.svelte'

  interface Props {
    ask: FieldAsk
    answer: FieldAnswer | null
    package: Package
    unit: Unit
    fault: (path: string) => string | undefined
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<FieldAsk>) => void
  }
  let { ask, answer, package: equipment, unit, fault, read, onchange }: Props = $props()

  const FRAMINGS = ['full figure', 'knees', 'waist', 'chest', 'face', 'eyes'] as const
  const FRAMING_OPTIONS = [
    ...wordOptions(FRAMINGS, (name) =>
      ['full figure', 'eyes', 'face'].includes(name) ? name : `to the ${name}`,
    ),
    ...wordOptions(['width', 'height'], (side) => `a ${side}`),
  ]
  const KINDS = [
    { value: 'distance', label: 'how far' },
    { value: 'lens', label: 'which lens' },
    { value: 'format', label: 'which format' },
  ] as const
  const person = $derived(ask.person)
  const framing = $derived(person ? (person.framing ?? 'chest') : ask.width_m != null ? 'width' : 'height')
  const lens = $derived(equipment.lens_sets.flatMap((set) => set.lenses).find((l) => l.id === ask.lens_id))
  const lenses = $derived(
    equipment.lens_sets.flatMap((set) =>
      set.lenses.map((l) => ({
        value: l.id,
        label: l.name,
        group: set.name,
        disabled: l.projection !== 'rectilinear',
      })),
    ),
  )
  const room = $derived(ask.room ?? {})

  function setFraming(value: string) {
    const found = FRAMINGS.find((f) => f === value)
    const { height_m = 1.7, headroom = 0.08 } = person ?? {}
    if (found) onchange({ person: { framing: found, height_m, headroom }, width_m: null, height_m: null })
    else {
      const size = answer?.wanted.field_m ?? 1
      onchange({
        person: null,
        width_m: value === 'width' ? size : null,
        height_m: value === 'height' ? size : null,
      })
    }
  }
</script>

<section class="panel" aria-label="Field and distance">
  <h2>Field and distance</h2>
  <div class="bar">
    <span class="item"
      ><span class="soft">Frame</span>
      <Choice label="Wanted framing" options={FRAMING_OPTIONS} value={framing} onchange={setFraming} />
      {#if person}
        <span class="soft">of a person</span>
        <DistanceField
          label="Height of the person"
          metres={person.height_m ?? 1.7}
          {unit}
          {read}
          onchange={(height_m) => onchange({ person: { ...person, height_m } })}
        />
        <span class="soft">headroom</span><EntryField
          label="Headroom in per cent"
          kind="number"
          size={3}
          value={person.headroom == null ? null : Math.round(person.headroom * 1000) / 10}
          fault={fault('person.headroom')}
          oninput={(value) =>
            onchange({
              person: { ...person, headroom: typeof value === 'number' ? value / 100 : (value as number) },
            })}
        />%
      {:else}
        <DistanceField
          label="Wanted size of the field"
          metres={ask.width_m ?? ask.height_m ?? 1}
          {unit}
          {read}
          onchange={(size) => onchange(ask.width_m != null ? { width_m: size } : { height_m: size })}
        />
      {/if}</span
    >
    <span class="item"
      ><span class="soft">Find</span>
      <Segments
        label="What is asked"
        options={KINDS}
        value={ask.find ?? 'distance'}
        onchange={(find) => onchange({ find })}
      /></span
    >
    {#if ask.find !== 'lens'}
      <label class="item"
        ><span class="soft">with</span>
        <Choice
          label="Lens of the field"
          search
          options={lenses}
          value={ask.lens_id ?? null}
          onchange={(lens_id) => onchange({ lens_id, focal_mm: null, adapter_ids: null })}
        />
        {#if lens && lens.focal_max_mm > lens.focal_min_mm}
          at <EntryField
            label="Focal length of the zoom"
            kind="number"
            size={5}
            value={ask.focal_mm ?? lens.focal_min_mm}
            fault={fault('focal_mm')}
            oninput={(value) => onchange({ focal_mm: value as number })}
          />mm
        {/if}</label
      >
      {#if fault('lens_id')}<span class="fault" role="alert">{fault('lens_id')}</span>{/if}
    {/if}
    {#if ask.find !== 'format'}
      <label class="item"
        ><span class="soft">in</span>
        <Choice
          label="Format of the field"
          search
          options={formatOptions(equipment.bodies)}
          value={ask.format_id ?? null}
          onchange={(format_id) => onchange({ format_id })}
        /></label
      >
    {/if}
    {#if ask.find !== 'distance'}
      <span class="item"
        ><span class="soft">from</span><DistanceField
          label="Distance of the field"
          metres={ask.distance_m ?? 3}
          {unit}
          {read}
          onchange={(distance_m) => onchange({ distance_m })}
        /></span
      >
    {/if}
  </div>
  <div class="bar">
    <label class="item"
      ><input
        type="checkbox"
        checked={room.length_m != null}
        onchange={(event) =>
          onchange({ room: { ...room, length_m: event.currentTarget.checked ? 5 : null } })}
      /> in a room</label
    >
    {#if room.length_m != null}
      {#each [['length_m', 'Length of the room', 'from wall to wall'], ['behind_subject_m', 'Room behind the subject', 'behind the subject'], ['behind_camera_m', 'Room behind the sensor', 'camera and operator take']] as const as [field, label, told] (field)}
        <span class="item"
          ><span class="soft">{told}</span><DistanceField
            {label}
            metres={room[field] ?? (field === 'behind_camera_m' ? 0.6 : 0.5)}
            {unit}
            {read}
            onchange={(value) => onchange({ room: { ...room, [field]: value } })}
          /></span
        >
      {/each}
    {/if}
    {#if fault('room.length_m')}<span class="fault" role="alert">The room {fault('room.length_m')}</span>{/if}
  </div>
  {#if answer}
    <FieldAnswers {ask} {answer} {unit} />
  {/if}
</section>
