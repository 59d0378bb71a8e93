<script lang="ts">
  import type { CompareColumn, CompareView } from '../../lib/types'
  import NumberField from '../fields/NumberField.svelte'

  interface Props {
    /** Which set-up it is: "of B". */
    named: string
    column: CompareColumn
    shown: CompareView['columns'][number]
    /** Whether it can be trimmed by eye to the first. */
    trims: boolean
    fault: (name: string) => string | undefined
    onchange: (part: Partial<CompareColumn>, kind?: string) => void
  }
  let { named, column, shown, trims, fault, onchange }: Props = $props()
  const nds = $derived([...new Set([...shown.nds, column.nd_stops])].toSorted((a, b) => a - b))
</script>

<p>
  <select
    class="set figure"
    aria-label="EI {named}"
    value={String(shown.ei)}
    onchange={(event) => onchange({ ei: Number(event.currentTarget.value) })}
    >{#each [...new Set([...shown.eis, shown.ei])].toSorted((a, b) => a - b) as ei (ei)}<option
        value={String(ei)}>EI {ei}</option
      >{/each}</select
  >
  <select
    class="set figure"
    aria-label="ND {named}"
    value={String(column.nd_stops)}
    onchange={(event) => onchange({ nd_stops: Number(event.currentTarget.value) })}
    >{#each nds as nd (nd)}<option value={String(nd)}>{nd ? `ND ${nd} stops` : 'no ND'}</option
      >{/each}</select
  >
  <NumberField
    label="Rate {named}"
    size={5}
    value={column.fps}
    fault={fault('fps')}
    onchange={(fps) => fps !== null && onchange({ fps })}
  /> fps
  <NumberField
    label="Shutter {named}, degrees"
    size={4}
    value={column.shutter_deg}
    fault={fault('shutter_deg')}
    onchange={(shutter_deg) => shutter_deg !== null && onchange({ shutter_deg })}
  />°
</p>
{#if trims}
  <p class="trim">
    <span class="soft">by eye</span>
    <NumberField
      label="Trim by eye, stops, {named}"
      size={3}
      value={column.trim_stops}
      fault={fault('trim_stops')}
      onchange={(trim_stops) => trim_stops !== null && onchange({ trim_stops })}
    /> stops
    <NumberField
      label="Trim by eye, per cent of width, {named}"
      size={3}
      value={column.trim_width_percent}
      fault={fault('trim_width_percent')}
      onchange={(trim_width_percent) => trim_width_percent !== null && onchange({ trim_width_percent })}
    /> % wide
    <input
      class="set"
      size="14"
      maxlength="400"
      placeholder="why"
      aria-label="Note on the trim {named}"
      value={column.trim_note}
      oninput={(event) => onchange({ trim_note: event.currentTarget.value }, 'note')}
    />
  </p>
{/if}

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.45rem;
    align-items: center;
    min-height: 26px;
  }
  .trim {
    font-size: 13px;
  }
  select {
    max-width: 100%;
  }
</style>
