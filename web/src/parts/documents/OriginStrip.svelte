<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { wordOptions } from '../../lib/options'
  import type { Origin } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    /** What the figure belongs to: a body, a set. */
    what?: string
    /** The figure that is meant; without one it is the whole. */
    label: string
    /** Its own origin, or null when it has that of the whole (or is the whole). */
    own: Origin | null
    /** Whether it is a single figure, that may have the origin of the whole. */
    single: boolean
    whole: Origin
    fault: (field: string) => string | undefined
    onset: (origin: Origin | null) => void
  }
  let { what = 'body', label, own, single, whole, fault, onset }: Props = $props()
  const shown = $derived(own ?? whole)
  const KINDS = ['claimed', 'computed', 'measured', 'assumed'] as const
  const change = (part: Partial<Origin>) => onset({ ...shown, ...part })
</script>

<div class="origin" role="group" aria-label="Where a figure comes from">
  <span><span class="soft">Where it comes from:</span> {label}</span>
  <Choice
    label="Kind of origin"
    options={wordOptions(KINDS)}
    value={shown.kind}
    onchange={(kind) => change({ kind })}
  />
  <span class="item"
    ><span class="soft">from</span><EntryField
      label="Source"
      kind="text"
      size={24}
      value={shown.source}
      placeholder="data sheet, own test…"
      fault={fault('source')}
      oninput={(value) => change({ source: String(value) })}
    /></span
  >
  <span class="item"
    ><span class="soft">on</span><EntryField
      label="Day"
      kind="text"
      size={10}
      value={shown.date}
      placeholder="2026-05-18"
      fault={fault('date')}
      oninput={(value) => change({ date: String(value) })}
    /></span
  >
  <span class="item"
    ><span class="soft">firmware</span><EntryField
      label="Firmware of the figure"
      kind="text"
      size={7}
      value={shown.firmware}
      fault={fault('firmware')}
      oninput={(value) => change({ firmware: String(value) })}
    /></span
  >
  {#if single && own}<button class="knob" onclick={() => onset(null)}>As for the whole {what}</button>
  {:else if single}<span class="soft">as for the whole {what}</span>{/if}
</div>

<style>
  .origin {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 0.9rem;
    min-height: 34px;
    padding: 2px 10px;
    font-size: 13.5px;
    background: var(--panel);
    border: 1px solid var(--line);
  }
</style>
