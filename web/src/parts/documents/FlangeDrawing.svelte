<script lang="ts">
  import type { MountDocument } from '../../lib/types'

  interface Props {
    mount: MountDocument
    /** The longest flange distance of the list sets the scale. */
    longest: number
  }
  let { mount, longest }: Props = $props()
  const PX = 150
  const flange = $derived(Number(mount.flange_mm) || 0)
  const x = $derived(PX + 4 - (flange / longest) * PX)
</script>

{#if flange > 0}
  <svg width={PX + 14} height="24" role="img" aria-label="{mount.name}: {flange} mm from flange to sensor">
    <line x1={PX + 4} x2={PX + 4} y1="3" y2="21" stroke="var(--ink)" stroke-width="2.5" />
    <line class="way" x1={x} x2={PX + 4} y1="12" y2="12" stroke="var(--light)" stroke-dasharray="4 3" />
    <line x1={x} x2={x} y1="4" y2="20" stroke="var(--accent)" stroke-width="2.5" />
  </svg>
{:else}<span class="soft">not stated: infinity cannot be checked</span>{/if}
