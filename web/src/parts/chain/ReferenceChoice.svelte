<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { wordOptions } from '../../lib/options'
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
  const references = $derived([
    { value: 'super35', label: 'Super 35' },
    { value: 'full_frame', label: 'full frame' },
    ...equipment.bodies.flatMap((body) =>
      body.modes.map((mode) => ({ value: `window${mode.id}`, label: mode.name, group: body.name })),
    ),
  ])
  function choose(text: string) {
    const id = /^window(\d+)$/.exec(text)?.[1]
    const name = text === 'full_frame' ? 'full_frame' : 'super35'
    onchange(
      id ? { ...value, name: 'scan_mode', scan_mode_id: Number(id) } : { ...value, name, scan_mode_id: null },
    )
  }
</script>

<Choice {label} options={references} value={shown} onchange={choose} />
<span class="soft">by</span>
<Choice
  label={dimensionLabel}
  options={wordOptions(['width', 'height', 'diagonal'])}
  value={value.by}
  onchange={(by) => onchange({ ...value, by })}
/>
