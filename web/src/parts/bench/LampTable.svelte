<script lang="ts">
  import type { FlickerView } from '../../lib/types'
  import { FLICKER } from '../../lib/verdicts'

  interface Props {
    lamps: FlickerView['lamps']
    chosen: string
  }
  let { lamps, chosen }: Props = $props()
  const depth = (stops: number | null) => (stops === null ? '–' : stops > 9.99 ? '> 10' : stops.toFixed(2))
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="wide" role="group" aria-label="Lamps under this shutter" tabindex="0">
  <table class="figures">
    <caption>Lamps under this shutter</caption>
    <thead
      ><tr
        ><th>Lamp</th><th class="n">Swings</th><th>Verdict</th><th class="n">Frames differ</th><th class="n"
          >Bands</th
        ><th class="n">Band depth</th><th>What is seen</th></tr
      ></thead
    >
    <tbody>
      {#each lamps as l (l.kind)}
        <tr class:now={l.kind === chosen} data-lamp={l.kind}>
          <td>{l.name}</td>
          <td class="n figure">{l.kind === 'steady' ? '–' : `${Number(l.hz.toFixed(1))} Hz`}</td>
          <td class={FLICKER[l.verdict].look}>{FLICKER[l.verdict].sign} {FLICKER[l.verdict].words}</td>
          <td class="n figure">{depth(l.frame_stops)}</td>
          <td class="n figure">{l.bands === null || l.kind === 'steady' ? '–' : l.bands.toFixed(1)}</td>
          <td class="n figure">{depth(l.band_stops)}</td>
          <td>{l.text}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  table {
    min-width: 780px;
    width: 100%;
  }
  .now td:first-child {
    color: var(--accent);
  }
</style>
