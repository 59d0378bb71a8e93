<script lang="ts">
  import type { BenchState, Package } from '../../lib/types'

  type Reference = BenchState['reference']
  interface Props {
    value: Reference
    package: Package
    /** What the two choices are for, for those who do not see them. */
    label: string
    dimensionLabel: string
    onchange: (value: Reference) => void
  }
  let { value, package: equipment, label, dimensionLabel, onchange }: Props = $props()

  const shown = $derived(
    value.name === 'scan_mode' ? `window${value.scan_mode_id}` : (value.name ?? 'super35'),
  )
  function choose(text: string) {
    const id = /^window(\d+)$/.exec(text)?.[1]
    const name = text === 'full_frame' ? 'full_frame' : 'super35'
    onchange(
      id ? { ...value, name: 'scan_mode', scan_mode_id: Number(id) } : { ...value, name, scan_mode_id: null },
    )
  }
</script>

<select class="set" aria-label={label} value={shown} onchange={(event) => choose(event.currentTarget.value)}>
  <option value="super35">Super 35</option>
  <option value="full_frame">full frame</option>
  {#each equipment.bodies as body (body.id)}
    <optgroup label={body.name}>
      {#each body.modes as mode (mode.id)}<option value="window{mode.id}">{mode.name}</option>{/each}
    </optgroup>
  {/each}
</select>
<span class="soft">by</span>
<select
  class="set"
  aria-label={dimensionLabel}
  value={value.by}
  onchange={(event) => onchange({ ...value, by: event.currentTarget.value as Reference['by'] })}
>
  <option value="width">width</option>
  <option value="height">height</option>
  <option value="diagonal">diagonal</option>
</select>

<style>
  select {
    max-width: 11rem;
  }
</style>
