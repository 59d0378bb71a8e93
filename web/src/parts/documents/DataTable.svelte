<script lang="ts">
  import Down from '@lucide/svelte/icons/chevron-down'
  import Right from '@lucide/svelte/icons/chevron-right'
  import { megabytes, minutes, percent, ratio } from '../../lib/format'
  import type { DataTable, PackageSettings } from '../../lib/types'

  interface Props {
    rows: DataTable['rows']
    cards: NonNullable<PackageSettings['cards']>
  }
  let { rows, cards }: Props = $props()
  /** The format whose crops are told. */
  let open = $state<number | null>(null)
</script>

<div class="grid">
  <table>
    <caption class="sr-only">Pixels and data of every recording format</caption>
    <thead>
      <tr>
        <th scope="col">Recording format</th>
        <th scope="col" class="number" title="Samples of the recorded part">Sampled</th>
        <th scope="col" class="number">Recorded</th>
        <th scope="col" class="number" title="Samples for each recorded pixel, across × down">Oversampled</th>
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
      {#each rows as r (r.format_id)}
        <tr class:dim={!r.fits_rate}>
          <th scope="row">
            {#if r.crops.length + r.windows.length}<button
                class="opens"
                aria-expanded={open === r.format_id}
                aria-label="Tighter in camera, or {r.format} cropped afterwards"
                title="Tighter in camera, or cropped afterwards"
                onclick={() => (open = open === r.format_id ? null : r.format_id)}
                >{#if open === r.format_id}<Down size={14} />{:else}<Right size={14} />{/if}</button
              >{:else}<span class="opens">&nbsp;</span>{/if}{r.format} <span class="soft">{r.body}</span>
            {#if !r.fits_rate}<span class="warn">not at this rate</span>{/if}
            {#each r.needs as need (need)}<span class="warn">{need}</span>{/each}
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
            >{ratio(r.oversampling[0])}{Math.abs((r.oversampling[0] ?? 0) - (r.oversampling[1] ?? 0)) > 0.005
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
      {/each}
    </tbody>
  </table>
</div>

<style>
  .aside {
    font-family: var(--font-words);
    font-size: 12px;
    color: var(--ink-soft);
  }
  .grid :is(th, td) {
    padding-block: 3px;
    vertical-align: baseline;
  }
  .opens {
    display: inline-block;
    min-width: 22px;
    min-height: 22px;
    vertical-align: middle;
    color: var(--ink-soft);
  }
  .dim {
    color: var(--ink-soft);
  }
  .warn {
    color: var(--warn);
    font-size: 13px;
  }
  .crops {
    white-space: normal !important;
    padding: 6px 12px 8px 34px !important;
    background: var(--panel);
  }
</style>
