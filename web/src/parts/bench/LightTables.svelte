<script lang="ts">
  import { aperture, rate, stops as stopsText } from '../../lib/format'
  import { neededLight } from '../../lib/figures'
  import { shutterTime } from '../../lib/light'
  import type { ExposureView } from '../../lib/types'

  interface Props {
    view: ExposureView
    fps: number
  }
  let { view, fps }: Props = $props()
  /** Marks that are told. */
  const MARKS = 16
</script>

<div class="side">
  <table class="figures plain">
    <caption>Light for a stop</caption>
    <thead><tr><th>Stop</th><th class="n">lux</th><th class="n">fc</th></tr></thead>
    <tbody>
      {#each view.light_for_stops.slice(0, MARKS) as row (row.stop)}
        <tr class:now={Math.abs(row.stop - view.t_stop) < 1e-6}
          ><td class="figure">{view.marks}{aperture(row.stop)}</td><td class="n figure"
            >{neededLight(row.lux)}</td
          ><td class="n figure">{neededLight(row.foot_candles)}</td></tr
        >
      {/each}
    </tbody>
  </table>
  <p>
    <span class="soft">This light allows</span>
    <span class="figure">{view.marks}{view.stop_for_light.toFixed(2)}</span>
  </p>
</div>
<div class="side">
  <table class="figures plain">
    <caption>What a rate costs, same angle</caption>
    <tbody>
      {#each view.rates as row (row.fps)}
        <tr class:now={Math.abs(row.fps - fps) < 1e-6} class:gone={!row.possible}
          ><td class="figure">{rate(row.fps)} fps</td><td class="n figure">{row.stops.toFixed(1)} stops</td
          ><td class="soft">{row.possible ? '' : 'not here'}</td></tr
        >
      {/each}
    </tbody>
  </table>
  <table class="figures plain">
    <caption>What an angle gives, against 180°</caption>
    <tbody>
      {#each view.angles as row (row.angle_deg)}
        <tr class:now={Math.abs(row.angle_deg - view.angle_deg) < 0.01}
          ><td class="figure n">{Number(row.angle_deg.toFixed(2))}°</td><td class="n figure"
            >{stopsText(row.stops)}</td
          ><td class="n figure">{shutterTime(row.time_s)}</td></tr
        >
      {/each}
    </tbody>
  </table>
</div>

<style>
  .side {
    display: grid;
    gap: 10px;
    align-content: start;
  }
  .side :is(th, td) {
    padding-block: 0;
    line-height: 1.35;
  }
  .now td {
    color: var(--accent);
  }
  .gone td {
    color: var(--ink-soft);
  }
</style>
