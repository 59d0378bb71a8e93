<script lang="ts">
  import { distanceWithUnit, mm, percent } from '../lib/format'
  import type { FieldAnswer, FieldAsk, Package, Problem, Unit } from '../lib/types'
  import DistanceField from './DistanceField.svelte'
  import GridCell from './GridCell.svelte'
  import RoomDrawing from './RoomDrawing.svelte'

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
  const first = $derived(answer?.answers[0])

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

<section aria-label="Field and distance">
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
        <span class="soft">headroom</span><GridCell
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
          at <GridCell
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
    <div class="answer">
      <RoomDrawing {answer} {room} {unit} />
      <div class="told">
        {#if first}
          <p class="head">
            {#if ask.find === 'distance'}<strong class="figure"
                >{distanceWithUnit(first.distance_m, unit)}</strong
              > from the sensor plane
            {:else if ask.find === 'lens'}<strong
                >{first.lens}{first.candidate?.zoom ? ` at ${mm(first.set_mm)} mm` : ''}</strong
              >{first.via ? ` with ${first.via}` : ''}
            {:else}<strong>{first.format}</strong> of {first.body}{/if}
            <span class="soft"
              >shows {distanceWithUnit(first.width_m, unit)} × {distanceWithUnit(first.height_m, unit)};
              wanted {answer.wanted.by}
              {distanceWithUnit(answer.wanted.field_m, unit)}{first.percent !== null &&
              ask.find !== 'distance'
                ? ` (${percent(first.percent, 1)})`
                : ''}</span
            >
          </p>
        {/if}
        {#each answer.binds as text (text)}<p class="warn">{text}</p>{/each}
        {#if answer.framings.length && first}
          <table>
            <caption class="soft"
              >{first.lens}{first.via ? ` with ${first.via}` : ''} in {first.format}, from the sensor plane</caption
            >
            <tbody>
              {#each answer.framings as f (f.framing)}
                <tr class:chosen={f.framing === person?.framing}>
                  <th scope="row">{f.framing}</th>
                  <td class="number figure">{distanceWithUnit(f.distance_m, unit)}</td>
                  <td class="warn">{f.binds ? `✗ ${f.binds}` : ''}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        {/if}
        {#if ask.find !== 'distance'}
          <ul>
            {#each answer.answers.slice(1, 8) as a (a.format_id + '.' + a.lens_id + '.' + a.focal_mm)}
              <li class:dim={a.verdict === 'short'}>
                <span class="figure">{a.percent === null ? '–' : percent(a.percent, 1)}</span>
                {a.lens}{a.candidate?.zoom ? ` at ${mm(a.set_mm)} mm` : ''}{a.via
                  ? ` with ${a.via}`
                  : ''}{ask.find === 'format' ? ` in ${a.format} of ${a.body}` : ''}{a.verdict === 'short'
                  ? ', does not cover'
                  : ''}
              </li>
            {/each}
          </ul>
        {/if}
      </div>
    </div>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 4px;
    min-width: 0;
  }
  h2,
  strong {
    font-weight: 500;
  }
  strong {
    color: var(--accent);
    font-size: 17px;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1.3rem;
    font-size: 14px;
  }
  .item {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.35rem;
  }
  .answer {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 14px;
  }
  .told {
    font-size: 14px;
  }
  .warn {
    color: var(--warn);
  }
  table {
    margin-top: 4px;
  }
  caption {
    text-align: left;
  }
  :is(th, td) {
    padding: 1px 14px 1px 0;
    font-weight: 400;
    text-align: left;
  }
  td.number {
    text-align: right;
  }
  .chosen {
    color: var(--accent);
  }
  .dim {
    color: var(--ink-soft);
  }
  @media (max-width: 900px) {
    .answer {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
