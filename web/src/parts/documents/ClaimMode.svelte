<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import type { BodyDocument } from '../../lib/types'

  interface Props {
    document: BodyDocument
    value: string | null | undefined
    /** Whether the whole sensor may be meant. */
    optional?: boolean
    onchange: (mode: string | null) => void
  }
  let { document, value, optional = false, onchange }: Props = $props()
</script>

<Choice
  label="Scan mode"
  options={[
    ...(optional ? [{ value: null, label: 'the whole sensor' }] : []),
    ...document.modes.map((mode) => ({ value: mode.key, label: mode.name })),
  ]}
  value={value ?? null}
  {onchange}
/>
