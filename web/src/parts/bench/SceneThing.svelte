<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { NEW_OBJECTS } from '../../lib/scene'
  import type { FinderObject, Problem, SceneObject, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'

  interface Props {
    thing: SceneObject
    /** How it is seen. */
    seen: FinderObject | undefined
    unit: Unit
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onedit: (part: Partial<SceneObject>, kind?: string) => void
    onremove: () => void
  }
  const KINDS = Object.entries(NEW_OBJECTS).map(([kind, { label }]) => ({
    value: kind as SceneObject['kind'],
    label,
  }))
  let { thing: o, seen, unit, read, onedit, onremove }: Props = $props()
</script>

<tr data-object={o.key}>
  <td
    ><Choice
      label="Kind of {o.name}"
      options={KINDS}
      value={o.kind}
      onchange={(kind) => onedit({ kind })}
    /></td
  >
  <td
    ><input
      class="set"
      size="14"
      maxlength="80"
      aria-label="Name of {o.name}"
      value={o.name}
      onchange={(event) => {
        const name = event.currentTarget.value.trim()
        if (name) onedit({ name })
        else event.currentTarget.value = o.name
      }}
    /></td
  >
  <td class="n"
    ><DistanceField
      label="Distance of {o.name}"
      metres={o.distance_m}
      {unit}
      {read}
      onchange={(distance_m, kind) => onedit({ distance_m }, kind)}
    /></td
  >
  <td class="n"
    ><DistanceField
      label="{o.name}, to the right of the axis"
      metres={o.aside_m}
      signed
      {unit}
      {read}
      onchange={(aside_m, kind) => onedit({ aside_m }, kind)}
    /></td
  >
  <td class="n"
    ><DistanceField
      label="Height of {o.name}"
      metres={o.height_m}
      {unit}
      {read}
      onchange={(height_m, kind) => onedit({ height_m }, kind)}
    /></td
  >
  <td class="n"
    ><DistanceField
      label="Ground of {o.name} above the camera's"
      metres={o.ground_m}
      signed
      {unit}
      {read}
      onchange={(ground_m, kind) => onedit({ ground_m }, kind)}
    /></td
  >
  <td class="n figure"
    >{seen?.blur_share == null ? 'behind the lens' : `${(100 * seen.blur_share).toFixed(2)} % W`}
    {#if seen?.sharp}<span class="ok">sharp</span>{/if}</td
  >
  <td class="n figure">{seen?.size_ratio == null ? '–' : `${(100 * seen.size_ratio).toFixed(1)} %`}</td>
  <td><button class="knob small" aria-label="Take {o.name} out" onclick={onremove}>Remove</button></td>
</tr>
