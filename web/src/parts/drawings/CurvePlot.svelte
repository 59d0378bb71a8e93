<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import type { DepthPlot } from '../../lib/depthPlots'
  import { bandPath, linePath, type Mark, type Span } from '../../lib/plots'
  import PlotFrame from './PlotFrame.svelte'

  interface Props {
    title: string
    plot: DepthPlot
    xLabel: string
    yLabel: string
    /** Figures to mark on the axes. */
    xTicks: Mark[]
    yTicks: Mark[]
    /** Both axes grow by ratios, or only the one across. */
    yLog?: boolean
    /** Where the Bench stands now. */
    here?: number | null
  }
  let { title, plot, xLabel, yLabel, xTicks, yTicks, yLog = true, here = null }: Props = $props()

  const HEIGHT = 230
  /** Curves that leave the field go on to here, so that they cross its edge. */
  const BEYOND = -50
  const DASHES = ['', '7 4', '2 3', '10 3 2 3', '1 5']
  const across = $derived((pixels: Span) => scaleLog().domain(plot.x).range(pixels))
  const up = $derived((pixels: Span) => {
    const scale = (yLog ? scaleLog() : scaleLinear()).domain(plot.y).range(pixels)
    return (value: number) => Math.max(BEYOND, Math.min(HEIGHT - BEYOND, scale(value) as number))
  })
</script>

<PlotFrame
  {title}
  label="{title}: {plot.curves.map((c) => c.name).join(', ')}"
  height={HEIGHT}
  {across}
  {up}
  marksAcross={xTicks}
  marksUp={yTicks}
  unitAcross={xLabel}
  unitUp={yLabel}
>
  {#snippet children({ x, y, top, bottom, clip })}
    <g clip-path={clip}>
      {#if here !== null}<line class="here" x1={x(here)} x2={x(here)} y1={top} y2={bottom} />{/if}
      {#each plot.curves.toReversed() as curve (curve.id)}
        {@const dash = DASHES[plot.curves.indexOf(curve) % DASHES.length]}
        <g class:chosen={curve.chosen} class="curve" data-format={curve.id}>
          <title>{curve.name}</title>
          {#if curve.chosen && curve.high}<path class="band" d={bandPath(curve, x, y, BEYOND)} />{/if}
          <path d={linePath(curve.low, x, y, BEYOND)} stroke-dasharray={dash} />
          {#if curve.high}<path d={linePath(curve.high, x, y, BEYOND)} stroke-dasharray={dash} />{/if}
        </g>
      {/each}
    </g>
  {/snippet}
</PlotFrame>

<style>
  .here {
    stroke: var(--ink-soft);
    stroke-dasharray: 1 3;
  }
  .curve path {
    fill: none;
    stroke: var(--light);
    stroke-width: 1.6;
  }
  .chosen path {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .chosen .band {
    fill: var(--accent-fill);
    stroke: none;
  }
</style>
