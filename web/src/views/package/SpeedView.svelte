<script lang="ts">
  import { onDestroy } from 'svelte'
  import Choice from '../../parts/controls/Choice.svelte'
  import { withChosen } from '../../lib/options'
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { mm, percent, rate, stops } from '../../lib/format'
  import { Latest } from '../../lib/latest'
  import { SettingsEditor } from '../../lib/settings.svelte'
  import type { Problem, SpeedTable } from '../../lib/types'
  import SettingField from '../../parts/fields/SettingField.svelte'
  import RateText from '../../parts/fields/RateText.svelte'
  import Begin from '../../parts/page/Begin.svelte'
  import SettingsNotice from '../../parts/page/SettingsNotice.svelte'
  import SpeedPlot from '../../parts/drawings/SpeedPlot.svelte'

  let { productionId, onundoable }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const settings = new SettingsEditor(productionId)
  // The header's undo works on what is shown here.
  $effect(() => onundoable(settings.undo))
  onDestroy(() => {
    settings.close()
    onundoable(null)
  })
  let table = $state.raw<SpeedTable | null>(null)
  let problem = $state.raw<Problem | null>(null)
  let lit = $state<number | null>(null)
  const latest = new Latest(
    () => productionId,
    async (id, signal) => {
      const { data, problem: why } = await client.readSpeed(id, signal)
      if (data) table = data
      problem = why ?? null
    },
  )
  // The table follows what is kept.
  $effect(() => {
    if (settings.kept) latest.want()
  })
  const movements = $derived(table?.movements ?? [])
  const crossing = $derived(settings.settings?.crossing_s ?? null)
</script>

<div class="bar">
  <SettingField label="Wanted rate" editor={settings} path="wanted_fps" unit="fps" />
  <SettingField label="Base rate" editor={settings} path="base_fps" unit="fps" />
  <SettingField label="Shutter" editor={settings} path="shutter_deg" unit="°" />
  <span class="item"
    ><span class="soft">Skew of</span>
    <Choice
      label="Movement"
      options={withChosen(
        movements.map((m) => ({ value: m.crossing_s, label: m.name })),
        crossing,
        'own movement',
      )}
      value={crossing}
      onchange={(crossing_s) => settings.set('crossing_s', crossing_s)}
    /></span
  >
  <SettingField label="that crosses the frame in" editor={settings} path="crossing_s" unit="s" />
</div>
<SettingsNotice editor={settings} {problem} />

{#if table && !table.modes.length}<Begin {productionId} what="This" />
{:else if table}
  <SpeedPlot {table} {lit} onlight={(id) => (lit = id)} />
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="grid" role="group" aria-label="The speed of every scan mode" tabindex="0">
    <table>
      <caption class="sr-only">The speed of every scan mode, and what it costs</caption>
      <thead>
        <tr>
          <th scope="col">Scan mode</th>
          <th scope="col" class="number" title="Window on the sensor">mm</th>
          <th scope="col" class="number" title="Share of the sensor's width that is left">Width</th>
          <th scope="col" class="number" title="Rows of samples that are read">Rows</th>
          <th scope="col" title="Highest progressive rate that can be chosen; in brackets what else limits it"
            >Highest rate</th
          >
          <th scope="col">bound by</th>
          <th scope="col" title="Highest interlaced rate, frames a second">Interlaced</th>
          <th scope="col" class="number">Readout</th>
          <th scope="col" class="number" title="Lean of an upright edge, and how far of the frame's width"
            >Skew</th
          >
          <th scope="col" class="number" title="At the highest usable rate, played at the base rate"
            >Slow motion</th
          >
          <th scope="col" class="number" title="At the shutter angle">Shutter</th>
          <th scope="col" class="number" title="Against the base rate at the same angle">Light</th>
          <th scope="col">At {rate(table.wanted_fps)} fps</th>
        </tr>
      </thead>
      <tbody>
        {#each table.modes as m (m.mode_id)}
          <tr
            class:chosen={m.mode_id === lit}
            onpointerenter={() => (lit = m.mode_id)}
            onpointerleave={() => (lit = null)}
          >
            <th scope="row">{m.name} <span class="soft">{m.body}</span></th>
            <td class="number figure">{mm(m.width_mm)} × {mm(m.height_mm)}</td>
            <td class="number figure">{percent(100 * m.share_of_width).replace('+', '')}</td>
            <td class="number figure">{m.rows_read}</td>
            <td class="figure strong"><RateText text={m.progressive?.text} /></td>
            <td class="soft">{m.progressive?.limited_by ?? ''}</td>
            <td class="figure" title={m.interlaced ? `bound by ${m.interlaced.limited_by}` : undefined}
              ><RateText text={m.interlaced?.text} /></td
            >
            <td class="number figure">{m.readout_ms == null ? '–' : `${m.readout_ms.toFixed(1)} ms`}</td>
            <td class="number figure"
              >{m.skew ? `${m.skew.degrees.toFixed(1)}° ${(100 * m.skew.share).toFixed(1)} %` : '–'}</td
            >
            <td class="number figure">{m.slow_motion == null ? '–' : `${m.slow_motion.toFixed(2)}×`}</td>
            <td class="number figure"
              >{m.shutter_ms == null ? '–' : `1/${(1000 / m.shutter_ms).toFixed(0)} s`}</td
            >
            <td class="number figure">{m.stops_lost == null ? '–' : stops(-m.stops_lost)}</td>
            <td>
              {#if m.wanted?.fits}<span class="ok">✓ reached</span>
                {#if m.wanted.free_window}<span class="soft">with up to {m.wanted.free_window.rows} rows</span
                  >{/if}
              {:else if m.wanted?.free_window}
                <span class="warn"
                  >set {m.wanted.free_window.rows} rows: {mm(m.wanted.free_window.height_mm)} mm high</span
                >
              {:else if m.wanted}<span class="bad">✗ not reached</span>{:else}<span class="soft"
                  >not known</span
                >{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

<style>
  .grid :global(:is(th, td)) {
    padding-block: 3px;
  }
  .strong {
    color: var(--accent);
  }
</style>
