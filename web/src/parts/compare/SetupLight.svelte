<script lang="ts">
  import { ndStops } from '../../lib/light'
  import Choice from '../controls/Choice.svelte'
  import { figureOptions } from '../../lib/options'
  import { trade } from '../../lib/trade.svelte'
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
</script>

<p class="entries">
  <Choice
    label="{trade.sensitivity} {named}"
    figure
    options={figureOptions(shown.eis, shown.ei, (ei) => trade.ei(ei))}
    value={shown.ei}
    onchange={(ei) => onchange({ ei })}
  />
  <Choice
    label="ND {named}"
    figure
    options={figureOptions(shown.nds, column.nd_stops, (nd) => (nd ? `ND ${ndStops(nd)}` : 'no ND'))}
    value={column.nd_stops}
    onchange={(nd_stops) => onchange({ nd_stops })}
  />
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
  <p class="entries trim">
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
  .trim {
    font-size: 13px;
  }
</style>
