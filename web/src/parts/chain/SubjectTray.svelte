<script lang="ts">
  import { distanceWithUnit } from '../../lib/format'
  import type { BenchState, BenchView, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'

  interface Props {
    state: BenchState
    view: BenchView
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { state, view, read, onchange }: Props = $props()
  /** How far a subject moves at first, metres. */
  const MOVEMENT_M = 0.4
</script>

<span class="item"
  ><span class="soft">Subject at</span>
  <DistanceField
    label="Subject distance from the sensor plane"
    metres={state.subject_m}
    unit={state.unit}
    {read}
    onchange={(subject_m, kind) => onchange({ subject_m }, kind)}
  /></span
>
<span class="item"
  ><span class="soft">Focus at</span>
  <DistanceField
    label="Focus distance"
    metres={state.focus_m ?? state.subject_m}
    unit={state.unit}
    {read}
    onchange={(focus_m, kind) => onchange({ focus_m }, kind)}
  /></span
>
<button class="knob" disabled={state.focus_m === null} onclick={() => onchange({ focus_m: null })}
  >Focus on the subject</button
>
<label class="item"
  ><input
    type="checkbox"
    checked={state.movement_m > 0}
    onchange={(event) => onchange({ movement_m: event.currentTarget.checked ? MOVEMENT_M : 0 })}
  />
  moves back and forth</label
>
{#if state.movement_m > 0}
  <span class="item"
    ><span class="soft">over</span>
    <DistanceField
      label="Movement from end to end"
      metres={state.movement_m}
      unit={state.unit}
      {read}
      onchange={(movement_m, kind) => onchange({ movement_m }, kind)}
    /></span
  >
{/if}
<span class="soft">Distances count from the sensor plane, as the focus mark does.</span>
{#if view.links.subject.from_front_m !== null}
  <span class="soft"
    >{view.links.subject.from_front_m > 0
      ? `From the front of the lens: ${distanceWithUnit(view.links.subject.from_front_m, state.unit)}.`
      : 'That lies inside the lens.'}</span
  >
{/if}
