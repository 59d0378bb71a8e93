<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { wordOptions } from '../../lib/options'
  import type { Reference } from '../../lib/reference'
  import type { Package } from '../../lib/types'

  interface Props {
    value: Reference
    package: Package
    /** What the two choices are for, for those who do not see them. */
    label: string
    dimensionLabel: string
    onchange: (value: Reference) => void
  }
  let { value, package: equipment, label, dimensionLabel, onchange }: Props = $props()

  const keyOf = ({ name, own, scan_mode_id }: Reference) =>
    own ? `own${own.name}` : name === 'scan_mode' ? `window${scan_mode_id}` : name
  const shown = $derived(keyOf(value))
  /** Those of the production, and the one that is set where it is none of them any more. */
  const own = $derived([
    ...equipment.references,
    ...(value.own && !equipment.references.some((r) => r.name === value.own?.name) ? [value.own] : []),
  ])
  const marked = (option: { value: string; label: string; group?: string }) =>
    option.value === keyOf(equipment.reference)
      ? { ...option, label: `${option.label}, the production’s` }
      : option
  const references = $derived([
    marked({ value: 'super35', label: 'Super 35' }),
    marked({ value: 'full_frame', label: 'full frame' }),
    ...own.map(({ name }) => marked({ value: `own${name}`, label: name, group: 'Of this production' })),
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
