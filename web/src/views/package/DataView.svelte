<script lang="ts">
  import * as client from '../../lib/client'
  import { faultsOf } from '../../lib/faults'
  import { megabytes, minutes, percent, ratio } from '../../lib/format'
  import { Latest } from '../../lib/latest'
  import { SettingsEditor } from '../../lib/settings.svelte'
  import type { DataAsk, DataTable, Problem } from '../../lib/types'
  import CardsEditor from '../../parts/CardsEditor.svelte'
  import GridCell from '../../parts/GridCell.svelte'
  import SettingField from '../../parts/SettingField.svelte'
  import SettingsNotice from '../../parts/SettingsNotice.svelte'

  interface Props {
    productionId: number
    productionName: string
  }
  let { productionId, productionName }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const settings = new SettingsEditor(productionId)
  let ask = $state.raw<Required<DataAsk>>({ fps: null, delivery: [3840, 2160], squeeze: 1 })
  let table = $state.raw<DataTable | null>(null)
  let problem = $state.raw<Problem | null>(null)
  let open = $state<number | null>(null)
  const faults = $derived(faultsOf(problem))
  const latest = new Latest(
    () => ask,
    async (now, signal) => {
      const { data, problem: why } = await client.readData(productionId, now, signal)
      if (data) table = data
      problem = why ?? null
    },
  )
  // The table follows what is kept.
  $effect(() => {
    if (settings.kept) latest.want()
  })
  function change(part: Partial<DataAsk>) {
    ask = { ...ask, ...part }
    latest.want()
  }
  const cards = $derived(settings.settings?.cards ?? [])
  const DELIVERIES = [
    [1920, 1080],
    [2048, 1080],
    [3840, 2160],
    [4096, 2160],
    [3840, 1607],
    [1080, 1920],
  ]
</script>

<svelte:head><title>{productionName}: pixels and data – Hextan</title></svelte:head>

<div class="asked">
  <span class="item"
    ><span class="soft">Rate</span><GridCell
      label="Rate at which the data are counted"
      kind="text"
      value={ask.fps ?? ''}
      placeholder="base"
      fault={faults['fps']}
      oninput={(fps) => change({ fps: fps === '' ? null : String(fps) })}
    /> fps</span
  >
  <span class="item"
    ><span class="soft">Delivered</span>{#each [0, 1] as axis (axis)}{axis ? '×' : ''}<GridCell
        label={axis ? 'Delivered height' : 'Delivered width'}
        kind="number"
        size={5}
        value={ask.delivery[axis]}
        fault={faults[`delivery[${axis}]`]}
        oninput={(n) => change({ delivery: ask.delivery.map((m, i) => (i === axis ? (n as number) : m)) })}
      />{/each}
    <select
      class="set"
      aria-label="Usual deliveries"
      value={ask.delivery.join(' × ')}
      onchange={(event) => change({ delivery: event.currentTarget.value.split(' × ').map(Number) })}
    >
      {#each DELIVERIES as raster (raster.join())}<option>{raster.join(' × ')}</option>{/each}
      {#if !DELIVERIES.some((d) => d.join() === ask.delivery.join())}<option
          >{ask.delivery.join(' × ')}</option
        >{/if}
    </select></span
  >
  <span class="item"
    ><span class="soft">Lens squeeze</span><GridCell
      label="Squeeze of the lens"
      kind="number"
      size={4}
      value={ask.squeeze}
      fault={faults['squeeze']}
      oninput={(squeeze) => change({ squeeze: squeeze as number })}
    />×</span
  >
  <SettingField label="A day has" editor={settings} path="minutes_a_day" unit="min of running camera" />
  <CardsEditor editor={settings} />
</div>
<SettingsNotice editor={settings} problem={Object.keys(faults).length ? null : problem} />

{#if table}
  <div class="grid">
    <table>
      <caption class="sr-only">Pixels and data of every recording format</caption>
      <thead>
        <tr>
          <th scope="col">Recording format</th>
          <th scope="col" class="number" title="Samples of the recorded part">Sampled</th>
          <th scope="col" class="number">Recorded</th>
          <th scope="col" class="number" title="Samples for each recorded pixel, across × down"
            >Oversampled</th
          >
          <th scope="col" class="number" title="Recorded pixels over the delivery, along the tighter axis"
            >Headroom</th
          >
          <th scope="col" class="number" title="How far it can be turned and still deliver every pixel"
            >Levelling</th
          >
          <th scope="col" class="number">MB/s</th>
          {#each cards as card (card.key)}
            <th scope="col" class="number" title="{card.capacity} {card.unit}">{card.name}, min</th>
          {/each}
          <th scope="col" class="number" title="Storage for a day's planned minutes; 1 GiB = 2^30 bytes"
            >A day</th
          >
          <th scope="col" class="number" title="How long a burst lasts until the buffer is full">Buffer</th>
        </tr>
      </thead>
      <tbody>
        {#each table.rows as r (r.format_id)}
          <tr class:dim={!r.fits_rate}>
            <th scope="row">
              {#if r.crops.length + r.windows.length}<button
                  class="opens"
                  aria-expanded={open === r.format_id}
                  aria-label="Tighter in camera, or {r.format} cropped afterwards"
                  title="Tighter in camera, or cropped afterwards"
                  onclick={() => (open = open === r.format_id ? null : r.format_id)}
                  >{open === r.format_id ? '▾' : '▸'}</button
                >{:else}<span class="opens">&nbsp;</span>{/if}{r.format} <span class="soft">{r.body}</span>
              {#if !r.fits_rate}<span class="warn">not at this rate</span>{/if}
            </th>
            <td class="number figure"
              >{r.sampled.join(' × ')} <span class="aside">{r.sampled_mp.toFixed(1)} MP</span></td
            >
            <td class="number figure"
              >{r.recorded.join(' × ')}
              <span class="aside"
                >{r.recorded_mp.toFixed(1)}{Math.abs(r.recorded_mp - r.picture_mp) >= 0.05
                  ? `, picture ${r.picture_mp.toFixed(1)}`
                  : ''} MP</span
              ></td
            >
            <td class="number figure"
              >{ratio(r.oversampling[0])}{Math.abs((r.oversampling[0] ?? 0) - (r.oversampling[1] ?? 0)) >
              0.005
                ? ` ${ratio(r.oversampling[1])}`
                : ''}</td
            >
            <td class="number figure" class:bad={r.headroom_percent < -0.5}>{percent(r.headroom_percent)}</td>
            <td class="number figure">{r.levelling_deg == null ? '–' : `${r.levelling_deg.toFixed(1)}°`}</td>
            <td class="number figure">{megabytes(r.mb_s)}</td>
            {#each cards as card (card.key)}
              <td class="number figure">{minutes(r.card_minutes[card.key ?? ''])}</td>
            {/each}
            <td class="number figure"
              >{r.day_gb == null ? '–' : `${r.day_gb.toFixed(0)} GB`}
              <span class="aside">{r.day_gib == null ? '' : `${r.day_gib.toFixed(0)} GiB`}</span></td
            >
            <td class="number figure"
              >{r.buffer_s == null ? '–' : `${r.buffer_s.toFixed(1)} s`}
              <span class="aside">{r.buffer_frames == null ? '' : `${r.buffer_frames} frames`}</span></td
            >
          </tr>
          {#if open === r.format_id}
            <tr>
              <td colspan={9 + cards.length} class="crops">
                {#each r.windows as w (w.name)}<p><strong>{w.name}</strong> {w.words}</p>{/each}
                {#each r.crops as crop (crop.name)}<p><strong>{crop.name}</strong> {crop.words}</p>{/each}
              </td>
            </tr>
          {/if}
        {:else}
          <tr><td colspan="12" class="soft empty">No recording format yet: enter a body.</td></tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

<style>
  .aside {
    font-family: 'IBM Plex Sans Condensed', sans-serif;
    font-size: 12px;
    color: var(--ink-soft);
  }
  .asked {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1.4rem;
    font-size: 14px;
  }
  .item {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
  }
  .item :global(.cell input) {
    border-bottom-color: var(--line-strong);
  }
  .grid :global(:is(th, td)) {
    padding-block: 3px;
  }
  .opens {
    display: inline-block;
    min-width: 22px;
    min-height: 22px;
    color: var(--ink-soft);
  }
  .dim {
    color: var(--ink-soft);
  }
  .warn {
    color: var(--warn);
    font-size: 13px;
  }
  .bad {
    color: var(--bad);
  }
  .crops {
    white-space: normal !important;
    padding: 6px 12px 8px 34px !important;
    background: var(--panel);
  }
  strong {
    font-weight: 500;
  }
</style>
