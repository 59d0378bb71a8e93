<script lang="ts">
  import { blurPlot, distanceTicks, limitsPlot, percentTicks, stopTicks } from '../../lib/depthPlots'
  import type { BenchState, DepthView } from '../../lib/types'
  import CurvePlot from '../drawings/CurvePlot.svelte'

  interface Props {
    view: DepthView
    state: BenchState
    /** Names of formats by id. */
    names: Map<number, string>
    /** What stops are marked with: T, f/. */
    marks: string
  }
  let { view, state: bench, names, marks }: Props = $props()
  const DASHES = ['———', '– – –', '· · · ·', '—·—·', '·  ·  ·']

  const byDistance = $derived(limitsPlot(view, 'by_distance', names))
  const byStop = $derived(limitsPlot(view, 'by_stop', names))
  const blur = $derived(blurPlot(view, names))
</script>

<div class="plots">
  <CurvePlot
    title="In focus, by distance"
    plot={byDistance}
    xTicks={distanceTicks(byDistance.x, bench.unit)}
    yTicks={distanceTicks(byDistance.y, bench.unit)}
    xLabel="focus at, {bench.unit}"
    yLabel="near and far, {bench.unit}"
    here={bench.focus_m ?? bench.subject_m}
  />
  <CurvePlot
    title="In focus, by stop"
    plot={byStop}
    xTicks={stopTicks(byStop)}
    yTicks={distanceTicks(byStop.y, bench.unit)}
    xLabel={marks}
    yLabel="near and far, {bench.unit}"
    here={bench.stop}
  />
  <CurvePlot
    title="Blur of a background, by its distance"
    plot={blur}
    yLog={false}
    xTicks={distanceTicks(blur.x, bench.unit)}
    yTicks={percentTicks(blur)}
    xLabel="background at, {bench.unit}"
    yLabel="% of the width"
  />
</div>
<p class="soft key">
  {#each view.curves as c, i (c.format_id)}<span
      ><span class="dash" class:accent={c.chosen}>{DASHES[i]}</span>
      {names.get(c.format_id)}, sharp to {c.coc_mm.toFixed(4)} mm</span
    >{/each}
  <span>Pin formats in the list of formats to compare them here.</span>
</p>

<style>
  .plots {
    display: grid;
    gap: 10px;
    grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  }
  .key {
    font-size: 13px;
  }
  .dash {
    color: var(--light);
    white-space: pre;
  }
  .dash.accent {
    color: var(--accent);
  }
</style>
