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
    value.own
      ? `own${value.own.name}`
      : value.name === 'scan_mode'
        ? `window${value.scan_mode_id}`
        : (value.name ?? 'super35'),
  )
  /** Those of the production, and the one that is set where it is none of them any more. */
  const own = $derived([
    ...equipment.references,
    ...(value.own && !equipment.references.some((r) => r.name === value.own?.name) ? [value.own] : []),
  ])
  const references = $derived([
    { value: 'super35', label: 'Super 35' },
    { value: 'full_frame', label: 'full frame' },
    ...own.map(({ name }) => ({ value: `own${name}`, label: name, group: 'Of this production' })),
    ...equipment.bodies.flatMap((body) =>
      body.modes.map((mode) => ({ value: `window${mode.id}`, label: mode.name, group: body.name })),
    ),
  ])
  function choose(text: string) {
    const id = /^window(\d+)$/.exec(text)?.[1]
    const window = own.find(({ name }) => text === `own${name}`)
    const { by } = value
    if (window) onchange({ name: 'own', own: window, scan_mode_id: null, by })
    else if (id) onchange({ name: 'scan_mode', own: null, scan_mode_id: Number(id), by })
    else
      onchange({ name: text === 'full_frame' ? 'full_frame' : 'super35', own: null, scan_mode_id: null, by })
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
