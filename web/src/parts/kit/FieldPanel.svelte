<script lang="ts">
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
  const KINDS = [
    { value: 'distance', label: 'how far' },
    { value: 'lens', label: 'which lens' },
    { value: 'format', label: 'which format' },
  ] as const
  const person = $derived(ask.person)
  const framing = $derived(person ? (person.framing ?? 'chest') : ask.width_m != null ? 'width' : 'height')
  const lens = $derived(equipment.lens_sets.flatMap((set) => set.lenses).find((l) => l.id === ask.lens_id))
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
      <select
        class="set"
        aria-label="Wanted framing"
        value={framing}
        onchange={(event) => setFraming(event.currentTarget.value)}
      >
        {#each FRAMINGS as name (name)}<option value={name}
            >{name === 'full figure' || name === 'eyes' || name === 'face' ? name : `to the ${name}`}</option
          >{/each}
        <option value="width">a width</option>
        <option value="height">a height</option>
      </select>
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
    <span class="item" role="group" aria-label="What is asked"
      ><span class="soft">Find</span>
      {#each KINDS as { value, label } (value)}<button
          class="knob"
          aria-pressed={ask.find === value}
          onclick={() => onchange({ find: value })}>{label}</button
        >{/each}</span
    >
    {#if ask.find !== 'lens'}
      <label class="item"
        ><span class="soft">with</span>
        <select
          class="set"
          aria-label="Lens of the field"
          value={String(ask.lens_id ?? '')}
          onchange={(event) =>
            onchange({ lens_id: Number(event.currentTarget.value), focal_mm: null, adapter_ids: null })}
        >
          {#each equipment.lens_sets as set (set.id)}
            <optgroup label={set.name}>
              {#each set.lenses as l (l.id)}<option
                  value={String(l.id)}
                  disabled={l.projection !== 'rectilinear'}>{l.name}</option
                >{/each}
            </optgroup>
          {/each}
        </select>
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
        <select
          class="set"
          aria-label="Format of the field"
          value={String(ask.format_id ?? '')}
          onchange={(event) => onchange({ format_id: Number(event.currentTarget.value) })}
        >
          {#each equipment.bodies as body (body.id)}
            <optgroup label={body.name}>
              {#each body.modes.flatMap((m) => m.formats) as f (f.id)}<option value={String(f.id)}
                  >{f.name}</option
                >{/each}
            </optgroup>
          {/each}
        </select></label
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
