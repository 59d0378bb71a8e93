<script lang="ts">
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

<select
  class="set"
  aria-label="Scan mode"
  value={value ?? ''}
  onchange={(event) => onchange(event.currentTarget.value || null)}
>
  {#if optional}<option value="">the whole sensor</option>{/if}
  {#each document.modes as mode (mode.key)}<option value={mode.key}>{mode.name}</option>{/each}
</select>
